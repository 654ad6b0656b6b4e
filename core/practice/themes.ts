import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { HAS } from '@core/drive/drive-has';
import data from './data/themes.json';

const ThemeSchema = z.strictObject({
  key: z.string(),
  wording: z.string(),
  why: z.string(),
  /** Causes that its returns are drawn from; all where none is named. */
  causes: z.array(z.string()),
  /** What a drive must have for it. */
  needs: z.array(z.enum(HAS)).optional(),
  /** How often a filled sheet comes back, where it is not as usual. */
  sheetBack: z.number().gt(0).lte(1).optional(),
  /** How often who is asked tells it wrong, where it is not as usual. */
  toldWrong: z.number().gte(0).lt(1).optional(),
});
/** What a set of returns is about. */
export type PracticeTheme = z.infer<typeof ThemeSchema>;
export const THEMES: readonly PracticeTheme[] = z.array(ThemeSchema).parse(data);
export const themeOf = (key: string | undefined): PracticeTheme | undefined =>
  THEMES.find((t) => t.key === key);

/** Returns in a set. */
export const SET_OF = 3;

/**
 * The week of a day by ISO 8601 (weeks begin on Monday, the first holds the year's first Thursday), as one number: 202649. It is
 * the seed of the set of the week, the same at every desk.
 */
export function weekOf(day: string): number {
  const at = new Date(`${day}T00:00:00Z`);
  const thursday = new Date(at);
  thursday.setUTCDate(at.getUTCDate() + 4 - (at.getUTCDay() || 7));
  const year = thursday.getUTCFullYear();
  const days = (thursday.getTime() - Date.UTC(year, 0, 1)) / 86_400_000;
  return 100 * year + Math.floor(days / 7) + 1;
}
