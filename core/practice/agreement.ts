import type { Done } from './record';
import { slotName } from './virtual-case';

/** How far two judges agree beyond chance. */
export type Agreement = {
  n: number;
  /** Share on which they agree, and what chance alone would bring. */
  observed: number;
  expected: number;
  /** Cohen's kappa with its 95 % interval; undefined where both named one and the same throughout. */
  kappa?: { value: number; from: number; to: number };
  /** Returns on which they differ: what each came to, and the first look at which their ways parted. */
  apart: {
    id: string;
    one: string;
    other: string;
    parted: { at: number; one?: string; other?: string } | undefined;
  }[];
};

const Z95 = 1.959964;

/**
 * Agreement of two judges on the returns that both decided: kappa = (po − pe) / (1 − pe) (Cohen 1960), its large-sample error by Fleiss, Cohen and
 * Everitt (1969), equation 13.
 */
export function agreement(one: readonly Done[], other: readonly Done[]): Agreement {
  const theirs = new Map(other.map((r) => [r.case.id, r]));
  const pairs = one.flatMap((a) => {
    const b = theirs.get(a.case.id);
    return b ? [{ a, b }] : [];
  });
  const n = pairs.length;
  const apart = pairs
    .filter(({ a, b }) => a.done.cause !== b.done.cause)
    .map(({ a, b }) => ({ id: a.case.id, one: a.done.cause, other: b.done.cause, parted: parted(a, b) }));
  if (n === 0) return { n, observed: 0, expected: 0, apart };
  const of = kappaOf(pairs.map(({ a, b }) => [a.done.cause, b.done.cause] as const));
  return { n, ...of, apart };
}

/** Kappa of pairs of names. */
export function kappaOf(pairs: readonly (readonly [string, string])[]): Omit<Agreement, 'n' | 'apart'> {
  const n = pairs.length;
  const names = [...new Set(pairs.flat())];
  const p = (i: string, j: string) => pairs.filter(([a, b]) => a === i && b === j).length / n;
  const rows = new Map(names.map((i) => [i, pairs.filter(([a]) => a === i).length / n]));
  const columns = new Map(names.map((j) => [j, pairs.filter(([, b]) => b === j).length / n]));
  const [row, column] = [(i: string) => rows.get(i) ?? 0, (j: string) => columns.get(j) ?? 0];
  const observed = names.reduce((s, i) => s + p(i, i), 0);
  const expected = names.reduce((s, i) => s + row(i) * column(i), 0);
  if (expected >= 1) return { observed, expected };
  const value = (observed - expected) / (1 - expected);
  const same = names.reduce(
    (s, i) => s + p(i, i) * (1 - expected - (row(i) + column(i)) * (1 - observed)) ** 2,
    0,
  );
  const differ = names.reduce(
    (s, i) => s + names.reduce((t, j) => (i === j ? t : t + p(i, j) * (column(i) + row(j)) ** 2), 0),
    0,
  );
  const rest = (observed * expected - 2 * expected + observed) ** 2;
  const se = Math.sqrt(Math.max(0, same + (1 - observed) ** 2 * differ - rest) / n) / (1 - expected) ** 2;
  return {
    observed,
    expected,
    kappa: { value, from: Math.max(-1, value - Z95 * se), to: Math.min(1, value + Z95 * se) },
  };
}

function parted(a: Done, b: Done): Agreement['apart'][number]['parted'] {
  const most = Math.max(a.looks.length, b.looks.length);
  for (let at = 0; at < most; at++) {
    const [x, y] = [a.looks[at], b.looks[at]];
    if (x && y && slotName(x) === slotName(y)) continue;
    return { at: at + 1, ...(x ? { one: x.key } : {}), ...(y ? { other: y.key } : {}) };
  }
  return undefined;
}
