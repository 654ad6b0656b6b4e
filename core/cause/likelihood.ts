import * as z from 'zod';
import type { FindingValue } from '@core/bench/finding';
import { normalCdf, normalDensity } from '@core/quantity/normal';
import { own } from '@core/quantity/own';

z.config({ jitless: true });
const Share = z.number().gt(0).lt(1);
const Common = {
  finding: z.string(),
  /** Observables that have to be filed to get it; the finding's own key unless given. */
  inputs: z.array(z.string()).optional(),
  /** Findings of one group say the same thing: only the strongest of them counts. */
  group: z.string(),
};
const of = <T extends z.ZodType>(type: T) => ({
  /** Among returns at large, and among returns with a given cause where it differs. */
  background: type,
  causes: z.record(z.string(), type),
});
const Normal = z.strictObject({ mean: z.number(), sd: z.number().positive() });
const Life = z.strictObject({ shape: z.number().positive(), scale: z.number().positive() });
export type LifeTime = z.infer<typeof Life>;

/** How likely each value of a finding is, given a cause and at large. */
export const EvidenceSchema = z.discriminatedUnion('kind', [
  /** Grades: the share of each. */
  z.strictObject({
    kind: z.literal('table'),
    ...Common,
    /** Values that need no explanation. */
    normal: z.array(z.string()),
    ...of(z.record(z.string(), Share)),
  }),
  /** A number by bands between edges, even within a band: the share of each band. */
  z.strictObject({
    kind: z.literal('bands'),
    ...Common,
    edges: z.array(z.number()).min(2),
    /** Values in this range need no explanation. */
    normal: z.tuple([z.number(), z.number()]),
    ...of(z.array(Share).min(1)),
  }),
  /** A number that scatters about a mean. */
  z.strictObject({
    kind: z.literal('normal'),
    ...Common,
    normal: z.tuple([z.number(), z.number()]),
    ...of(Normal),
  }),
  /** A name that speaks for one cause: its share with that cause, and at large. What it names none for says nothing. */
  z.strictObject({
    kind: z.literal('named'),
    ...Common,
    hit: Share,
    background: Share,
    names: z.record(z.string(), z.string()),
  }),
  /** A run until failure: Weibull, in the unit of the finding. No run needs an explanation. */
  z.strictObject({ kind: z.literal('life'), ...Common, ...of(Life) }),
]);
export type EvidenceRow = z.infer<typeof EvidenceSchema>;

/** Log density of a Weibull life at x > 0. Standard form, shape k, scale λ. */
export function logWeibull(x: number, { shape, scale }: LifeTime): number {
  const z = x / scale;
  return Math.log(shape / scale) + (shape - 1) * Math.log(z) - z ** shape;
}

/** Share that runs further. */
const survival = (x: number, { shape, scale }: LifeTime): number =>
  Math.exp(-((Math.max(0, x) / scale) ** shape));

/** Slices of a run known within an uncertainty, and how many standard uncertainties either way they cover. */
const SLICES = { count: 80, reach: 5 };

/**
 * Log of a life's density at a run that is only known within a standard uncertainty: the density weighed with the normal
 * error of the run, over positive runs. Slices by the distribution function, F(x) = 1 − exp(−(x/λ)^k), so that a density
 * without bound at zero is no trouble.
 */
export function logLife({ x, u }: { x: number; u: number }, life: LifeTime): number {
  if (!(u > 0)) return logWeibull(x, life);
  const from = Math.max(0, x - SLICES.reach * u);
  const width = (x + SLICES.reach * u - from) / SLICES.count;
  let before = survival(from, life);
  let sum = 0;
  for (let k = 0; k < SLICES.count; k++) {
    const after = survival(from + (k + 1) * width, life);
    sum += (before - after) * normalDensity((from + (k + 0.5) * width - x) / u);
    before = after;
  }
  return logOf(sum / u);
}

const logOf = (x: number): number => Math.log(Math.max(x, Number.MIN_VALUE));

/** Density, or share, of a number under bands. */
function bandsLog(edges: readonly number[], shares: readonly number[], v: Numeric): number {
  let sum = 0;
  shares.forEach((share, i) => {
    const [a, b] = [edges[i]!, edges[i + 1]!];
    const density = share / (b - a);
    if ('from' in v) sum += density * Math.max(0, Math.min(b, v.to) - Math.max(a, v.from));
    else if (v.u > 0) sum += density * (normalCdf((b - v.x) / v.u) - normalCdf((a - v.x) / v.u));
    else if (v.x >= a && (v.x < b || i === shares.length - 1)) sum += v.x > b ? 0 : density;
  });
  return logOf(sum);
}

type Numeric = Exclude<FindingValue, string>;
const normalLog = ({ mean, sd }: z.infer<typeof Normal>, v: Numeric): number => {
  if ('from' in v) return logOf(normalCdf((v.to - mean) / sd) - normalCdf((v.from - mean) / sd));
  const spread = Math.hypot(sd, v.u);
  return -0.5 * ((v.x - mean) / spread) ** 2 - Math.log(spread * Math.sqrt(2 * Math.PI));
};
const lifeLog = (life: LifeTime, v: Numeric): number =>
  'from' in v ? logOf(survival(v.from, life) - survival(v.to, life)) : logLife(v, life);

