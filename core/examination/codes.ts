import * as z from 'zod';
import '@core/quantity/plain-schemas';
import data from './data/codes.json';

const Code = z.string().regex(/^P\d{4}$/);
const MeaningSchema = z.strictObject({
  from: Code,
  to: Code,
  /** Cam and crank do not agree; a cam does not follow what is asked of it; a sensor's own signal. */
  kind: z.enum(['correlation', 'response', 'signal']),
  shaft: z.literal('crank').optional(),
  /** Bank of the cam and which of its cams, where it names one. */
  bank: z.union([z.literal(1), z.literal(2)]).optional(),
  sensor: z.enum(['A', 'B']).optional(),
});
export type CodeMeaning = z.infer<typeof MeaningSchema>;

const MEANINGS: readonly CodeMeaning[] = z.array(MeaningSchema).parse(data);

/** Codes of the cam and crank families, each with what it accuses; what it is about. */
export const codesRead = (codes: readonly string[]): (CodeMeaning & { code: string })[] =>
  codes.flatMap((code) => {
    const meaning = codeMeaning(code);
    return meaning ? [{ ...meaning, code }] : [];
  });

/** Codes whose meaning is not known. */
export const codesUnknown = (codes: readonly string[]): string[] =>
  codes.filter((c) => codeMeaning(c) === undefined);

/** What a generic fault code of the cam and crank families accuses; none of any other code. A code alone is never a cause. */
export const codeMeaning = (code: string): CodeMeaning | undefined =>
  MEANINGS.find((m) => code >= m.from && code <= m.to);

/** The first code that accuses so; none where there is no such kind. */
export const codeOfKind = (kind: string): string | undefined => MEANINGS.find((m) => m.kind === kind)?.from;
