import { doubleAt, intAt, must, num } from '@core/quantity/must';
import { periodSlots, type ToothWheel } from './wheel';

/** Edges of one direction as teeth of a wheel. */
export type WheelTeeth = {
  /** Edges that are teeth: which one of those given, and its slot, counted on over the turns. */
  edge: Int32Array;
  slot: Int32Array;
  /** Teeth that left no edge, and edges that are no tooth. */
  lost: number;
  double: number;
  /** Log of the likelihood of the edges, were they of this wheel; compared between wheels over the same edges. */
  likelihood: number;
};

/** Edges that a wheel is told from at least. */
export const LEAST_TEETH = 8;

/**
 * What a step between teeth costs, natural logs: a tooth that left no edge (one in two hundred and fifty), each further one of
 * the same drop-out, an edge that is no tooth (one in a thousand).
 */
const LOST = { first: -5.5, further: -0.7 };
const DOUBLE = -7;
/** Hypotheses that are so much less likely than the best one are given up. */
const BEAM = 22;
/** After so many turns, with all others so far behind, a step that is within so many spreads of what is foretold is taken as it is. */
const SETTLED = { turns: 2.5, behind: 8, spreads: 3 };
/** Steps are thought of from and up to these shares of what the pitch foretells. */
const THOUGHT_OF = { from: 0.3, to: 3.4 };
/** Freedom of the distribution of steps: heavy tails, since a compression slows a starter at once. */
const NU = 4;
/** Least spread of the log of a step that is believed: a capture without noise still has a starter that pulses. */
const LEAST_SPREAD = 0.02;
/** A pitch follows the last one by this share of its change. */
const FOLLOWS = 0.8;

/** Steps of a wheel from each tooth: slots to every further tooth within reach, and teeth passed over. */
type Steps = { to: Int32Array; slots: Int32Array; passed: Int32Array };

function stepsOf(teeth: readonly boolean[]): (Steps | undefined)[] {
  const n = teeth.length;
  return teeth.map((there, p) => {
    if (!there) return undefined;
    const [to, slots, passed]: [number[], number[], number[]] = [[], [], []];
    for (let d = 1, between = 0; d <= n; d++) {
      if (!teeth[(p + d) % n]) continue;
      to.push((p + d) % n);
      slots.push(d);
      passed.push(between++);
    }
    return { to: Int32Array.from(to), slots: Int32Array.from(slots), passed: Int32Array.from(passed) };
  });
}

/** Hypotheses, one a tooth that the last edge may have been: how likely, when that tooth was, the pitch there, and its way. */
class Beam {
  readonly score: Float64Array;
  readonly last: Float64Array;
  readonly pitch: Float64Array;
  readonly node: Int32Array;
  active: number[] = [];
  constructor(n: number) {
    this.score = new Float64Array(n).fill(-Infinity);
    this.last = new Float64Array(n);
    this.pitch = new Float64Array(n);
    this.node = new Int32Array(n);
  }
  /** Takes a hypothesis if it is likelier than the one of the same tooth. */
  takes(p: number, score: number, last: number, pitch: number): boolean {
    const had = doubleAt(this.score, p);
    if (score <= had) return false;
    if (had === -Infinity) this.active.push(p);
    this.score[p] = score;
    this.last[p] = last;
    this.pitch[p] = pitch;
    return true;
  }
  /** The likeliest one when all others are far behind it. */
  settled(): number | undefined {
    const best = this.best();
    const least = doubleAt(this.score, best) - SETTLED.behind;
    for (const p of this.active) if (p !== best && doubleAt(this.score, p) > least) return undefined;
    return best;
  }
  best(): number {
    let best = num(this.active, 0);
    for (const p of this.active) if (doubleAt(this.score, p) > doubleAt(this.score, best)) best = p;
    return best;
  }
  clear(): void {
    for (const p of this.active) this.score[p] = -Infinity;
    this.active = [];
  }
}

