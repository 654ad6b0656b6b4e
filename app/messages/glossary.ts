import * as z from 'zod';
import '@core/quantity/plain-schemas';
import data from './glossary.json';

const TermSchema = z.strictObject({
  term: z.string().min(1),
  also: z.array(z.string().min(1)).optional(),
  /** A word of the field, or one of this desk. */
  of: z.enum(['field', 'desk']),
  means: z.string().min(10),
});
export type Term = z.infer<typeof TermSchema>;

export const GLOSSARY: readonly Term[] = z.array(TermSchema).parse(data);

/** Every way to say a term, the longest first, so that "drive bench" is found before "drive". */
const NAMES = GLOSSARY.flatMap((t) => [t.term, ...(t.also ?? [])].map((name) => ({ name, t }))).sort(
  (a, b) => b.name.length - a.name.length,
);

/**
 * What the first, longest term in a text means; none where it holds no term.
 * @param of only terms of the field or of the desk: a seal on a part is none of a report
 */
export function termIn(text: string, of?: Term['of']): Term | undefined {
  const said = ` ${text.toLowerCase().replace(/[^a-z-]+/g, ' ')} `;
  return NAMES.find(
    ({ name, t }) =>
      (of === undefined || t.of === of) && (said.includes(` ${name} `) || said.includes(` ${name}s `)),
  )?.t;
}

/** Terms whose name or meaning holds everything typed. */
export function termsWith(typed: string): readonly Term[] {
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  return GLOSSARY.filter((t) => {
    const all = [t.term, ...(t.also ?? []), t.means].join(' ').toLowerCase();
    return words.every((w) => all.includes(w));
  });
}