/** Findings of one group say the same thing. Names that speak for one cause are a group of their own. */
export const groupOf = (row: EvidenceRow, v: FindingValue): string =>
  row.kind === 'named' && typeof v === 'string' ? `${row.group} ${own(row.names, v) ?? ''}` : row.group;

/** Can a row weigh such a value at all? A grade that it does not list, or a number outside its bands, says nothing. */
export function weighs(row: EvidenceRow, v: FindingValue): boolean {
  if (row.kind === 'table') return typeof v === 'string' && own(row.background, v) !== undefined;
  if (row.kind === 'named') return typeof v === 'string' && own(row.names, v) !== undefined;
  if (typeof v === 'string') return false;
  if (row.kind !== 'bands') return true;
  const [low, high] = [row.edges[0]!, row.edges.at(-1)!];
  return 'from' in v ? v.from < high && v.to > low : v.x >= low && v.x <= high;
}

/**
 * How much likelier each cause makes a value than it is at large, natural log; 0 where the row says nothing of the cause. What
 * holds at large is computed once.
 */
export function logRatios(row: EvidenceRow, v: FindingValue): (cause: string) => number {
  if (!weighs(row, v)) return () => 0;
  switch (row.kind) {
    case 'table':
      return against(row.causes, row.background, (shares) => Math.log(own(shares, v as string) ?? 1));
    case 'named': {
      const named = own(row.names, v as string);
      const nats = Math.log(row.hit / row.background);
      return (cause) => (cause === named ? nats : 0);
    }
    case 'bands':
      return against(row.causes, row.background, (shares) => bandsLog(row.edges, shares, v as Numeric));
    case 'normal':
      return against(row.causes, row.background, (d) => normalLog(d, v as Numeric));
    case 'life':
      return against(row.causes, row.background, (d) => lifeLog(d, v as Numeric));
  }
}

function against<T>(causes: Record<string, T>, background: T, log: (d: T) => number) {
  const base = log(background);
  return (cause: string): number => {
    const given = own(causes, cause);
    return given === undefined ? 0 : log(given) - base;
  };
}

/** Does a value need no explanation? */
export function isNormal(row: EvidenceRow, v: FindingValue): boolean {
  if (row.kind === 'life') return true;
  if (row.kind === 'table') return typeof v !== 'string' || row.normal.includes(v);
  if (row.kind === 'named') return false;
  if (typeof v === 'string') return true;
  const [low, high] = row.normal;
  return 'from' in v ? v.from <= high && v.to >= low : v.x + 2 * v.u >= low && v.x - 2 * v.u <= high;
}

/** Cells into which a number is cut when it is asked what a look would tell. */
const CELLS = 16;

/**
 * What a look can bring, as cells that rule each other out: the share of each under a cause, or at large. Numbers are cut
 * into cells that are equally likely at large.
 */
export function cellsOf(row: EvidenceRow): (cause: string | undefined) => readonly number[] {
  const given = <T>(causes: Record<string, T>, background: T, cause: string | undefined): T =>
    (cause === undefined ? undefined : own(causes, cause)) ?? background;
  switch (row.kind) {
    case 'table': {
      const values = Object.keys(row.background);
      return (cause) => values.map((v) => given(row.causes, row.background, cause)[v] ?? 0);
    }
    case 'named':
      // What a paper may say is no look that could be planned.
      return () => [1];
    case 'bands':
      return (cause) => given(row.causes, row.background, cause);
    case 'normal': {
      const { mean, sd } = row.background;
      const edges = quantiles((q) => mean + sd * normalQuantile(q));
      return (cause) => {
        const d = given(row.causes, row.background, cause);
        return between(edges, (x) => normalCdf((x - d.mean) / d.sd));
      };
    }
    case 'life': {
      const { shape, scale } = row.background;
      const edges = quantiles((q) => scale * (-Math.log(1 - q)) ** (1 / shape));
      return (cause) => {
        const d = given(row.causes, row.background, cause);
        return between(edges, (x) => 1 - survival(x, d));
      };
    }
  }
}

const quantiles = (at: (q: number) => number): number[] =>
  Array.from({ length: CELLS - 1 }, (_, i) => at((i + 1) / CELLS));
const between = (edges: readonly number[], cdf: (x: number) => number): number[] => {
  const at = [0, ...edges.map(cdf), 1];
  return at.slice(1).map((p, i) => p - at[i]!);
};

/** Quantile of the standard normal, by halving; 1e-12. */
function normalQuantile(q: number): number {
  let [low, high] = [-10, 10];
  for (let k = 0; k < 60; k++) {
    const mid = (low + high) / 2;
    if (normalCdf(mid) < q) low = mid;
    else high = mid;
  }
  return (low + high) / 2;
}
