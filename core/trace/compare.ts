import { nth, num } from '@core/quantity/must';
import { student975 } from '@core/quantity/student';
import { wrapped } from './cycle';
import type { CamEdge, CamPattern } from './pattern';
import type { Trace } from './trace';

/** How a cam stands against another capture of it. Crank degrees; positive: its edges come later, the cam is late. */
export type Shift = {
  deg: number;
  low: number;
  high: number;
  /** Each matched edge's own shift; those left out lie off the others. */
  edges: { deg: number; rising: boolean; shift: number; out: boolean }[];
  /** Degrees to add to the reference, so that only the shift parts it from the other: whole turns, or whole teeth of a wheel without a gap. */
  aligned: number;
  /** The signal is upside down against the other one. */
  reversed: boolean;
  /** One of the cams moves against its crank while it is recorded. */
  moving: boolean;
  /** Without a gap the shift holds only up to whole teeth of the crank wheel: this many degrees. */
  modulo?: number;
};
export type CompareError =
  /** No shift brings the edges of both together. */
  | { code: 'other_pattern'; edges: number; reference: number }
  /** The crank wheels differ, so that their first teeth are not the same place. */
  | { code: 'other_wheel'; wheel: string; reference: string }
  /** One crank signal is a square wave and the other a swing: they are read from other places of a tooth. */
  | { code: 'other_sensor' };
export type Compared = { ok: true; value: Shift } | { ok: false; error: CompareError };

/** Edges that belong together lie within this after the best shift, degrees. */
const TOGETHER = 5;
/** Largest shift that is looked for, crank degrees either way. */
const FARTHEST = 60;
/** An edge is left out when it lies off the others by so many times their own spread, and by so much, degrees. */
const OUT = { times: 5, deg: 0.6 };
/** What a clock cannot do better than, standard, degrees. */
const FLOOR = 0.01;

const median = (xs: readonly number[]): number => {
  const s = [...xs].sort((a, b) => a - b);
  const m = s.length >> 1;
  return s.length % 2 ? num(s, m) : (num(s, m - 1) + num(s, m)) / 2;
};

type Match = { at: CamEdge; to: CamEdge; off: number };
/** Edges of one pattern paired with the nearest of the other of the same direction after a shift. */
function paired(of: readonly CamEdge[], to: readonly CamEdge[], shift: number): Match[] {
  return of.flatMap((at): Match[] => {
    let best: Match | undefined;
    for (const r of to) {
      if (r.rising !== at.rising) continue;
      const off = wrapped(at.deg - r.deg - shift);
      if (Math.abs(off) < TOGETHER && (!best || Math.abs(off) < Math.abs(best.off)))
        best = { at, to: r, off };
    }
    return best ? [best] : [];
  });
}

type Fit = { shift: number; matches: Match[]; cost: number };
/** The shift under which most edges come together, and of those the closest, then the least. @param period degrees up to which shifts are alike */
function bestFit(of: readonly CamEdge[], to: readonly CamEdge[], period: number): Fit | undefined {
  let best: Fit | undefined;
  const tried = new Set<number>();
  for (const a of of)
    for (const r of to) {
      if (a.rising !== r.rising) continue;
      // What is equal up to the period is the same shift; the one nearest to nought is meant.
      const shift = a.deg - r.deg;
      const small = Math.abs(wrapped(shift, period));
      const key = Math.round(shift * 10);
      if (tried.has(key) || small > FARTHEST) continue;
      tried.add(key);
      const matches = paired(of, to, shift);
      const off = median(matches.map((m) => m.off));
      const spread = matches.reduce((s, m) => s + Math.min(TOGETHER, Math.abs(m.off - off)), 0);
      const cost = (of.length + to.length - 2 * matches.length) * TOGETHER + spread + small * 1e-3;
      if (matches.length > 0 && (!best || cost < best.cost)) best = { shift, matches, cost };
    }
  return best;
}

/**
 * How far a cam signal stands from a reference, crank degrees: the shift that brings most edges together, one bad edge left out, as the mean over the edges, with a 95 % interval from the
 * cycles of both (Student's t, with the degrees of freedom of Welch 1947). Which of two turns a cycle begins with cannot be told, so shifts are sought about whole turns.
 * @param pitch degrees of a tooth of a crank wheel without a gap, by which angles are ambiguous
 */
