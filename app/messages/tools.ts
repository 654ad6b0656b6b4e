import type { ToolOf } from '@core/advice/advice';
import { nth } from '@core/quantity/must';

/** What stands in for each tool, with its risk; the house's word first. */
export function toolWords(allowed: boolean, tools: readonly ToolOf[]): string {
  const each = tools.map(
    (t) =>
      `Instead of ${small(t.name)}: ${t.instead.map((i) => `${small(i.name)} (risk: ${small(i.risk)})`).join('; ')}.`,
  );
  return [
    allowed
      ? 'With care: this house accepts what stands in for a tool when it is recorded.'
      : 'No: this house wants the proper tools. What others use instead, and what it risks:',
    ...each,
  ].join(' ');
}

const small = (s: string): string =>
  /^\p{Lu}(?:\s|\p{Ll})/u.test(s) ? nth(s, 0).toLowerCase() + s.slice(1) : s;
