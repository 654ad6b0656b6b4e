import { type CaptureOf, simulateCapture } from '@core/simulate/capture';
import { randomFrom } from '@core/quantity/random';
import { compareTraces } from './compare';
import { wrapped } from './cycle';
import type { Capture } from './read-capture';
import { readTrace, type Trace } from './trace';
import { arrangementsOf, periodDeg, readWheel, USUAL_WHEELS } from './wheel';

/** A pair of captures of stand-ins, of one engine, and what came of reading it. Degrees of the crank. */
type Pair = { name: string; wheel: string; sensors: string; late: number };
export type PairOutcome = Pair &
  ({ read: true; off: number; half: number; falseTooth: boolean } | { read: false; code: string });

const HEAD = { separator: ',', decimal: '.' as const, timeUnit: 's', units: [], time: undefined };
const captureOf = (c: CaptureOf): Capture => {
  const s = simulateCapture(c);
  const channels = [
    { name: 'cam', samples: s.cam },
    { name: 'crank', samples: s.crank },
  ];
  return { channels, startS: 0, stepS: s.stepS, gaps: [], refused: [], head: HEAD };
};

/**
 * The k-th of any number of pairs, the same each time: every usual wheel and pair of sensors, from one and a half cycles on,
 * starters that pulse, speeds that differ and drift, noise, hum, drop-outs, spikes, clipped swings, leads swapped.
 */
function pairOf(
  k: number,
  seed = 1,
): { pair: Pair; test: CaptureOf; good: CaptureOf; teeth: readonly boolean[] } {
  const random = randomFrom(seed * 1_000_003 + k);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const notation = pick(USUAL_WHEELS);
  const read = readWheel(notation);
  if (!read.ok) throw new Error(notation);
  const teeth = pick(arrangementsOf(read.value)).teeth;
  const crank = pick(['square', 'swing'] as const);
  const camKind = pick(['square', 'swing'] as const);
  const pitch = 360 / (18 + Math.floor(8 * random()));
  const late = pick([0, pitch, -pitch, 2 * pitch, 14 * (random() - 0.5), pitch + 6 * (random() - 0.5)]);
  const cam: CaptureOf['cam'][number][] = [];
  for (let deg = 20 + 60 * random(); deg < 620; ) {
    const width = 25 + 60 * random();
    cam.push({ deg, rising: true }, { deg: deg + width, rising: false });
    deg += width + 40 + 160 * random();
  }
  const ripple = random() < 0.3 ? 0.04 : 0.08 + 0.24 * random();
  const compressions = pick([3, 4, 4, 6]);
  const fast = ripple < 0.05;
  const one = (s: number): CaptureOf => {
    const rateHz = pick([10_000, 20_000, 25_000]);
    return {
      seed: s,
      teeth,
      cam,
      late: 0,
      rpm: fast ? 650 + 250 * random() : 190 + 110 * random(),
      ripple,
      compressions,
      drift: random() < 0.2 ? 0.4 * (random() - 0.5) : 0,
      cycles: pick([1.3, 1.8, 2.4, 4, 7]),
      rateHz,
      crank,
      camKind,
      noise: pick([0.01, 0.02, 0.05, 0.12]),
      jitterDeg: pick([0, 0, 0.03]),
      ...(crank === 'swing' && random() < 0.2 ? { hum: 0.3 } : {}),
      ...(crank === 'swing' && random() < 0.1 ? { clip: 1.4 } : {}),
      ...(random() < 0.1 ? { dropouts: 1 } : {}),
      ...(random() < 0.2 ? { spikes: 3 } : {}),
      // Without a gap nothing tells which way the crank's wires are on.
      ...(crank === 'swing' && !teeth.every(Boolean) && random() < 0.25 ? { upsideDown: true } : {}),
      ...(camKind === 'swing' && random() < 0.25 ? { camUpsideDown: true } : {}),
    };
  };
  const pair = { name: `${k}`, wheel: notation, sensors: `${crank}/${camKind}`, late };
  return { pair, test: { ...one(2 * k + 7), late }, good: one(2 * k + 8), teeth };
}

/** Reads a pair as a specialist would who knows the wheel, or nothing. */
export function readPair(k: number, told: boolean, seed = 1): PairOutcome {
  const { pair, test, good, teeth } = pairOf(k, seed);
  const wheel = readWheel(pair.wheel);
  const read = (c: CaptureOf): Trace | string => {
    const t = readTrace(captureOf(c), told && wheel.ok ? wheel.value : undefined);
    return t.ok ? t.value : 'error' in t.error ? `${t.error.code} ${t.error.error.code}` : t.error.code;
  };
  const [a, b] = [read(test), read(good)];
  if (typeof a === 'string') return { ...pair, read: false, code: a };
  if (typeof b === 'string') return { ...pair, read: false, code: b };
  const c = compareTraces(a, 0, b, 0);
  if (!c.ok) return { ...pair, read: false, code: c.error.code };
  const off = wrapped(c.value.deg - pair.late, periodDeg({ teeth }));
  const half = (c.value.high - c.value.low) / 2;
  return { ...pair, read: true, off, half, falseTooth: Math.abs(off) > 4 && Math.abs(off) > half };
}