export function comparePatterns(of: CamPattern, reference: CamPattern, pitch?: number): Compared {
  const upright = bestFit(of.edges, reference.edges, pitch ?? 360);
  const turned = bestFit(
    of.edges.map((e) => ({ ...e, rising: !e.rising })),
    reference.edges,
    pitch ?? 360,
  );
  // Upside down only when that is far better: with few edges both may do.
  const reversed =
    turned !== undefined && (upright === undefined || turned.cost + 2 * TOGETHER < upright.cost);
  const fit = reversed ? turned : upright;
  const enough = Math.max(1, Math.ceil(0.6 * Math.min(of.edges.length, reference.edges.length)));
  if (!fit || fit.matches.length < enough)
    return {
      ok: false,
      error: { code: 'other_pattern', edges: of.edges.length, reference: reference.edges.length },
    };
  const shifts = fit.matches.map((m) => fit.shift + m.off);
  const middle = median(shifts);
  const se = (e: CamEdge) => e.sd / Math.sqrt(e.cycles);
  const edges = fit.matches.map((m, i) => {
    const own = Math.hypot(se(m.at), se(m.to), FLOOR);
    const far = Math.abs(num(shifts, i) - middle);
    return {
      deg: m.at.deg,
      rising: m.at.rising,
      shift: wrapped(num(shifts, i), pitch ?? 360),
      out: fit.matches.length > 2 && far > OUT.deg && far > OUT.times * own,
    };
  });
  const used = edges
    .map((e, i) => ({ e, m: nth(fit.matches, i), s: num(shifts, i) }))
    .filter((x) => !x.e.out);
  const mean = used.reduce((s, x) => s + x.s, 0) / used.length;
  const deg = wrapped(mean, pitch ?? 360);
  const [a, b] = [of, reference].map((p) => spreadOf(p, used.length)) as [Spread, Spread];
  const variance = a.variance + b.variance;
  const nu = variance > 0 ? variance ** 2 / (a.variance ** 2 / a.nu + b.variance ** 2 / b.nu) : Infinity;
  const half = Math.hypot(student975(Math.min(nu, 200)) * Math.sqrt(variance), 2 * FLOOR);
  return {
    ok: true,
    value: {
      deg,
      low: deg - half,
      high: deg + half,
      edges,
      aligned: mean - deg,
      reversed,
      moving: of.moving || reference.moving,
      ...(pitch === undefined ? {} : { modulo: pitch }),
    },
  };
}

/** What two captures need to be alike in before their cams can be compared. */
type Comparable = Pick<Trace, 'crankKind'> & { wheel: string; slots: number; even: boolean };

/** A cam of one capture against that of another, where the same is read of both cranks. */
export function compareCams(
  a: Comparable & { pattern: CamPattern },
  b: Comparable & { pattern: CamPattern },
): Compared {
  if (a.wheel !== b.wheel)
    return { ok: false, error: { code: 'other_wheel', wheel: a.wheel, reference: b.wheel } };
  if (a.crankKind !== b.crankKind) return { ok: false, error: { code: 'other_sensor' } };
  return comparePatterns(a.pattern, b.pattern, a.even ? 360 / a.slots : undefined);
}

type Spread = { variance: number; nu: number };
/** Variance of a pattern's mean over its cycles: what its cycles wander, which holds whatever its edges share. */
function spreadOf({ cycles, edges }: CamPattern, used: number): Spread {
  const n = cycles.length;
  // Edges that a design names were not recorded: they are off together by what it gives them.
  if (n === 0) return { variance: Math.max(...edges.map((e) => e.sd ** 2)), nu: Infinity };
  const wander = cycles.reduce((s, c) => s + c * c, 0) / Math.max(1, n - 1);
  const own = edges.reduce((s, e) => s + e.sd ** 2, 0) / Math.max(1, edges.length) / used;
  return { variance: Math.max(wander, own) / n, nu: n - 1 };
}