/** Ways of hypotheses: each tooth with the one before it. */
class Ways {
  private edge = new Int32Array(1024);
  private slots = new Int32Array(1024);
  private before = new Int32Array(1024);
  private n = 0;
  add(edge: number, slots: number, before: number): number {
    if (this.n === this.edge.length) {
      for (const key of ['edge', 'slots', 'before'] as const) {
        const more = new Int32Array(2 * this.n);
        more.set(this[key]);
        this[key] = more;
      }
    }
    this.edge[this.n] = edge;
    this.slots[this.n] = slots;
    this.before[this.n] = before;
    return this.n++;
  }
  /** Edges and slots from the first tooth on. */
  way(end: number, from: number): { edge: Int32Array; slot: Int32Array } {
    let length = 0;
    for (let k = end; k >= 0; k = intAt(this.before, k)) length++;
    const [edge, slot] = [new Int32Array(length), new Int32Array(length)];
    for (let k = end, i = length - 1; k >= 0; k = intAt(this.before, k), i--) {
      edge[i] = intAt(this.edge, k);
      slot[i] = intAt(this.slots, k);
    }
    for (let i = 1; i < length; i++) slot[i] = intAt(slot, i) + intAt(slot, i - 1);
    // The way began at some tooth of the wheel: slots are those of the wheel, turn upon turn.
    const shift = from - intAt(slot, length - 1);
    for (let i = 0; i < length; i++) slot[i] = intAt(slot, i) + shift;
    return { edge, slot };
  }
}

/** Steps over what the pitch foretells are told apart as finely as this. */
const FINE = 256;

/** How steps spread about what is foretold: the deviation of their log, and the log of how likely each is, Student's; looked up, since it is asked for every hypothesis. */
export type StepSpread = { sigma: number; likely: Float64Array };

/** @param sigma of the log of a step, see {@link spreadOfSteps} */
export function stepSpread(sigma: number): StepSpread {
  const scale = 1 / (NU * sigma * sigma);
  const base = -Math.log(sigma) - 0.98;
  const likely = Float64Array.from({ length: Math.ceil(THOUGHT_OF.to * FINE) + 2 }, (_, k) => {
    const off = Math.log(Math.max(0.5, k) / FINE);
    return base - ((NU + 1) / 2) * Math.log1p(off * off * scale);
  });
  return { sigma, likely };
}

/** How far steps are from those before them, logs: the middle one, as a standard deviation; gaps are too few to move it. */
export function spreadOfSteps(times: Float64Array): number {
  const offs: number[] = [];
  for (let i = 2; i < times.length && offs.length < 4000; i++) {
    const [a, b] = [
      doubleAt(times, i - 1) - doubleAt(times, i - 2),
      doubleAt(times, i) - doubleAt(times, i - 1),
    ];
    if (a > 0 && b > 0) offs.push(Math.abs(Math.log(b / a)));
  }
  offs.sort((x, y) => x - y);
  return Math.max(LEAST_SPREAD, 1.48 * (offs[offs.length >> 1] ?? 0));
}

/**
 * The likeliest teeth of a wheel for the edges of one direction. A hidden Markov model: the state is the tooth that the last
 * edge was, with the pitch there; an edge is the next tooth, a further one (those between left no edge), or none. The log of a
 * step over what the pitch foretells is Student's. The likeliest way is found by Viterbi's method (1967) with a beam.
 * @param times of the edges, growing, whatever their unit
 * @param spread of the steps, alike for all wheels that are compared
 * @returns undefined with too few edges
 */
