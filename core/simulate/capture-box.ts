import { randomFrom } from '@core/quantity/random';
import { simulateCapture, type SimulatedEdge } from './capture';
import { type CaptureDialect, writeCapture } from './capture-file';

/** What may be wrong with the engine that the box is clipped to. */
export const BOX_FAULTS = [
  'good',
  'one_late',
  'one_cam_late',
  'one_early',
  'two_late',
  'worn',
  'upside_down',
  'phaser',
] as const;
export type BoxFault = (typeof BOX_FAULTS)[number];
export const BOX_DIALECTS = ['comma', 'point', 'tab', 'bare'] as const;
export type BoxDialect = (typeof BOX_DIALECTS)[number];

const DIALECTS: Readonly<Record<BoxDialect, CaptureDialect>> = {
  comma: { separator: ';', decimal: ',', heading: 'two', time: 'ms', volts: 'mV', crlf: true, bom: true },
  point: { separator: ',', decimal: '.', heading: 'one', time: 's', volts: 'V', startS: -0.1 },
  tab: { separator: '\t', decimal: ',', heading: 'one', time: 'µs', volts: 'V' },
  bare: { separator: ';', decimal: '.', heading: 'none', time: 's', volts: 'V' },
};
/** Share of a tooth of the drive by which a worn chain lets the cam lag. */
const WORN = 0.4;

/** What is the same for the same text, a number for a seed. */
const seedOf = (text: string): number =>
  [...text].reduce((s, c) => Math.imul(s ^ c.charCodeAt(0), 16777619), 2166136261);
const tenth = (deg: number): number => Math.round(10 * deg) / 10;

/** Edges of an invented cam wheel, the same for the same cam of the same engine. */
export function camOf(engine: string, cam = 0): SimulatedEdge[] {
  const random = randomFrom(seedOf(cam === 0 ? engine : `${engine} ${cam}`));
  const out: SimulatedEdge[] = [];
  for (let deg = 20 + 40 * random(); deg < 640; ) {
    const width = 30 + 60 * random();
    out.push({ deg: tenth(deg), rising: true }, { deg: tenth(deg + width), rising: false });
    deg += width + 50 + 70 * random();
  }
  return out;
}

export type BoxAsk = {
  engine: string;
  fault: BoxFault;
  dialect: BoxDialect;
  seed: number;
  /** Teeth of the drive's crank wheel; slots of the sensor's wheel, true where there is a tooth. */
  zCrank: number;
  teeth?: readonly boolean[];
  /** How many cams have a sensor; samples a second. */
  cams?: number;
  rateHz?: number;
  /** Cycles that are recorded (8); the wires of the crank sensor are on the other way around. */
  cycles?: number;
  crankSwapped?: boolean;
};
/** A wheel of sixty less two. */
const USUAL: readonly boolean[] = Array.from({ length: 60 }, (_, i) => i < 58);

/** What an export of a simulated capture box holds: a cranking engine for a few seconds, its crank and its cams. */
export function boxCapture(ask: BoxAsk): string {
  const { engine, fault, dialect, seed, zCrank, teeth, cams, rateHz } = ask;
  const tooth = 360 / zCrank;
  const late =
    {
      one_late: tooth,
      one_cam_late: tooth,
      one_early: -tooth,
      two_late: 2 * tooth,
      worn: WORN * tooth,
    }[fault as string] ?? 0;
  const others = Array.from({ length: (cams ?? 1) - 1 }, (_, k) => ({
    cam: camOf(engine, k + 1),
    late: fault === 'one_cam_late' ? 0 : late,
  }));
  const capture = simulateCapture({
    seed,
    teeth: teeth ?? USUAL,
    cam: camOf(engine),
    late,
    others,
    rpm: 240,
    ripple: 0.15,
    cycles: ask.cycles ?? 8,
    rateHz: rateHz ?? 10_000,
    crank: 'swing',
    upsideDown: ask.crankSwapped ?? false,
    noise: 0.04,
    jitterDeg: 0.08,
    hum: 0.05,
    camUpsideDown: fault === 'upside_down',
    phaser: fault === 'phaser' ? 8 : 0,
  });
  return writeCapture(capture, DIALECTS[dialect]);
}
