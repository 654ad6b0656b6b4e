/** Bolts in rows, done up from the middle outward or from the ends inward, in rounds. */
export type Pattern = { rows: number; columns: number; from: 'middle' | 'ends'; rounds: number };
/** A bolt at its place in the grid, in columns and rows from 0, with its number in the order. */
type Numbered = { column: number; row: number; number: number };
export type PatternOrder = { rows: number; columns: number; rounds: number; bolts: Numbered[] };

/**
 * Numbers bolts so that the load grows evenly: from the middle outward, and of bolts as far out each time the one furthest
 * from the last. From the ends inward is the same order backwards, which is how they are undone.
 */
export function tighteningOrder(p: Pattern): PatternOrder {
  const middle = { column: (p.columns - 1) / 2, row: (p.rows - 1) / 2 };
  const far = (b: Spot) => Math.hypot(b.column - middle.column, (b.row - middle.row) * 0.5);
  const left = Array.from({ length: p.rows * p.columns }, (_, i) => ({
    column: i % p.columns,
    row: Math.floor(i / p.columns),
  }));
  const order: Spot[] = [];
  while (left.length > 0) {
    const nearest = Math.min(...left.map(far));
    const last = order.at(-1) ?? middle;
    const ring = left.filter((b) => far(b) - nearest < 1e-9);
    const next = ring.reduce((a, b) => (apart(b, last) > apart(a, last) + 1e-9 ? b : a));
    left.splice(left.indexOf(next), 1);
    order.push(next);
  }
  if (p.from === 'ends') order.reverse();
  return {
    rows: p.rows,
    columns: p.columns,
    rounds: p.rounds,
    bolts: order.map((b, i) => ({ ...b, number: i + 1 })),
  };
}
type Spot = { column: number; row: number };
const apart = (a: Spot, b: Spot): number => Math.hypot(a.column - b.column, a.row - b.row);
