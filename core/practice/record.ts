import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { clopperPearson } from '@core/patterns/rates';
import { VirtualCaseSchema } from './virtual-case';

const LookSchema = z.strictObject({
  key: z.string().max(80),
  about: z.string().max(120).optional(),
  minutes: z.number().nonnegative().max(600),
});
/** A run of a trainee at a return: what was looked at, and what it came to. */
export const RunSchema = z.strictObject({
  case: VirtualCaseSchema,
  /** Set that it is of, and its place there. */
  set: z.strictObject({ key: z.string().max(80), at: z.number().int().min(1).max(20) }).optional(),
  begun: z.iso.datetime(),
  looks: z.array(LookSchema).max(2000),
  /** Decided: the cause, how sure, when; whether it was right. */
  done: z
    .strictObject({
      cause: z.string().min(1).max(80),
      sure: z.number().min(0).max(1),
      at: z.iso.datetime(),
      right: z.boolean(),
      /** Family of the truth: what is practised again by. */
      family: z.string().max(80),
      minutes: z.number().nonnegative(),
      best: z.number().nonnegative(),
    })
    .optional(),
});
export type Run = Readonly<z.infer<typeof RunSchema>>;
export type Done = Run & { done: NonNullable<Run['done']> };
export const isDecided = (r: Run): r is Done => r.done !== undefined;

/** One band of stated confidence: how many, how many of them right, and what lies within 95 % by chance (Clopper and Pearson 1934). */
export type SureBand = {
  from: number;
  to: number;
  n: number;
  right: number;
  mean: number;
  low: number;
  high: number;
};
export type Calibration = {
  n: number;
  right: number;
  /** Mean of (stated − right)²: 0 is perfect, 0.25 is a coin that is called (Brier 1950). */
  brier: number;
  bands: SureBand[];
  /** The same over the last so many, run by run. */
  overTime: { n: number; brier: number }[];
};
const EDGES = [0, 0.5, 0.6, 0.7, 0.8, 0.9, 1.0000001];
const LAST = 10;

/** How well stated confidence and being right agree, over runs in the order in which they were. */
export function calibration(runs: readonly Done[]): Calibration {
  const said = [...runs]
    .sort((a, b) => (a.done.at < b.done.at ? -1 : 1))
    .map(({ done }) => ({ p: done.sure, right: done.right }));
  const brierOf = (some: typeof said) =>
    some.reduce((s, { p, right }) => s + (p - Number(right)) ** 2, 0) / Math.max(1, some.length);
  const bands = EDGES.slice(0, -1).flatMap((from, i): SureBand[] => {
    const to = EDGES[i + 1] ?? 1;
    const mine = said.filter(({ p }) => p >= from && p < to);
    if (mine.length === 0) return [];
    const right = mine.filter((x) => x.right).length;
    const { from: low, to: high } = clopperPearson(right, mine.length);
    return [
      {
        from,
        to: Math.min(1, to),
        n: mine.length,
        right,
        mean: mine.reduce((s, x) => s + x.p, 0) / mine.length,
        low,
        high,
      },
    ];
  });
  return {
    n: said.length,
    right: said.filter((x) => x.right).length,
    brier: brierOf(said),
    bands,
    overTime: said.map((_, i) => ({
      n: i + 1,
      brier: brierOf(said.slice(Math.max(0, i + 1 - LAST), i + 1)),
    })),
  };
}

/** Where a family of causes stands in the boxes of Leitner (1972): right puts it one on, wrong back to the first. */
export type Spaced = { family: string; box: number; seen: number; right: number; due: number };
/** Returns after which each box is due again: each twice the one before. */
export const DUE_AFTER = [1, 2, 4, 8, 16] as const;

/**
 * What to practise next, by a plain rule: a family answered right waits twice as many returns as before, one answered wrong comes back after one.
 * What is due longest comes first, then what was right least; families never met count as due.
 * @param families that returns can be of
 */
export function spacing(runs: readonly Done[], families: readonly string[]): Spaced[] {
  const order = [...runs].sort((a, b) => (a.done.at < b.done.at ? -1 : 1));
  const out = families.map((family): Spaced => {
    let [box, seen, right, last] = [0, 0, 0, -1];
    order.forEach(({ done }, i) => {
      if (done.family !== family) return;
      seen++;
      if (done.right) right++;
      box = done.right ? Math.min(DUE_AFTER.length - 1, box + 1) : 0;
      last = i;
    });
    const wait = seen === 0 ? 0 : (DUE_AFTER[box] ?? 1);
    return { family, box, seen, right, due: seen === 0 ? 0 : last + wait - (order.length - 1) };
  });
  return out.sort(
    (a, b) =>
      a.due - b.due ||
      a.right / Math.max(1, a.seen) - b.right / Math.max(1, b.seen) ||
      (a.family < b.family ? -1 : 1),
  );
}
