import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { normalFrom, randomFrom } from '@core/quantity/random';
import { DIMENSIONS } from '@core/quantity/units';
import data from './data/instruments.json' with { type: 'json' };

const InstrumentSchema = z.strictObject({
  key: z.string(),
  wording: z.string(),
  dimension: z.enum(DIMENSIONS),
  unit: z.string(),
  decimals: z.number().int().min(0),
  rateHz: z.number().positive().max(200),
  /** Least step of its display, and standard deviation of one reading, in its unit. */
  resolution: z.number().positive(),
  noise: z.number().nonnegative(),
  driftPerS: z.number(),
  /** Share of readings that do not come. */
  dropOut: z.number().min(0).max(0.5),
  /** What it reads: something at rest, a plunger under load, a cooling engine, a bolt being turned. */
  motion: z.enum(['steady', 'sinks', 'cools', 'peaks']),
  /** Where it begins, or what it reads at rest, in its unit. */
  from: z.number(),
});
export type SimulatedInstrument = Readonly<z.infer<typeof InstrumentSchema>>;

/** Stand-ins for the instruments of a bench. */
export const INSTRUMENTS: readonly SimulatedInstrument[] = z.array(InstrumentSchema).parse(data);

export type Simulation = {
  seed: number;
  /** Another value than the instrument's own, in its unit. */
  from?: number | undefined;
  /** Rate at which a plunger sinks, mm/s. */
  leakMmPerS?: number | undefined;
};

/** An air cushion of so much gives way first, mm, with this time constant, s. */
const CUSHION = { mm: 0.35, s: 1.2 };
/** A cooling engine: air around it, °C, and its time constant, s. */
const COOLING = { air: 20, s: 3600 };
/** Seconds in which a bolt is brought to its torque. */
const PULL_S = 4;

/** The truth that an instrument reads at a time, in its unit. */
export function truthAt(i: SimulatedInstrument, t: number, s: Omit<Simulation, 'seed'>): number {
  const from = s.from ?? i.from;
  switch (i.motion) {
    case 'steady':
      return from;
    case 'sinks':
      return from - (s.leakMmPerS ?? 0.01) * t - CUSHION.mm * (1 - Math.exp(-t / CUSHION.s));
    case 'cools':
      return COOLING.air + (from - COOLING.air) * Math.exp(-t / COOLING.s);
    case 'peaks':
      return from * Math.min(1, t / PULL_S);
  }
}

/**
 * What an instrument sends, line by line in its order: "t=1.20 7.412 mm", or nothing where a reading dropped out. The same seed sends the same.
 * @returns undefined for a reading that did not come
 */
export function lineAt(i: SimulatedInstrument, s: Simulation): (k: number) => string | undefined {
  const random = randomFrom(s.seed);
  return (k) => {
    const t = k / i.rateHz;
    const [lost, noise] = [random() < i.dropOut, normalFrom(random)];
    const value = truthAt(i, t, s) + i.driftPerS * t + i.noise * noise;
    const shown = Math.round(value / i.resolution) * i.resolution;
    return lost ? undefined : `t=${t.toFixed(3)} ${shown.toFixed(i.decimals)} ${i.unit}`;
  };
}

/** What an instrument says of itself when it is connected. */
export const greeting = (i: SimulatedInstrument): string =>
  `# ${i.wording}; resolution ${i.resolution} ${i.unit}`;
