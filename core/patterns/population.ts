import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { PATTERN_LIMITS } from './limits';

const Month = z.string().regex(/^\d{4}-(0[1-9]|1[0-2])$/);

/** So many of a kit's lot went to a market in a month. */
export const SoldRowSchema = z.strictObject({
  kit: z.string().min(1).max(40),
  lot: z.string().min(1).max(40),
  /** Month in which they were sold, as year and month. */
  month: Month,
  market: z.string().max(40),
  sold: z.number().int().nonnegative().max(10_000_000),
  /** Day on which the lot was made; none where the table does not say. */
  made: z.iso.date().optional(),
});
export type SoldRow = z.infer<typeof SoldRowSchema>;

/** One unit that came back, as the summary of its case tells it. */
export type Return = {
  /** Case, and its number. */
  id: string;
  tag: string;
  kit: string;
  lot: string;
  /** Workshop that fitted it. */
  shop: string;
  /** Days: fitted, and failed; "" where unknown. */
  fitted: string;
  failed: string;
  /** Distance run since fitting, km. */
  km?: number;
  /** Cause that was decided. */
  cause: string;
  /** Installation faults with the step of the sheet that each belongs to. */
  faults: readonly { code: string; step: string }[];
  /** What it cost us, minor units. */
  cost: number;
  /** Undecidable: what was missing. */
  missing?: readonly string[];
};

/** What is taken for granted where nobody knows: how long a unit lies on a shelf, and how far a vehicle runs in a month. */
const { shelfMonths, kmPerMonth } = PATTERN_LIMITS.assumed;
export const AssumedSchema = z.strictObject({
  shelfMonths: z.number().min(shelfMonths.from).max(shelfMonths.to),
  kmPerMonth: z.number().min(kmPerMonth.from).max(kmPerMonth.to),
});
export type Assumed = z.infer<typeof AssumedSchema>;
export const ASSUMED: Assumed = { shelfMonths: shelfMonths.usual, kmPerMonth: kmPerMonth.usual };

/** Whole months since the year 0. */
export const monthOf = (day: string): number => Number(day.slice(0, 4)) * 12 + Number(day.slice(5, 7)) - 1;

/** Share of its month that is over at the beginning of a day. */
export const monthPart = (day: string): number => (Number(day.slice(8, 10)) - 1) / 30.44;

/** A population by lot, and what came back of it. */
export type Lot = {
  kit: string;
  lot: string;
  sold: number;
  /** Units by the month in which they began to run: sold, and off the shelf. */
  began: ReadonlyMap<number, number>;
  returns: Return[];
};
export type Population = {
  lots: Lot[];
  /** Month of today, and the share of it that is over. */
  now: number;
  part: number;
  assumed: Assumed;
  /** Returns that no lot was sold of, or that name none. */
  strays: Return[];
};

/** A unit runs from the month it was sold, and its time on the shelf. */
const beganAt = (month: string, assumed: Assumed): number => monthOf(month) + Math.round(assumed.shelfMonths);

/** Brings what was sold and what came back together, by kit and lot. */
export function populationOf(
  sold: readonly SoldRow[],
  returns: readonly Return[],
  today: string,
  assumed: Assumed = ASSUMED,
): Population {
  const now = monthOf(today);
  const lots = new Map<string, Lot & { began: Map<number, number> }>();
  for (const r of sold) {
    const key = lotKey(r.kit, r.lot);
    const lot = lots.get(key) ?? {
      kit: r.kit,
      lot: r.lot,
      sold: 0,
      began: new Map<number, number>(),
      returns: [],
    };
    lot.sold += r.sold;
    const at = Math.min(now, beganAt(r.month, assumed));
    lot.began.set(at, (lot.began.get(at) ?? 0) + r.sold);
    lots.set(key, lot);
  }
  const strays: Return[] = [];
  for (const r of returns) {
    const lot = lots.get(lotKey(r.kit, r.lot));
    if (lot) lot.returns.push(r);
    else strays.push(r);
  }
  return { lots: [...lots.values()], now, part: monthPart(today), assumed, strays };
}
export const lotKey = (kit: string, lot: string): string =>
  `${kit.trim().toUpperCase()} ${lot.trim().toUpperCase()}`;

/**
 * Age at which a unit came back, months of running: from its fitting where both days are known, else from its distance, else
 * undefined.
 */
export function ageOf(r: Return, assumed: Assumed): number | undefined {
  if (r.fitted !== '' && r.failed !== '') return Math.max(0, monthOf(r.failed) - monthOf(r.fitted));
  return r.km === undefined ? undefined : Math.max(0, Math.floor(r.km / assumed.kmPerMonth));
}
