/** What a procedure's text may name between braces; each is written from the layout. */
export const PLACEHOLDERS = [
  'drive',
  'key',
  'carrier',
  'reading',
  'nominal',
  'window',
  'driver',
  'marked',
  'route',
  'rollers',
  'turns',
] as const;
const NAMED = /\{(\w+)\}/g;

/** Names between braces in a text that no layout can fill. */
export const unknownPlaceholders = (text: string): string[] =>
  [...text.matchAll(NAMED)].map((m) => m[1]!).filter((name) => !PLACEHOLDERS.some((p) => p === name));

/** A text with its names filled in; one that there is nothing for keeps its braces, where a person sees it. */
export const fillPlaceholders = (text: string, values: Readonly<Partial<Record<string, string>>>): string =>
  text.replace(
    NAMED,
    (whole, name: string) => (Object.hasOwn(values, name) ? values[name] : undefined) ?? whole,
  );
