import { type Day, dayOf, daysBetween } from '@core/quantity/dates';
import type { CaseSummary } from './case-summary';
import { workshopOf } from './workshop';

/** What an earlier case has in common with the one in hand. */
const SHARED = ['caller', 'vehicle', 'kit', 'question', 'engine'] as const;
export type Shared = (typeof SHARED)[number];
/** What telling it by is worth: the same workshop or kit says more than one of the many cases of an engine. */
const WORTH: Record<Shared, number> = { caller: 3, vehicle: 2, kit: 3, question: 2, engine: 1 };
/** An engine alone is no news. */
const LEAST = 2;
/** Days that count as this month. */
const MONTH = 31;

export type Earlier = { summary: CaseSummary; shares: Shared[] };
/** The case in hand as it is compared; `asked` are words of its questions, as summaries hold them. */
export type Mine = {
  id: string;
  who?: string | undefined;
  engine?: string | undefined;
  kit?: string | undefined;
  vehicle?: string | undefined;
  asked: readonly string[];
};

/**
 * Earlier cases of the same caller, kit, vehicle or question, the most alike first, then the newest. What is asked counts only
 * beside the same engine.
 */
export function earlierCases(summaries: readonly CaseSummary[], mine: Mine, most: number): Earlier[] {
  const shop = workshopOf(mine.who ?? '');
  const has = (text: string, value: string | undefined): boolean =>
    value !== undefined && value !== '' && `\n${text}\n`.includes(`\n${value.toLowerCase()}\n`);
  return summaries
    .filter((h) => h.id !== mine.id)
    .map((summary): Earlier => {
      const engine = mine.engine !== undefined && mine.engine !== '' && summary.engine === mine.engine;
      const found: Record<Shared, boolean> = {
        caller: shop !== '' && workshopOf(summary.who) === shop,
        vehicle: engine && has(summary.text, mine.vehicle),
        kit: has(summary.text, mine.kit),
        question: engine && mine.asked.some((a) => has(summary.text, a)),
        engine,
      };
      return { summary, shares: SHARED.filter((s) => found[s]) };
    })
    .map((e) => ({ e, worth: e.shares.reduce((sum, s) => sum + WORTH[s], 0) }))
    .filter((x) => x.worth >= LEAST)
    .sort((a, b) => b.worth - a.worth || (a.e.summary.opened < b.e.summary.opened ? 1 : -1))
    .slice(0, most)
    .map((x) => x.e);
}

/** How many of the earlier cases asked the same of the same engine within a month before a day. */
export const askedThisMonth = (earlier: readonly Earlier[], today: Day): number =>
  earlier.filter((e) => e.shares.includes('question') && daysBetween(dayOf(e.summary.opened), today) <= MONTH)
    .length;
