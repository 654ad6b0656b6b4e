import type { Recovery } from '@core/fitting/recover';
import type { StepShape, StepPicture } from './step-shape';

const R = 30;
const CELL = 96;
const RAD = Math.PI / 180;

/** A dial for each move: from where to where the shaft is turned, its mark on top; on the crank's the safe ranges. */
export function recoveryPicture(
  r: Recovery,
  runs: 'cw' | 'ccw',
  name: (wheel: string | undefined) => string,
): StepPicture {
  const sign = runs === 'cw' ? 1 : -1;
  const over: StepShape[] = r.moves.flatMap((m, i): StepShape[] => {
    const c = { x: (i + 0.5) * CELL, y: CELL * 0.46 };
    const scale = m.turn === 'cam' ? 0.5 : 1;
    const at = (deg: number, q: number) => {
      const a = (sign * deg * scale - 90) * RAD;
      return `${(c.x + q * Math.cos(a)).toFixed(1)} ${(c.y + q * Math.sin(a)).toFixed(1)}`;
    };
    const arc = (from: number, to: number, q: number) => {
      const wide = Math.abs(to - from) * scale;
      const sweep = (to - from) * sign > 0 ? 1 : 0;
      return `M${at(from, q)}A${q} ${q} 0 ${wide > 180 ? 1 : 0} ${sweep} ${at(to, q)}`;
    };
    const safe = m.turn === 'crank' ? r.safe : [];
    return [
      { tag: 'circle', is: 'smooth', x: c.x, y: c.y, r: R },
      { tag: 'path', is: 'mark', d: `M${c.x} ${c.y - R - 6}L${c.x} ${c.y - R + 6}` },
      ...safe.map((s): StepShape => ({ tag: 'path', is: 'lit', d: arc(s.fromDeg, s.toDeg, R + 3) })),
      { tag: 'path', is: 'arrow', d: arc(m.fromDeg, m.fromDeg + m.byDeg, R * 0.62) },
      { tag: 'path', is: 'mark', d: `M${c.x} ${c.y}L${at(m.fromDeg, R * 0.9)}` },
      { tag: 'path', is: 'arrow', d: `M${c.x} ${c.y}L${at(m.fromDeg + m.byDeg, R * 0.9)}` },
      {
        tag: 'text',
        is: 'name',
        x: c.x,
        y: CELL * 0.93,
        text: `${i + 1} ${m.turn === 'crank' ? 'crank' : name(m.wheel)}`,
      },
    ];
  });
  return {
    box: { x: 0, y: 0, width: Math.max(1, r.moves.length) * CELL, height: CELL },
    textMm: 10,
    base: [],
    loop: [],
    over,
    baseId: 'recovery',
    title: `${r.moves.length} moves, one dial each, the mark on top${r.moves.length ? '; on the crank’s dial the safe ranges' : ''}`,
  };
}
