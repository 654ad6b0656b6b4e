import { doubleAt, nth, shortAt } from '@core/quantity/must';
import { SHIPPED_POLICY } from '@core/policy/policy';

/** A toothed wheel that the belt or chain runs over. */
export type SpacedWheel = { id: string; name: string; teeth: number };
export type SpacingAnswer =
  | { verdict: 'too_few'; marks: number; least: number }
  /** No tooth count stands out: what is seen may be scattered by chance. */
  | { verdict: 'none'; p: number; marks: number }
  /** `alike`: wheels whose count divides or is divided by it, so that these marks cannot tell them apart. */
  | {
      verdict: 'wheel';
      wheel: string;
      alike: string[];
      p: number;
      marks: number;
      /** Marks that one tooth of the wheel can have made, in so many laps of the belt. */
      hits: number;
      laps: number;
      /** Teeth of the belt that this tooth of the wheel meets in those laps. */
      met: number[];
    };

/** Laps within which a fault of a wheel is looked for: later ones have been over the whole belt. */
const MOST_LAPS = 3;
const SCATTERED = 999;

/** Small generator with a seed, so that the same marks give the same answer (Mulberry32). */
function seeded(seed: number): () => number {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) >>> 0;
    let t = a;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b));

/** −ln of the chance that of n marks at least h fall on a share q of the belt (binomial tail). */
function tail(n: number, h: number, q: number): number {
  if (h <= 0 || q >= 1) return 0;
  let [term, sum] = [1, 0];
  // P(X = h) · q^h (1−q)^(n−h), then upwards
  for (let i = 1; i <= h; i++) term *= ((n - h + i) / i) * q;
  term *= (1 - q) ** (n - h);
  for (let k = h; k <= n; k++) {
    sum += term;
    term *= ((n - k) / (k + 1)) * (q / (1 - q));
  }
  return -Math.log(Math.max(sum, 1e-300));
}

type Scan = { score: number; hits: number; laps: number; tooth: number };

/** What a scan for one tooth count needs: of every lap the tooth that each belt tooth meets, and the score of so many hits. */
type Count = { z: number; laps: readonly { meets: Uint16Array; scores: Float64Array }[] };

function countOf(z: number, belt: number, marks: number): Count {
  const laps = Math.min(MOST_LAPS, z / gcd(z, belt));
  return {
    z,
    laps: Array.from({ length: laps }, (_, k) => ({
      // A tooth of the wheel meets belt tooth p in lap k at (p + k·belt) mod z.
      meets: Uint16Array.from({ length: belt + 1 }, (_, p) => (p + k * belt) % z),
      scores: Float64Array.from({ length: marks + 1 }, (_, h) => tail(marks, h, Math.min(1, (k + 1) / z))),
    })),
  };
}

/** The tooth of a wheel that most marks can have come from; a mark belongs to every tooth that a lap allows. */
function scan(marks: Uint16Array, { z, laps }: Count, bins: Uint16Array): Scan {
  let [score, hits, lap, tooth] = [0, 0, 1, 0];
  bins.fill(0, 0, z);
  let [most, fullest] = [0, 0];
  for (let k = 0; k < laps.length; k++) {
    const { meets, scores } = nth(laps, k);
    for (const mark of marks) {
      const t = shortAt(meets, mark);
      const filled = shortAt(bins, t) + 1;
      bins[t] = filled;
      if (filled > most) {
        most = filled;
        fullest = t;
      }
    }
    const found = Math.min(most, marks.length);
    if (doubleAt(scores, found) > score)
      [score, hits, lap, tooth] = [doubleAt(scores, found), found, k + 1, fullest];
  }
  return { score, hits, laps: lap, tooth };
}

/**
 * Which wheel made the marks: for every tooth count and up to three laps of the belt, how many marks one tooth of that wheel
 * can have made, against the chance of as many on a belt with marks scattered anywhere. Corrected for all wheels, teeth and
 * laps tried by scattering the same number of marks up to 999 times (the largest score of each is the measure), and no more often once
 * too many were as good for any wheel to be named (sequential Monte Carlo; Besag & Clifford 1991). A wheel that
 * meets a belt tooth again every lap (its count divides the belt's) is looked for in one lap.
 * @param marks belt teeth or links with a mark, from 1; @param belt teeth of the belt
 */
