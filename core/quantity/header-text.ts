/** Longest value of a heading: what mail programs show of one. */
const LONGEST = 200;

/**
 * A text as the value of a heading (a name, a subject, a file's name): one line. Line ends of every kind and signs that
 * direct a reader or a screen become blanks, so that nothing in it can begin another heading.
 */
export const headerText = (text: string): string =>
  text
    // controls, separators of lines and paragraphs, marks of direction and what joins or hides
    .replace(/[\p{Cc}\p{Cf}\p{Zl}\p{Zp}]+/gu, ' ')
    .replace(/ {2,}/g, ' ')
    .trim()
    .slice(0, LONGEST);

/** A file's name alone: no folder, no mark of direction, no control; "file" where nothing is left. */
export function fileNameText(name: string): string {
  const own = headerText(name.split(/[\\/]/).at(-1) ?? '').replace(/[<>:"|?*]/g, '-');
  return own === '' || /^\.+$/.test(own) ? 'file' : own;
}
