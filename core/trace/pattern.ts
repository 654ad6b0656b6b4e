import { doubleAt, must } from '@core/quantity/must';
import { type AngleClock, angleAt } from './clock';
import { CYCLE, within, wrapped } from './cycle';

/** An edge of a cam signal in its cycle: crank degrees over 720, with its spread over the cycles. */
export type CamEdge = { deg: number; sd: number; cycles: number; rising: boolean };
/** What a cam signal shows over the cycles of the crank. */
export type CamPattern = {
  edges: CamEdge[];
  /** Of every cycle that was seen whole, how far its edges lie from their means, crank degrees. */
  cycles: number[];
  /** The whole pattern wanders from cycle to cycle by more than its edges do among each other: a phaser moves. */
  moving: boolean;
};
export type PatternError = { code: 'too_few_cycles'; cycles: number } | { code: 'no_cam_edges' };
export type PatternReading = { ok: true; value: CamPattern } | { ok: false; error: PatternError };

/** Cycles that a spread takes at least. */
const LEAST_CYCLES = 3;
/** Edges of one direction that are closer than this are one edge, degrees. */
const ONE_EDGE = 15;
/** A pattern moves when its cycles wander by more than so many times what edges do, and by more than so much, degrees. */
const MOVES = { times: 4, deg: 1.2 };
/** Share of the cycles in which an edge has to be seen. */
const SEEN = 0.5;

type Seen = { deg: number; cycle: number };

/** Edges of a cam in crank degrees: clustered over 720, each with mean and spread. Times of edges in seconds. */
export function camPattern(clock: AngleClock, rising: Float64Array, falling: Float64Array): PatternReading {
  const start = doubleAt(clock.degrees, 0);
  const angles = (times: Float64Array): Seen[] => {
    const out: Seen[] = [];
    let hint = 0;
    for (const t of times) {
      const a = angleAt(clock, t, hint);
      if (!a) continue;
      hint = a.at;
      out.push({ deg: a.deg, cycle: Math.floor((a.deg - start) / CYCLE) });
    }
    return out;
  };
  const cycles = Math.floor((must(clock.degrees.at(-1)) - start) / CYCLE);
  if (cycles < LEAST_CYCLES) return { ok: false, error: { code: 'too_few_cycles', cycles } };
  const groups = [
    ...cluster(angles(rising), cycles).map((g) => ({ ...g, rising: true })),
    ...cluster(angles(falling), cycles).map((g) => ({ ...g, rising: false })),
  ].sort((a, b) => a.deg - b.deg);
  if (groups.length === 0) return { ok: false, error: { code: 'no_cam_edges' } };
  const byCycle = new Map<number, number[]>();
  for (const g of groups)
    for (const s of g.seen) byCycle.set(s.cycle, [...(byCycle.get(s.cycle) ?? []), s.off]);
  const means = [...byCycle].sort((a, b) => a[0] - b[0]).map(([, offs]) => mean(offs));
  const among = Math.sqrt(
    mean(groups.flatMap((g) => g.seen.map((s) => (s.off - mean(must(byCycle.get(s.cycle)))) ** 2))),
  );
  const wander = Math.sqrt(mean(means.map((m) => m * m)));
  return {
    ok: true,
    value: {
      edges: groups.map(({ deg, seen, rising }) => ({
        deg,
        sd: Math.sqrt(seen.reduce((s, x) => s + x.off ** 2, 0) / Math.max(1, seen.length - 1)),
        cycles: seen.length,
        rising,
      })),
      cycles: means,
      moving: wander > MOVES.deg && wander > (MOVES.times * among) / Math.sqrt(groups.length),
    },
  };
}

const mean = (xs: readonly number[]): number => xs.reduce((a, b) => a + b, 0) / Math.max(1, xs.length);

type Group = { deg: number; seen: { cycle: number; off: number }[] };
/** Angles gathered around a cycle: new ones join the group whose mean is near. What is seen in few cycles is noise. */
function cluster(all: readonly Seen[], cycles: number): Group[] {
  const groups: { deg: number; seen: Seen[] }[] = [];
  for (const s of all) {
    const near = groups.find((g) => Math.abs(wrapped(s.deg - g.deg)) < ONE_EDGE);
    if (!near) groups.push({ deg: within(s.deg), seen: [s] });
    else {
      near.seen.push(s);
      near.deg += wrapped(s.deg - near.deg) / near.seen.length;
    }
  }
  return groups
    .filter((g) => g.seen.length >= Math.max(2, SEEN * cycles))
    .map(({ deg, seen }) => ({
      deg: within(deg),
      seen: seen.map((s) => ({ cycle: s.cycle, off: wrapped(s.deg - deg) })),
    }));
}
