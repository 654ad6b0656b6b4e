import * as z from 'zod';
import '@core/quantity/plain-schemas';

export const DECIMAL_SIGNS = ['.', ',', ''] as const;
/** How a table is to be read: what each column is, '' for none; and how days, decimals and distances are written in it. */
const ClaimsFormSchema = z.strictObject({
  columns: z.array(z.string().max(80)).max(400),
  dateOrder: z.enum(['dmy', 'mdy', 'ymd']),
  /** '' where nothing tells. */
  decimal: z.enum(DECIMAL_SIGNS),
  distance: z.enum(['km', 'mi']),
});
export type ClaimsForm = z.infer<typeof ClaimsFormSchema>;
/** A form with the headings that it was made for: the next table with the same ones is read the same way. */
export const KeptFormSchema = z.strictObject({
  head: z.array(z.string().max(200)).max(400),
  form: ClaimsFormSchema,
});
export type KeptForm = z.infer<typeof KeptFormSchema>;
/** Forms that are kept, the last used first. */
export const MOST_FORMS = 20;
