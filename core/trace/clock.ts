import { golden } from '@core/drive/roots';
import { doubleAt, intAt, num } from '@core/quantity/must';
import { angleNear, CUBIC, foretold, type PlacedEdges, type Reach, reachOf } from './angle';
import type { Edges } from './edges';
import { LEAST_TEETH, type WheelTeeth } from './teeth';
import { firstTooth, periodDeg, type ToothWheel } from './wheel';
import { type Fit, likelyWheels, type WheelChoiceError } from './wheel-choice';

/** A crank's angle over time, from the teeth of its wheel. */
export type AngleClock = {
  wheel: ToothWheel;
  /** Signal of the crank sensor. */
  kind: Edges['kind'];
  /** Seconds of each edge, and its angle, degrees, growing over the turns; nought is the first tooth behind the first gap of the wheel. */
  times: Float64Array;
  degrees: Float64Array;
  /** How an angle is read from the edges about its time: as a left-out edge is foretold best. */
  reach: Reach;
  /** Degrees after which the wheel looks the same: 360 where a gap stands once, a pitch where there is none. */
  period: number;
  /** Teeth that were not seen, edges that were too many, whole turns between first and last tooth. */
  lost: number;
  double: number;
  turns: number;
};
export type ClockError =
  | WheelChoiceError
  /** Two wheels explain the capture nearly alike: it has to be said which it is. */
  | { code: 'rival_wheels'; notation: string; rival: string };

/** Directions of a swing that are so near in likelihood are told apart by their shape alone. */
const ALIKE = 4;

/**
 * The clocks that the edges of a crank may tell: of the wheel that is said, or of each that they may be of, likeliest first. One
 * where the crank alone decides.
 */
export function crankClocks(
  edges: Edges,
  stepS: number,
  usual: readonly ToothWheel[],
  said?: ToothWheel,
): { ok: true; value: AngleClock[] } | { ok: false; error: ClockError } {
  const wheels = likelyWheels(edges, usual, said);
  if (!wheels.ok) return wheels;
  return { ok: true, value: wheels.value.flatMap((fit) => clockOf(edges, fit, stepS) ?? []) };
}

/** A clock from the leading edges of the teeth; of square teeth the other edges are further places between them. */
function clockOf(edges: Edges, fit: Fit, stepS: number): AngleClock | undefined {
  const { wheel } = fit;
  const led = leading(edges, fit);
  const teeth = led && fit[led];
  if (!led || !teeth) return undefined;
  const n = wheel.teeth.length;
  const pitch = 360 / n;
  const period = periodDeg(wheel);
  const zero = firstTooth(wheel);
  const placed = (all: Float64Array, { edge, slot }: WheelTeeth): PlacedEdges => {
    const [times, degrees] = [new Float64Array(edge.length), new Float64Array(edge.length)];
    for (let i = 0; i < edge.length; i++) {
      times[i] = doubleAt(all, intAt(edge, i)) * stepS;
      degrees[i] = (intAt(slot, i) - zero) * pitch;
    }
    return { times, degrees };
  };
  let own: PlacedEdges = placed(edges[led], teeth);
  let { reach, off } = reachOf(own);
  const trail = led === 'falling' ? 'rising' : 'falling';
  const trailing = edges.kind === 'square' ? fit[trail] : undefined;
  if (trailing && trailing.edge.length >= LEAST_TEETH && own.times.length < PLENTY) {
    const both = joined(own, placed(edges[trail], trailing), pitch, period);
    const closer = both && reachOf(both);
    // The widths of teeth may differ: then their other edges are left alone.
    if (both && closer && closer.off < off) [own, reach, off] = [both, closer.reach, closer.off];
  }
  const span = intAt(teeth.slot, teeth.slot.length - 1) - intAt(teeth.slot, 0);
  return {
    wheel,
    kind: edges.kind,
    ...own,
    reach,
    period,
    lost: teeth.lost,
    double: teeth.double,
    turns: Math.floor(span / n),
  };
}

/** With so many leading edges the others tell nothing more. */
const PLENTY = 20_000;
/** Shares of a pitch that are tried as the width of a tooth, from so many edges, of which so many are left out in turn. */
const WIDTHS = { from: 0.08, to: 0.92, step: 0.07, tried: 60, edges: 4000 };

/**
 * Leading and trailing edges in one row. How far a trailing edge stands behind the leading one of its tooth is the width under
 * which each edge is foretold best by the others.
 */
function joined(
  lead: PlacedEdges,
  trail: PlacedEdges,
  pitch: number,
  period: number,
): PlacedEdges | undefined {
  // Which of the turns, or of the teeth of a wheel without a gap, the trailing edges were counted from is told by the leading ones.
  const at = trail.times.length >> 1;
  const first = angleNear(lead, doubleAt(trail.times, at), CUBIC);
  if (!first) return undefined;
  const turn = Math.round((first.deg - pitch / 2 - doubleAt(trail.degrees, at)) / period) * period;
  const { times, degrees, leads } = inOrder(lead, trail, turn);
  const some = (all: Float64Array) => all.subarray(0, WIDTHS.edges);
  const tried = { times: some(times), degrees: new Float64Array(some(times).length) };
  const off = (share: number, reach: Reach): number => {
    for (let i = 0; i < tried.degrees.length; i++)
      tried.degrees[i] = doubleAt(degrees, i) + (leads[i] === 1 ? 0 : share * pitch);
    return foretold(tried, reach, WIDTHS.tried);
  };
  let best = { share: 0, reach: CUBIC, off: Infinity };
  for (let share = WIDTHS.from; share <= WIDTHS.to; share += WIDTHS.step) {
    for (const reach of [CUBIC, SHARP]) {
      const o = off(share, reach);
      if (o < best.off) best = { share, reach, off: o };
    }
  }
  const near = { from: best.share - WIDTHS.step, to: best.share + WIDTHS.step };
  const { t: share } = golden((s) => off(s, best.reach), near.from, near.to, -1);
  // Two that stand the wrong way round are an edge that was misread.
  let n = 0;
  for (let i = 0; i < times.length; i++) {
    const deg = doubleAt(degrees, i) + (leads[i] === 1 ? 0 : share * pitch);
    if (n > 0 && deg <= doubleAt(degrees, n - 1)) continue;
    [times[n], degrees[n++]] = [doubleAt(times, i), deg];
  }
  return { times: times.subarray(0, n), degrees: degrees.subarray(0, n) };
}

