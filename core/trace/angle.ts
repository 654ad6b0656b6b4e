import { doubleAt, nth, num } from '@core/quantity/must';

/** Edges of a wheel: seconds and degrees, both growing. */
export type PlacedEdges = { times: Float64Array; degrees: Float64Array };
/** How an angle is read from the edges about a time: terms of the polynomial, and edges that it is the least-squares fit of. */
export type Reach = { terms: number; points: number };

/** The cubic through the two edges before and the two behind. */
export const CUBIC: Reach = { terms: 4, points: 4 };
/**
 * Polynomials that an angle may be read by: through just as many edges as they have terms where the speed changes much from tooth
 * to tooth and edges are sharp, through more of them where edges jitter.
 */
const REACHES: readonly Reach[] = [
  CUBIC,
  ...[6, 8, 12, 16, 24].map((points) => ({ terms: 4, points })),
  ...[6, 8, 12].map((points) => ({ terms: 6, points })),
  ...[8, 10, 14].map((points) => ({ terms: 8, points })),
];
const MOST_TERMS = 8;
/** A polynomial of more terms is taken when it foretells left-out edges better than by this share. */
const WORTH_TERMS = 0.85;
/** Edges that are left out to see which reach foretells them best. */
const TRIED = 240;

/**
 * The crank's angle at a time, degrees: a polynomial of least squares through the edges about it, which follows acceleration.
 * None outside the first and last edge.
 * @param hint index of an edge before it, to go on from
 */
export function angleNear(
  placed: PlacedEdges,
  t: number,
  reach: Reach,
  hint = 0,
): { deg: number; at: number } | undefined {
  const { times } = placed;
  const last = times.length - 1;
  if (last < 1 || t < doubleAt(times, 0) || t > doubleAt(times, last)) return undefined;
  let i = Math.min(hint, last - 1);
  while (i > 0 && doubleAt(times, i) > t) i--;
  while (i + 1 < last && doubleAt(times, i + 1) < t) i++;
  return { deg: polynomialAt(placed, t, i, reach, -1), at: i };
}

/** The polynomial through edges about the i-th, at a time. @param without an edge that is left out, or -1 */
function polynomialAt(
  { times, degrees }: PlacedEdges,
  t: number,
  i: number,
  reach: Reach,
  without: number,
): number {
  const n = times.length;
  const wanted = reach.points + (without >= 0 ? 1 : 0);
  let from = i - (reach.points >> 1) + (without >= 0 ? 0 : 1);
  let to = from + wanted;
  if (from < 0) [from, to] = [0, Math.min(n, wanted)];
  if (to > n) [from, to] = [Math.max(0, n - wanted), n];
  const terms = Math.min(reach.terms, to - from - (without >= 0 ? 1 : 0));
  // About the time itself, in halves of the window, so that the sums stay small.
  const scale = 2 / Math.max(1e-12, doubleAt(times, to - 1) - doubleAt(times, from));
  const origin = doubleAt(degrees, i);
  sums.fill(0);
  rights.fill(0);
  for (let k = from; k < to; k++) {
    if (k === without) continue;
    const x = (doubleAt(times, k) - t) * scale;
    const y = doubleAt(degrees, k) - origin;
    let power = 1;
    for (let p = 0; p < 2 * terms - 1; p++) {
      sums[p] = num(sums, p) + power;
      if (p < terms) rights[p] = num(rights, p) + power * y;
      power *= x;
    }
  }
  return origin + constantTerm(terms);
}

// Sums of powers and right sides, kept between calls: the loop over cam edges is hot.
const sums: number[] = new Array<number>(2 * MOST_TERMS - 1).fill(0);
const rights: number[] = new Array<number>(MOST_TERMS).fill(0);
const rows: number[][] = Array.from({ length: MOST_TERMS }, () => new Array<number>(MOST_TERMS + 1).fill(0));

/** The first unknown of the normal equations, by elimination from the last one up: at the time itself only it is left. */
function constantTerm(terms: number): number {
  for (let r = 0; r < terms; r++) {
    const row = nth(rows, r);
    for (let c = 0; c < terms; c++) row[c] = num(sums, r + c);
    row[terms] = num(rights, r);
  }
  for (let p = terms - 1; p > 0; p--) {
    const pivot = nth(rows, p);
    const by = num(pivot, p);
    if (!(Math.abs(by) > 1e-14)) continue;
    for (let r = 0; r < p; r++) {
      const row = nth(rows, r);
      const share = num(row, p) / by;
      for (let c = 0; c < p; c++) row[c] = num(row, c) - share * num(pivot, c);
      row[terms] = num(row, terms) - share * num(pivot, terms);
    }
  }
  const top = nth(rows, 0);
  return num(top, terms) / num(top, 0);
}

/** How far off edges are foretold by those about them, degrees: the mean without the worst fiftieth, so that a misread one does not decide. */
export function foretold(placed: PlacedEdges, reach: Reach, tried = TRIED): number {
  const n = placed.times.length;
  if (reach.points + 2 > n) return Infinity;
  const offs: number[] = [];
  const every = Math.max(1, Math.floor(n / tried));
  for (let i = 2; i + 2 < n; i += every)
    offs.push(
      Math.abs(polynomialAt(placed, doubleAt(placed.times, i), i, reach, i) - doubleAt(placed.degrees, i)),
    );
  offs.sort((a, b) => a - b);
  const most = offs.slice(0, Math.ceil(0.98 * offs.length));
  return most.reduce((a, b) => a + b, 0) / Math.max(1, most.length);
}

/** The reach that foretells left-out edges best (cross-validation; Stone 1974), and how far off they then are. */
export function reachOf(placed: PlacedEdges): { reach: Reach; off: number } {
  let best = { reach: CUBIC, off: Infinity };
  for (const reach of REACHES) {
    const off = foretold(placed, reach);
    // More terms swing further in a gap, where no edge holds them: they have to be better by more than chance.
    const worth = reach.terms > best.reach.terms ? WORTH_TERMS : 1;
    if (off < worth * best.off) best = { reach, off };
  }
  return best;
}