export function damageSpacing(
  marks: readonly number[],
  belt: number,
  wheels: readonly SpacedWheel[],
): SpacingAnswer {
  const at = Uint16Array.from([...new Set(marks)].filter((p) => p >= 1 && p <= belt));
  if (at.length < SHIPPED_POLICY.leastMarks)
    return { verdict: 'too_few', marks: at.length, least: SHIPPED_POLICY.leastMarks };
  const n = at.length;
  const counts = [...new Set(wheels.map((w) => w.teeth))]
    .filter((z) => z > 1 && z < belt)
    .map((z) => countOf(z, belt, n));
  const bins = new Uint16Array(Math.max(0, ...counts.map((c) => c.z)) + 1);
  const best = (places: Uint16Array) => {
    let top: { found: Scan; z: number } = { found: { score: 0, hits: 0, laps: 1, tooth: 0 }, z: 0 };
    for (const c of counts) {
      const found = scan(places, c, bins);
      if (found.score > top.found.score + 1e-9) top = { found, z: c.z };
    }
    return top;
  };
  const { found, z } = best(at);
  const random = seeded(at.reduce((s, p) => Math.imul(s ^ p, 16777619), belt));
  const teeth = Uint16Array.from({ length: belt }, (_, i) => i + 1);
  const enough = SHIPPED_POLICY.namedBelow * (SCATTERED + 1);
  let [asGood, tried] = [0, 0];
  while (tried < SCATTERED && asGood < enough) {
    // The first n teeth of a shuffle that goes no further (Fisher & Yates).
    for (let i = 0; i < n; i++) {
      const j = i + Math.floor(random() * (belt - i));
      const tooth = shortAt(teeth, j);
      teeth[j] = shortAt(teeth, i);
      teeth[i] = tooth;
    }
    if (best(teeth.subarray(0, n)).found.score >= found.score - 1e-9) asGood++;
    tried++;
  }
  const p = (asGood + 1) / (tried + 1);
  if (z === 0 || p > SHIPPED_POLICY.namedBelow) return { verdict: 'none', p, marks: n };
  const of = wheels.filter((w) => w.teeth === z);
  const kin = wheels.filter((w) => {
    if (w.teeth === z) return false;
    if (w.teeth % z !== 0 && z % w.teeth !== 0) return false;
    // The kin explains them too when it hits as many.
    const count = counts.find((c) => c.z === w.teeth);
    return count !== undefined && scan(at, count, bins).hits >= found.hits;
  });
  return {
    verdict: 'wheel',
    wheel: nth(of, 0).id,
    alike: [...of.slice(1), ...kin].map((w) => w.id),
    p,
    marks: n,
    hits: found.hits,
    laps: found.laps,
    met: metBy(found.tooth, z, belt, found.laps),
  };
}

/** Teeth of the belt that one tooth of a wheel meets in its first laps. */
const metBy = (tooth: number, z: number, belt: number, laps: number): number[] =>
  Array.from({ length: belt }, (_, i) => i + 1).filter((p) =>
    Array.from({ length: laps }, (_, k) => (p + k * belt) % z).includes(tooth),
  );

export type TornRun = { from: number; teeth: number; wheels: string[] };

/** Runs of torn teeth, over the joint too, with the wheels whose arc of contact is as long, within one and a half teeth. */
export function tornRuns(
  torn: readonly number[],
  belt: number,
  inMesh: ReadonlyMap<string, number>,
): TornRun[] {
  const set = new Set(torn.filter((p) => p >= 1 && p <= belt));
  const next = (p: number) => (p % belt) + 1;
  const before = (p: number) => (p === 1 ? belt : p - 1);
  const starts = [...set].filter((p) => !set.has(before(p))).sort((a, b) => a - b);
  const whole = starts.length === 0 && set.size > 0;
  return (whole ? [1] : starts).flatMap((from): TornRun[] => {
    let teeth = 1;
    for (let p = next(from); set.has(p) && teeth < belt; p = next(p)) teeth++;
    if (teeth < 3) return [];
    const wheels = [...inMesh].filter(([, m]) => Math.abs(m - teeth) <= 1.5).map(([id]) => id);
    return [{ from, teeth, wheels }];
  });
}
