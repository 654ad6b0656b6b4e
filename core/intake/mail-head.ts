import { type Day, type DateOrder, parseDay } from '@core/quantity/dates';

/** Heading lines of a mail that stands in a text as it was copied or kept. */
export type MailHead = {
  from?: string;
  subject?: string;
  /** When it was sent, in the mail's words. */
  sent?: string;
  /** Where in the text its own words begin, and lines before them. */
  body: number;
  lines: number;
};

const LINE = /^(from|to|cc|bcc|date|sent|subject|reply-to|importance|attachments?)[ \t]*:[ \t]*(.*)$/i;
/** A heading line that is too long goes on in the next one, set in. */
const FOLDED = /^[ \t]+\S/;

/** The heading that begins at a line; undefined where there is none. It names its writer, and a subject or a day. */
export function headAt(lines: readonly string[], at: number): MailHead | undefined {
  const told = new Map<string, string>();
  let [i, length, last] = [at, 0, ''];
  for (; i < lines.length; i++) {
    const line = lines[i] ?? '';
    const m = LINE.exec(line.trimEnd());
    const name = m?.[1]?.toLowerCase();
    if (name === undefined && (i === at || !FOLDED.test(line))) break;
    if (name === undefined) told.set(last, `${told.get(last) ?? ''} ${line.trim()}`);
    else told.set((last = name), m?.[2]?.trim() ?? '');
    length += line.length + 1;
  }
  const [from, subject, sent] = [told.get('from'), told.get('subject'), told.get('date') ?? told.get('sent')];
  if (from === undefined || (subject === undefined && sent === undefined)) return undefined;
  return {
    from,
    ...(subject === undefined ? {} : { subject }),
    ...(sent === undefined ? {} : { sent }),
    body: length,
    lines: i - at,
  };
}

/** The heading that a text begins with. */
export const headOf = (text: string): MailHead | undefined => headAt(text.split('\n', 24), 0);

/** The day on which a mail was sent, by its heading: with the month in letters, year first, or by the order of the desk. */
export function sentOn(sent: string | undefined, order: DateOrder, today: Day): Day | undefined {
  const text = (sent ?? '').replace(/(?<=\d)(?:st|nd|rd|th)\b/g, '');
  const american = /\b([a-z]{3,9})\.?[ \t]+(\d{1,2}),?[ \t]+(\d{4})\b/i.exec(text);
  const typed =
    /\b\d{4}-\d{2}-\d{2}/.exec(text)?.[0] ??
    /\b\d{1,2}\.?[ -][a-z]{3,9}\.?,?[ -]\d{4}\b/i.exec(text)?.[0] ??
    (american ? `${american[2]} ${american[1]} ${american[3]}` : undefined) ??
    /\b\d{1,4}[./-]\d{1,2}[./-]\d{2,4}\b/.exec(text)?.[0];
  const read = typed === undefined ? undefined : parseDay(typed, order, today);
  return read?.ok ? read.value : undefined;
}

/** The writer's name as a heading has it; the address where there is no name. */
export function writerOf(from: string): string {
  const name = from
    .replace(/<[^>]*>|\[mailto:[^\]]*\]/gi, '')
    .replace(/["']/g, '')
    .trim();
  return name || from.replace(/[<>]/g, '').trim();
}

/** The line at which an answer repeats what it answers: its second heading. What is sent on is read whole. */
export function repeatedFrom(lines: readonly string[]): number | undefined {
  const head = headAt(lines, 0);
  if (!/^(?:re|aw|antw|sv)\b/i.test(head?.subject ?? '')) return undefined;
  const at = lines.findIndex((_, i) => i >= (head?.lines ?? 0) && headAt(lines, i) !== undefined);
  return at < 0 ? undefined : at;
}
