import { randomFrom } from '@core/quantity/random';
import { simulateCapture, type SimulatedEdge } from './capture';
import { type CaptureDialect, writeCapture } from './capture-file';

/** What may be wrong with the engine that the box is clipped to. */
export const BOX_FAULTS = [
  'good',
  'one_late',
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

/** Edges of an invented cam wheel, the same for the same engine. */
export function camOf(engine: string): SimulatedEdge[] {
  const random = randomFrom(
    [...engine].reduce((s, c) => Math.imul(s ^ c.charCodeAt(0), 16777619), 2166136261),
  );
  const out: SimulatedEdge[] = [];
  for (let deg = 20 + 40 * random(); deg < 660; ) {
    const width = 30 + 60 * random();
    out.push({ deg, rising: true }, { deg: deg + width, rising: false });
    deg += width + 50 + 70 * random();
  }
  return out;
}

export type BoxAsk = {
  engine: string;
  fault: BoxFault;
  dialect: BoxDialect;
  seed: number;
  /** Teeth of the drive's crank wheel. */
  zCrank: number;
};

/** What an export of a simulated capture box holds: a cranking engine for a few seconds, its crank on a wheel of sixty less two, its cam. */
export function boxCapture({ engine, fault, dialect, seed, zCrank }: BoxAsk): string {
  const tooth = 360 / zCrank;
  const late =
    { one_late: tooth, one_early: -tooth, two_late: 2 * tooth, worn: WORN * tooth }[fault as string] ?? 0;
  const teeth = Array.from({ length: 60 }, (_, i) => i < 58);
  const capture = simulateCapture({
    seed,
    teeth,
    cam: camOf(engine),
    late,
    rpm: 240,
    ripple: 0.15,
    cycles: 8,
    rateHz: 10_000,
    crank: 'swing',
    noise: 0.04,
    jitterDeg: 0.08,
    hum: 0.05,
    camUpsideDown: fault === 'upside_down',
    phaser: fault === 'phaser' ? 8 : 0,
  });
  return writeCapture(capture, DIALECTS[dialect]);
}
