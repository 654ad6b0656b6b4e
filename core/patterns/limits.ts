import * as z from 'zod';
import '@core/quantity/plain-schemas';
import data from './data/limits.json';

const Count = z.number().int().positive();
const AssumedFigure = z.strictObject({ usual: z.number(), from: z.number(), to: z.number() });
const LimitsSchema = z.strictObject({
  /** Share of desks that may have a false alarm, over all three looks together. */
  falseShare: z.number().positive().max(0.5),
  /** A lot is an alarm from so many returns on: fewer are an accident, however few were expected. */
  leastReturns: Count,
  /** A step is got wrong by many where so many workshops do. */
  manyShops: Count,
  /**
   * Lots that began so many months ago or less are a family of their own, with half of the lots' false alarms: a bad one is found
   * while it is still being fitted, since it is one of a few hundred and not of all. It hangs on when they were sold, never on
   * what came back.
   */
  youngMonths: Count,
  /** A lot is judged by a life of its own from so many failures on. */
  ownFailures: Count,
  /** Chance that a point of a control chart lies outside its limits though nothing changed. */
  outside: z.number().positive().max(0.05),
  /** A lot is watched month by month for coming back so many times as often as the others of its kit. */
  watchTimes: z.number().gt(1),
  /**
   * Two populations are looked for from so many failures on, since five figures would be read into fewer; and told of when so much
   * better by their Bayesian information: very strong by Kass and Raftery.
   */
  twoFrom: z.strictObject({ failures: Count, better: z.number().positive() }),
  /** What is taken for granted where nobody knows, and how far it can be changed. */
  assumed: z.strictObject({ shelfMonths: AssumedFigure, kmPerMonth: AssumedFigure }),
});

/** The figures that patterns are judged by. */
export const PATTERN_LIMITS = LimitsSchema.parse(data);