export function teethOf(
  times: Float64Array,
  { teeth }: ToothWheel,
  { sigma, likely }: StepSpread,
): WheelTeeth | undefined {
  const n = teeth.length;
  if (times.length < LEAST_TEETH) return undefined;
  const steps = stepsOf(teeth);
  /** Slots from each tooth to the next one. */
  const ahead = Int32Array.from(steps, (s) => s?.slots[0] ?? 0);
  // A wheel that looks the same after part of a turn has no other beginnings than in one part.
  const begin = Array.from({ length: periodSlots({ teeth }) }, (_, p) => p).filter((p) => teeth[p]);
  const sure = SETTLED.turns * teeth.filter(Boolean).length;
  let [now, next] = [new Beam(n), new Beam(n)];
  const ways = new Ways();
  for (const p of begin) if (now.takes(p, 0, doubleAt(times, 0), NaN)) now.node[p] = ways.add(0, 0, -1);
  const fits = (share: number): number => doubleAt(likely, Math.round(share * FINE));
  for (let i = 1; i < times.length; i++) {
    const alone = i < sure ? undefined : now.settled();
    if (alone !== undefined) {
      // As long as every step is as foretold, one way is followed without the others.
      let [p, score, last] = [alone, doubleAt(now.score, alone), doubleAt(now.last, alone)];
      let [pitch, node] = [doubleAt(now.pitch, alone), intAt(now.node, alone)];
      for (; i < times.length; i++) {
        const [t, d] = [doubleAt(times, i), intAt(ahead, p)];
        const share = (t - last) / (d * pitch);
        if (!(Math.abs(share - 1) < SETTLED.spreads * sigma)) break;
        score += fits(share);
        node = ways.add(i, d, node);
        p = (p + d) % n;
        pitch *= 1 + FOLLOWS * (share - 1);
        last = t;
      }
      now.clear();
      now.takes(p, score, last, pitch);
      now.node[p] = node;
      if (i >= times.length) break;
    }
    const t = doubleAt(times, i);
    const top = doubleAt(now.score, now.best());
    // Until the speed is known any edge may be the first one.
    if (i < 3)
      for (const p of begin) if (next.takes(p, i * DOUBLE, t, NaN)) next.node[p] = ways.add(i, 0, -1);
    for (const p of now.active) {
      const score = doubleAt(now.score, p);
      if (score < top - BEAM) continue;
      const [last, pitch, node] = [doubleAt(now.last, p), doubleAt(now.pitch, p), intAt(now.node, p)];
      if (next.takes(p, score + DOUBLE, last, pitch)) next.node[p] = node;
      const { to, slots, passed } = must(steps[p]);
      const step = t - last;
      for (let k = 0; k < to.length; k++) {
        const [d, q, between] = [intAt(slots, k), intAt(to, k), intAt(passed, k)];
        const lost = between === 0 ? 0 : LOST.first + (between - 1) * LOST.further;
        if (lost < -BEAM) break;
        if (Number.isNaN(pitch)) {
          if (k > 2) break;
          if (next.takes(q, score + lost, t, step / d)) next.node[q] = ways.add(i, d, node);
          continue;
        }
        const share = step / (d * pitch);
        if (share > THOUGHT_OF.to) continue;
        // Edges at one time, of a file that is no recording, are no step.
        if (!(share >= THOUGHT_OF.from)) break;
        if (next.takes(q, score + lost + fits(share), t, pitch * (1 + FOLLOWS * (share - 1))))
          next.node[q] = ways.add(i, d, node);
      }
    }
    now.clear();
    [now, next] = [next, now];
  }
  const end = now.best();
  const { edge, slot } = ways.way(intAt(now.node, end), end);
  return { edge, slot, ...counted(slot, times.length, teeth), likelihood: doubleAt(now.score, end) };
}

function counted(
  slot: Int32Array,
  edges: number,
  teeth: readonly boolean[],
): Pick<WheelTeeth, 'lost' | 'double'> {
  const n = teeth.length;
  let lost = 0;
  for (let i = 1; i < slot.length; i++)
    for (let s = intAt(slot, i - 1) + 1; s < intAt(slot, i); s++) if (teeth[((s % n) + n) % n]) lost++;
  return { lost, double: edges - slot.length };
}