/** Two rows of edges as one, by their times; those of the second with so many degrees more. */
function inOrder(lead: PlacedEdges, trail: PlacedEdges, turn: number): PlacedEdges & { leads: Uint8Array } {
  const n = lead.times.length + trail.times.length;
  const [times, degrees, leads] = [new Float64Array(n), new Float64Array(n), new Uint8Array(n)];
  for (let i = 0, a = 0, b = 0; i < n; i++) {
    const [ta, tb] = [lead.times[a] ?? Infinity, trail.times[b] ?? Infinity];
    times[i] = Math.min(ta, tb);
    degrees[i] = ta <= tb ? doubleAt(lead.degrees, a) : doubleAt(trail.degrees, b) + turn;
    leads[i] = ta <= tb ? 1 : 0;
    if (ta <= tb) a++;
    else b++;
  }
  return { times, degrees, leads };
}
const SHARP: Reach = { terms: 6, points: 6 };

/**
 * The edge that stands for a tooth, alike in every capture of a wheel: of a square wave the one that ends the rest in its gap, of
 * a swing the sharp crossing at the tooth's middle, by which alone a gap is whole pitches wide.
 */
function leading(edges: Edges, fit: Fit): 'falling' | 'rising' | undefined {
  const { falling, rising } = fit;
  if (!falling || !rising) return falling ? 'falling' : rising ? 'rising' : undefined;
  if (edges.kind === 'swing') {
    // Without a gap both ways go round alike, and only the shape tells the middle of a tooth.
    if (fit.wheel.teeth.every(Boolean)) return edges.quicker ?? 'falling';
    const apart = falling.likelihood - rising.likelihood;
    return edges.sharp ?? (apart > -ALIKE ? 'falling' : 'rising');
  }
  return endsGap(edges, fit.wheel, falling) ?? 'falling';
}

/** The direction of the edge that ends the wheel's gaps: in them the rest lasts longer than between teeth, at its level. */
function endsGap(edges: Edges, wheel: ToothWheel, falling: WheelTeeth): 'falling' | 'rising' | undefined {
  // From one falling edge to the next: how long it is low, and high, per slot, over teeth and over gaps.
  const share = { tooth: [] as number[], gap: [] as number[] };
  let k = 0;
  for (let i = 1; i < falling.edge.length && share.gap.length < 60; i++) {
    const [from, to] = [
      doubleAt(edges.falling, intAt(falling.edge, i - 1)),
      doubleAt(edges.falling, intAt(falling.edge, i)),
    ];
    while (k < edges.rising.length && doubleAt(edges.rising, k) <= from) k++;
    if (k >= edges.rising.length || doubleAt(edges.rising, k) >= to) continue;
    const slots = intAt(falling.slot, i) - intAt(falling.slot, i - 1);
    const low = (doubleAt(edges.rising, k) - from) / (to - from);
    if (slots === 1) share.tooth.push(low);
    else if (isGap(wheel, intAt(falling.slot, i - 1), slots)) share.gap.push(low);
  }
  if (share.tooth.length === 0 || share.gap.length === 0) return undefined;
  const middle = (xs: number[]) =>
    num(
      xs.sort((a, b) => a - b),
      xs.length >> 1,
    );
  // A gap that rests low makes the low share larger, and ends with a rise.
  return middle(share.gap) > middle(share.tooth) ? 'rising' : 'falling';
}

/** True when a step passes nothing but a gap. */
function isGap({ teeth }: ToothWheel, from: number, slots: number): boolean {
  const n = teeth.length;
  for (let s = from + 1; s < from + slots; s++) if (teeth[((s % n) + n) % n]) return false;
  return slots > 1;
}

/** Engine speed turn by turn: seconds at its middle, revolutions a minute. At most so many, evenly chosen. */
export function speedOf({ times, degrees }: AngleClock, most = 400): { s: number; rpm: number }[] {
  const turns = Math.floor((doubleAt(degrees, degrees.length - 1) - doubleAt(degrees, 0)) / 360);
  const every = Math.max(1, Math.ceil(turns / most));
  const out: { s: number; rpm: number }[] = [];
  let [from, next] = [0, doubleAt(degrees, 0) + 360 * every];
  for (let i = 1; i < times.length; i++) {
    if (doubleAt(degrees, i) < next) continue;
    const [dt, turned] = [
      doubleAt(times, i) - doubleAt(times, from),
      doubleAt(degrees, i) - doubleAt(degrees, from),
    ];
    out.push({ s: doubleAt(times, from) + dt / 2, rpm: turned / (6 * dt) });
    [from, next] = [i, doubleAt(degrees, i) + 360 * every];
  }
  return out;
}
