import type { Layout } from '@core/drive/layout';
import { camOf } from '@core/simulate/capture-box';
import { CYCLE, within } from '@core/trace/cycle';
import { readWheel } from '@core/trace/wheel';

/** Engines whose intake cams sit on phasers. */
const PHASED = ['QU30-VASK', 'TE47-MOOR', 'BR24-PELL', 'TE18-GANN'];

/**
 * The drive of an engine with what its sensors show: the crank's reluctor wheel, read as a swing at the middle of each tooth, and on each cam the edges that the simulated box
 * records of this engine. Stages of one drive, in order.
 */
export function withSensors(stages: readonly Layout[], engine: string, notation: string): Layout[] {
  const read = readWheel(notation);
  if (!read.ok) throw new Error(`${notation} is no wheel`);
  const half = 180 / read.value.teeth.length;
  let cam = 0;
  return stages.map((l) => ({
    ...l,
    wheels: l.wheels.map((w, i) => {
      if (w.role === 'crank') return { ...w, reluctor: { notation, kind: 'swing' as const } };
      if (w.role !== 'cam') return w;
      if (l.follows && i === 0) return { ...w, phaser: false };
      const signal = camOf(engine, cam++).map((e) => ({
        ...e,
        deg: Math.round(10 * within(e.deg - half, CYCLE)) / 10,
      }));
      return { ...w, phaser: PHASED.includes(engine) && w.id.includes('intake'), signal };
    }),
  }));
}
