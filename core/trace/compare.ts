import { nth, num } from '@core/quantity/must';
import { student975 } from '@core/quantity/student';
import { wrapped } from './cycle';
import type { CamEdge, CamPattern } from './pattern';
import type { Trace } from './trace';
import { fromFirstTooth } from './wheel';

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
  /** The shift holds only up to so many degrees: a tooth of a crank wheel without a gap, half a turn of one with two alike. */
  modulo?: number;
};
export type CompareError =
  /** No shift brings the edges of both together. */
  | { code: 'other_pattern'; edges: number; reference: number }
  /** The crank wheels differ, so that their first teeth are not the same place. */
  | { code: 'other_wheel'; wheel: string; reference: string }
  /** One signal is a square wave and the other a swing: they are read from other places of a tooth. */
  | { code: 'other_sensor' };
export type Compared = { ok: true; value: Shift } | { ok: false; error: CompareError };

/** Edges that belong together lie within this after the best shift, degrees. */
const TOGETHER = 5;
/** Largest shift that is looked for, crank degrees either way. */
const FARTHEST = 60;
/** An edge is left out when it lies off the others by so many times what they are known to, and by so much, degrees. */
const OUT = { times: 5, deg: 0.6 };
/** What a clock cannot do better than, standard, degrees. */
const FLOOR = 0.006;
/** Agreement of so many edges is taken for granted beside that of those that are there. */
const BEFORE = 4;

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
 * How far a cam signal stands from a reference, crank degrees: the shift that brings most edges together, then the mean of the
 * edges' own shifts, each weighed by how well it is known; edges that lie off are left out. The 95 % interval is Student's, with
 * the freedom of Welch (1947) of both captures' spreads, widened where the edges agree less than they are known.
 * Which of two turns a cycle begins with cannot be told, so shifts are sought about whole turns.
 * @param period degrees up to which angles are ambiguous; 360 with one gap
 */
export function comparePatterns(of: CamPattern, reference: CamPattern, period = 360): Compared {
  const upright = bestFit(of.edges, reference.edges, period);
  const turned = bestFit(
    of.edges.map((e) => ({ ...e, rising: !e.rising })),
    reference.edges,
    period,
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
  const own = fit.matches.map(({ at, to }) => Math.hypot(seOf(at), seOf(to), FLOOR));
  const middle = median(shifts);
  const out = shifts.map(
    (s, i) => shifts.length > 2 && Math.abs(s - middle) > Math.max(OUT.deg, OUT.times * num(own, i)),
  );
  const used = shifts.flatMap((s, i) =>
    out[i] ? [] : [{ s, w: num(own, i) ** -2, m: nth(fit.matches, i) }],
  );
  const weight = used.reduce((t, x) => t + x.w, 0);
  const mean = used.reduce((t, x) => t + x.w * x.s, 0) / weight;
  const deg = wrapped(mean, period);
  const half = halfInterval(of, reference, used, mean);
  return {
    ok: true,
    value: {
      deg,
      low: deg - half,
      high: deg + half,
      edges: fit.matches.map((m, i) => ({
        deg: m.at.deg,
        rising: m.at.rising,
        shift: wrapped(num(shifts, i), period),
        out: out[i] ?? false,
      })),
      aligned: mean - deg,
      reversed,
      moving: of.moving || reference.moving,
      ...(period >= 360 ? {} : { modulo: period }),
    },
  };
}

/** Standard uncertainty of an edge's place: the spread of one reading over the root of their number. */
const seOf = (e: CamEdge): number => e.sd / Math.sqrt(e.cycles);

type Used = { s: number; w: number; m: Match };
/** Half the 95 % interval of a weighed mean of shifts. */
function halfInterval(of: CamPattern, reference: CamPattern, used: readonly Used[], mean: number): number {
  const [a, b] = [spreadOf(of, used, (x) => x.m.at), spreadOf(reference, used, (x) => x.m.to)];
  const known = a.variance + b.variance;
  // How the edges of one cam agree among each other says how well they are known, with what their readings said before.
  const spare = used.length - 1;
  const chi = used.reduce((t, x) => t + x.w * (x.s - mean) ** 2, 0);
  const wider = (chi + BEFORE) / (spare + BEFORE);
  const nu = known > 0 ? known ** 2 / (a.variance ** 2 / a.nu + b.variance ** 2 / b.nu) : Infinity;
  return Math.hypot(student975(Math.min(nu + spare, 200)) * Math.sqrt(known * wider), 2 * FLOOR);
}

/** What two captures need to be alike in before their cams can be compared. */
export type Comparable = {
  wheel: string;
  crankKind: CamPattern['kind'];
  teeth: readonly boolean[];
  period: number;
};

/** A cam of one capture against that of another, where the same is read of both cranks. */
export function compareCams(
  a: Comparable & { pattern: CamPattern },
  b: Comparable & { pattern: CamPattern },
): Compared {
  const turn = turnBetween(a.teeth, b.teeth);
  if (turn === undefined)
    return { ok: false, error: { code: 'other_wheel', wheel: a.wheel, reference: b.wheel } };
  if (a.crankKind !== b.crankKind || a.pattern.kind !== b.pattern.kind)
    return { ok: false, error: { code: 'other_sensor' } };
  const by = (turn * 360) / a.teeth.length;
  const edges = b.pattern.edges.map((e) => ({ ...e, deg: e.deg - by }));
  return comparePatterns(a.pattern, { ...b.pattern, edges }, a.period);
}

/** Slots by which one wheel has to be turned to be the other; none where they differ. Where a wheel begins is a matter of how it is written. */
function turnBetween(a: readonly boolean[], b: readonly boolean[]): number | undefined {
  const n = a.length;
  if (b.length !== n) return undefined;
  const found = a.findIndex((_, by) => a.every((t, i) => t === b[(i + by) % n]));
  return found < 0 ? undefined : found;
}

/** What of a trace a comparison of its cams takes. */
const comparable = ({ clock }: Trace): Comparable => ({
  crankKind: clock.kind,
  wheel: clock.wheel.notation,
  teeth: fromFirstTooth(clock.wheel),
  period: clock.period,
});

/** A cam of one trace against one of another, by their order. */
export function compareTraces(a: Trace, cam: number, b: Trace, other: number): Compared {
  const [p, q] = [a.cams[cam]?.pattern, b.cams[other]?.pattern];
  if (!p || !q)
    return {
      ok: false,
      error: { code: 'other_pattern', edges: p?.edges.length ?? 0, reference: q?.edges.length ?? 0 },
    };
  return compareCams({ ...comparable(a), pattern: p }, { ...comparable(b), pattern: q });
}

type Spread = { variance: number; nu: number };
/** Variance of a pattern's share in a mean over its edges. */
function spreadOf(
  { cycles, freedom, edges }: CamPattern,
  used: readonly Used[],
  edgeOf: (x: Used) => CamEdge,
): Spread {
  // Edges that a design names were not recorded: they are off together by what it gives them.
  if (cycles.length === 0) return { variance: Math.max(...edges.map((e) => e.sd ** 2)), nu: Infinity };
  const weight = used.reduce((t, x) => t + x.w, 0);
  const own = used.reduce((t, x) => t + (x.w / weight) ** 2 * seOf(edgeOf(x)) ** 2, 0);
  // What whole cycles wander holds whatever their edges share.
  const n = cycles.length;
  const wander = n < 4 ? 0 : cycles.reduce((s, c) => s + c * c, 0) / (n - 1) / n;
  return wander > own ? { variance: wander, nu: n - 1 } : { variance: own, nu: Math.max(1, freedom + 4) };
}
