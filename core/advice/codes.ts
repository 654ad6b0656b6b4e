import * as z from 'zod';
import '@core/quantity/plain-schemas';
import data from './data/codes.json';

const CodeSchema = z.strictObject({
  from: z.string(),
  to: z.string(),
  /** Correlation of cam and crank, a phaser off its target, or a signal that fails. */
  says: z.enum(['correlation', 'phaser', 'signal']),
  of: z.enum(['engine', 'crank', 'intake', 'exhaust']),
  bank: z.literal(2).optional(),
});
type Row = z.infer<typeof CodeSchema>;
export type Code = { code: string } & Pick<Row, 'says' | 'of' | 'bank'>;

/** Families of generic codes about cam and crank, in their order. */
export const CODES: readonly Row[] = z.array(CodeSchema).parse(data);

/** What a fault code accuses; undefined for one that is not about cam or crank. */
export function codeOf(code: string): Code | undefined {
  const row = CODES.find((r) => r.from <= code && code <= r.to);
  return row && { code, says: row.says, of: row.of, ...(row.bank === undefined ? {} : { bank: row.bank }) };
}
