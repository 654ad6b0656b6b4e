import * as z from 'zod';
import '@core/quantity/plain-schemas';
import data from './data/attributes.json';

const AttributeSchema = z.strictObject({
  key: z.string(),
  wording: z.string(),
  kind: z.enum(['count', 'mm', 'word']),
  /** Measured values within this of the new one are equal. */
  tolerance: z.number().positive().optional(),
  /** Standard uncertainty of the usual gauge, mm; a caliper's unless given. */
  u: z.number().positive().optional(),
  observe: z.string().optional(),
  /** Allowed words of a word attribute. */
  words: z.array(z.string()).optional(),
  /** What goes wrong when a part that differs here is fitted. */
  wrong: z.string(),
});
export type Attribute = z.infer<typeof AttributeSchema>;

/** Dimensions by which parts are compared. */
export const ATTRIBUTES: ReadonlyMap<string, Attribute> = new Map(
  z
    .array(AttributeSchema)
    .parse(data)
    .map((a) => [a.key, a]),
);

export type AttributeFault =
  | { code: 'unknown_attribute'; key: string }
  | { code: 'not_a_number'; typed: string }
  | { code: 'wrong_unit'; typed: string }
  | { code: 'not_positive'; typed: string }
  | { code: 'not_whole'; typed: string }
  | { code: 'not_a_word'; typed: string; allowed: string[] };

/** Reads one attribute as text: lengths in mm without a unit or with "mm", counts whole and positive, words as listed. */
export function readAttribute(
  key: string,
  text: string,
): { value: number | string } | { fault: AttributeFault } {
  const a = ATTRIBUTES.get(key);
  if (!a) return { fault: { code: 'unknown_attribute', key } };
  const typed = text.trim();
  if (a.kind === 'word') {
    const word = a.words?.find((w) => w === typed.toLowerCase());
    return word === undefined
      ? { fault: { code: 'not_a_word', typed, allowed: a.words ?? [] } }
      : { value: word };
  }
  const m = /^([-+]?\d+(?:[.,]\d+)?)\s*([a-z"]*)$/i.exec(typed);
  if (!m) return { fault: { code: 'not_a_number', typed } };
  const unit = (m[2] ?? '').toLowerCase();
  if (unit !== '' && !(a.kind === 'mm' && unit === 'mm')) return { fault: { code: 'wrong_unit', typed } };
  const value = Number((m[1] ?? '').replace(',', '.'));
  if (!(value > 0)) return { fault: { code: 'not_positive', typed } };
  if (a.kind === 'count' && !Number.isInteger(value)) return { fault: { code: 'not_whole', typed } };
  return { value };
}
