import { doubleAt, must } from '@core/quantity/must';
import { angleNear } from './angle';
import type { AngleClock } from './clock';
import { CYCLE, within, wrapped } from './cycle';
import type { Edges } from './edges';

/** An edge of a cam signal in its cycle: crank degrees over 720, the spread of one reading of it, and how often it was seen. */
export type CamEdge = { deg: number; sd: number; cycles: number; rising: boolean };
/** What a cam signal shows over the cycles of the crank. */
export type CamPattern = {
  /** A square wave, with both edges of each tooth, or a swing, with its sharp crossings alone. */
  kind: Edges['kind'];
  edges: CamEdge[];
  /** Readings beyond one an edge, by which the spread is known; none when no edge was seen twice. */
  freedom: number;
  /** Of every cycle that was seen, how far its edges lie from their means, crank degrees. */
  cycles: number[];
  /** The whole pattern wanders from cycle to cycle by more than its edges do among each other: a phaser moves. */
  moving: boolean;
};
export type PatternError = { code: 'too_few_cycles'; cycles: number } | { code: 'no_cam_edges' };
/** `steady`: share of the times that its edges were passed in which they were seen, and of what was seen that is an edge; the lesser. */
export type PatternReading =
  | { ok: true; value: CamPattern; steady: number }
  | { ok: false; error: PatternError };

/** Edges of one direction that are closer than this are one edge, degrees. */
const ONE_EDGE = 12;
/** A pattern moves when its cycles wander by more than so many times what edges do, and by more than so much, degrees; from so many cycles on. */
const MOVES = { times: 4, deg: 1.2, cycles: 3 };
/** Share of the times an angle was passed in which an edge has to be seen there. */
const SEEN = 0.5;
/** What is known of the spread before an edge was seen twice: so many readings' worth. */
const BEFORE = 4;

type Seen = { deg: number; cycle: number };

/** Edges of a cam in crank degrees: gathered over 720, each with mean and spread. From one whole cycle on. */
export function camPattern(clock: AngleClock, edges: Edges, stepS: number): PatternReading {
  const [start, end] = [doubleAt(clock.degrees, 0), must(clock.degrees.at(-1))];
  const angles = (samples: Float64Array): Seen[] => {
    const out: Seen[] = [];
    let hint = 0;
    for (const s of samples) {
      const a = angleNear(clock, s * stepS, clock.reach, hint);
      if (!a) continue;
      hint = a.at;
      out.push({ deg: a.deg, cycle: Math.floor((a.deg - start) / CYCLE) });
    }
    return out;
  };
  const cycles = (end - start) / CYCLE;
  if (cycles < 1) return { ok: false, error: { code: 'too_few_cycles', cycles } };
  // Of a swing only the sharp crossing is an edge: its feet are no place.
  const ways =
    edges.kind === 'square' ? (['rising', 'falling'] as const) : ([edges.sharp ?? 'falling'] as const);
  let all = 0;
  const groups = ways
    .flatMap((way) => {
      const seen = angles(edges[way]);
      all += seen.length;
      return cluster(seen, start, end).map((g) => ({ ...g, rising: way === 'rising' }));
    })
    .sort((a, b) => a.deg - b.deg);
  if (groups.length === 0) return { ok: false, error: { code: 'no_cam_edges' } };
  const byCycle = new Map<number, number[]>();
  for (const g of groups)
    for (const s of g.seen) byCycle.set(s.cycle, [...(byCycle.get(s.cycle) ?? []), s.off]);
  const means = [...byCycle].sort((a, b) => a[0] - b[0]).map(([, offs]) => mean(offs));
  const among = Math.sqrt(
    mean(groups.flatMap((g) => g.seen.map((s) => (s.off - mean(must(byCycle.get(s.cycle)))) ** 2))),
  );
  const wander = Math.sqrt(mean(means.map((m) => m * m)));
  const squares = groups.reduce((t, g) => t + g.seen.reduce((s, x) => s + x.off ** 2, 0), 0);
  const freedom = groups.reduce((t, g) => t + g.seen.length - 1, 0);
  const expected = expectedSpread(clock, stepS);
  // All edges of a channel are read alike: one spread for them, begun with what a clock and its samples do.
  const sd = Math.sqrt((squares + BEFORE * expected ** 2) / (freedom + BEFORE));
  const taken = groups.reduce((t, g) => t + g.seen.length, 0);
  return {
    ok: true,
    steady: Math.min(taken / groups.reduce((t, g) => t + g.passed, 0), taken / all),
    value: {
      kind: edges.kind,
      edges: groups.map(({ deg, seen, rising }) => ({ deg, sd, cycles: seen.length, rising })),
      freedom,
      cycles: means,
      moving:
        means.length >= MOVES.cycles &&
        wander > MOVES.deg &&
        wander > (MOVES.times * among) / Math.sqrt(groups.length),
    },
  };
}

/** Spread of one reading by the steps of the samples alone, at the crank and at the cam, degrees. */
function expectedSpread({ times, degrees }: AngleClock, stepS: number): number {
  const perS = (must(degrees.at(-1)) - doubleAt(degrees, 0)) / (must(times.at(-1)) - doubleAt(times, 0));
  return perS * stepS * Math.sqrt(1.3 / 12);
}

const mean = (xs: readonly number[]): number => xs.reduce((a, b) => a + b, 0) / Math.max(1, xs.length);

type Group = { deg: number; passed: number; seen: { cycle: number; off: number }[] };
/** Angles gathered around a cycle: new ones join the group whose mean is near. What is seen in few of the times that its angle was passed is noise. */
function cluster(all: readonly Seen[], start: number, end: number): Group[] {
  const groups: { deg: number; seen: Seen[] }[] = [];
  for (const s of all) {
    const near = groups.find((g) => Math.abs(wrapped(s.deg - g.deg)) < ONE_EDGE);
    if (!near) groups.push({ deg: within(s.deg), seen: [s] });
    else {
      near.seen.push(s);
      near.deg += wrapped(s.deg - near.deg) / near.seen.length;
    }
  }
  const passed = (deg: number) => Math.floor((end - deg) / CYCLE) - Math.ceil((start - deg) / CYCLE) + 1;
  return groups
    .map((g) => ({ ...g, passed: Math.max(g.seen.length, passed(g.deg)) }))
    .filter((g) => g.seen.length >= SEEN * g.passed)
    .map(({ deg, seen, passed }) => ({
      deg: within(deg),
      passed,
      seen: seen.map((s) => ({ cycle: s.cycle, off: wrapped(s.deg - deg) })),
    }));
}
