import type { PatternOrder } from '@core/fitting/pattern';
import type { StepShape, StepPicture } from './step-shape';

/** Room of one bolt, mm. */
const CELL = 40;

/** Bolts with their numbers, joined in their order. */
export function patternPicture(p: PatternOrder): StepPicture {
  const at = (b: { column: number; row: number }) => ({
    x: (b.column + 0.5) * CELL,
    y: (b.row + 0.5) * CELL,
  });
  const way = p.bolts.map(at);
  const over: StepShape[] = [
    { tag: 'path', is: 'arrow thin', d: way.map((q, i) => `${i === 0 ? 'M' : 'L'}${q.x} ${q.y}`).join('') },
    ...p.bolts.flatMap((b): StepShape[] => {
      const { x, y } = at(b);
      return [
        { tag: 'circle', is: 'smooth', x, y, r: CELL * 0.32 },
        { tag: 'text', is: 'name', x, y: y + CELL * 0.14, text: String(b.number) },
      ];
    }),
  ];
  return {
    box: { x: 0, y: 0, width: p.columns * CELL, height: p.rows * CELL },
    textMm: CELL * 0.4,
    base: [],
    loop: [],
    over,
    baseId: `pattern-${p.rows}-${p.columns}`,
    title: `${p.bolts.length} bolts in this order: ${p.bolts.map((b) => `${b.number} in row ${b.row + 1}, column ${b.column + 1}`).join('; ')}; in ${p.rounds} rounds`,
  };
}
