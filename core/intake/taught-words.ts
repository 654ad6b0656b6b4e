import * as z from 'zod';
import '@core/quantity/plain-schemas';

/** Characters of a taught phrase, and phrases of a house, at most. */
const [LONGEST, MOST] = [60, 500];

/** A phrase and the option that it says, as a house taught it. */
const TaughtWordSchema = z.strictObject({
  phrase: z.string().trim().min(2).max(LONGEST),
  key: z.string().min(1).max(120),
  option: z.string().min(1).max(120),
});
export type TaughtWord = Readonly<z.infer<typeof TaughtWordSchema>>;
export const TaughtWordsSchema = z.array(TaughtWordSchema).max(MOST);
