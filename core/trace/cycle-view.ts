import { doubleAt, floatAt, nth } from '@core/quantity/must';
import { angleNear, CUBIC } from './angle';
import { CYCLE } from './cycle';
import type { CamPattern } from './pattern';
import type { Capture } from './read-capture';
import type { Trace } from './trace';

/** One cycle of a capture over the crank's angle: least and most of each channel in steps of half a degree, so that no edge is lost. */
export type CycleView = { crank: Float32Array; cams: Float32Array[] };
export const VIEW_STEP = 0.5;

/** The first whole cycle. Each channel has its least and most in turn, step by step; where no sample fell, the one before. */
export function cycleView(capture: Capture, { clock, roles }: Trace): CycleView {
  const from = Math.ceil(doubleAt(clock.degrees, 0) / CYCLE) * CYCLE;
  const n = CYCLE / VIEW_STEP;
  const channels = [roles.crank, ...roles.cams].map((k) => ({
    samples: nth(capture.channels, k).samples,
    out: new Float32Array(2 * n).fill(Number.NaN),
  }));
  let hint = 0;
  const first = clock.times.findIndex((_, i) => doubleAt(clock.degrees, i) >= from - 30);
  for (let i = Math.max(0, Math.floor((clock.times[Math.max(0, first)] ?? 0) / capture.stepS)); ; i++) {
    const a = angleNear(clock, i * capture.stepS, CUBIC, hint);
    if (!a || a.deg >= from + CYCLE) break;
    hint = a.at;
    if (a.deg < from) continue;
    const at = 2 * Math.floor((a.deg - from) / VIEW_STEP);
    for (const { samples, out } of channels) {
      const v = samples[i] ?? Number.NaN;
      if (!(v >= floatAt(out, at))) out[at] = v;
      if (!(v <= floatAt(out, at + 1))) out[at + 1] = v;
    }
  }
  for (const { out } of channels)
    for (let k = 2; k < out.length; k++) if (Number.isNaN(floatAt(out, k))) out[k] = floatAt(out, k - 2);
  return { crank: nth(channels, 0).out, cams: channels.slice(1).map((c) => c.out) };
}

/** A cycle turned on by so many degrees, to the step of the view. */
export function turnedOn(values: Float32Array, deg: number): Float32Array {
  const n = values.length;
  const by = 2 * Math.round(deg / VIEW_STEP);
  return values.map((_, k) => floatAt(values, (((k - by) % n) + n) % n));
}

/** Teeth of a crank wheel over a cycle, degrees, each with its number in its turn. */
export function teethOver(teeth: readonly boolean[]): { at: number; n: number }[] {
  const pitch = 360 / teeth.length;
  const turn = teeth.flatMap((there, k) => (there ? [k * pitch] : []));
  return [0, 360].flatMap((from) => turn.map((deg, i) => ({ at: from + deg, n: i + 1 })));
}

/** Gaps of a crank wheel over a cycle, degrees, from half a pitch behind the last tooth to half a pitch before the next. */
export function gapsOver(teeth: readonly boolean[]): { from: number; to: number }[] {
  const n = teeth.length;
  const pitch = 360 / n;
  const turn = teeth.flatMap((there, k) => {
    if (there || !teeth[(k + n - 1) % n]) return [];
    let wide = 1;
    while (!teeth[(k + wide) % n]) wide++;
    return [{ from: (k - 0.5) * pitch, to: (k + wide - 0.5) * pitch }];
  });
  return [0, 360].flatMap((from) => turn.map((g) => ({ from: from + g.from, to: from + g.to })));
}

/** A signal of which only the edges are known, as a square wave over a cycle: least and most of each step. */
export function squareWave({ edges }: Pick<CamPattern, 'edges'>, low: number, high: number): Float32Array {
  const sorted = [...edges].sort((a, b) => a.deg - b.deg);
  const out = new Float32Array((2 * CYCLE) / VIEW_STEP);
  for (let k = 0; k < CYCLE / VIEW_STEP; k++) {
    const last = sorted.filter((e) => e.deg <= k * VIEW_STEP).at(-1) ?? sorted.at(-1);
    out.fill(last?.rising ? high : low, 2 * k, 2 * k + 2);
  }
  return out;
}
