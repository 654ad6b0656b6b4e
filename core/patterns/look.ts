import { livesOf } from './expected';
import { kaplanMeier, medianRanks, type PlottedFailure } from './plotted';
import { competingModes, twoPopulations } from './populations';
import { PATTERN_LIMITS } from './limits';
import type { Population, Return } from './population';
import { garwood, type Interval } from './rates';
import { type SignalReading, readingsOf, type Suspicion } from './readings';
import { faultFigures, type FaultRow, isAlarm, lotFigures, type LotRow, scanAll } from './scan';
import { fitWeibull, type WeibullError, type WeibullFit } from './weibull';
import { likelihoodInterval, waldInterval } from './weibull-bounds';

/** Rows of each table that are shown with their figures. */
const MOST_ROWS = 60;
type LotLine = LotRow & { ratio: number; interval: Interval };
export type FaultLine = FaultRow & ReturnType<typeof faultFigures>;
type KitLine = {
  kit: string;
  lots: number;
  sold: number;
  returns: number;
  per: number;
  interval: Interval;
};
/** Something that stands out, with the three ways to read it, the likeliest first. */
export type Signal = { id: string; about: Suspicion; readings: SignalReading[] } & (
  | { kind: 'lot'; row: LotLine }
  | { kind: 'shop' | 'step'; row: FaultLine }
);
/** Counts of one point each for a chart: how many there were, how many of it were returns or faults. */
export type ChartPoint = { name: string; n: number; k: number; expected: number; alarm: boolean };
/** What undecidable cases lacked, and what they cost us together. */
type Lacked = { missing: string; cases: string[]; cost: number };
export type Looked = {
  signals: Signal[];
  lots: LotLine[];
  shops: FaultLine[];
  steps: FaultLine[];
  kits: KitLine[];
  /** Every lot by what was expected of it, every workshop by its returns. */
  lotPoints: (ChartPoint & { kit: string; lot: string })[];
  shopPoints: ChartPoint[];
  lacked: Lacked[];
  sold: number;
  returns: number;
  strays: number;
};

/** Everything that a population shows at once. */
export function lookThrough(p: Population, tell: (share: number) => void = () => undefined): Looked {
  const scan = scanAll(p, (s) => tell(0.7 * s));
  const returns = [...p.lots.flatMap((l) => l.returns), ...p.strays];
  // what is an alarm is shown, however many there are: rows come the plainest first
  const shown = <T extends { q: number }>(rows: readonly T[]): T[] =>
    rows.filter((r, i) => i < MOST_ROWS || isAlarm(r));
  const lots = shown(scan.lots).map((r) => ({ ...r, ...lotFigures(r) }));
  const fault = (r: FaultRow): FaultLine => ({ ...r, ...faultFigures(r) });
  const [shops, steps] = [scan.shops, scan.steps].map((rows) => shown(rows).map(fault)) as [
    FaultLine[],
    FaultLine[],
  ];
  const signals = [
    ...lots.filter(isAlarm).map(
      (row): Signal => ({
        id: `lot ${row.kit} ${row.lot}`,
        kind: 'lot',
        row,
        about: { kit: row.kit },
        readings: readingsOf(p, { kit: row.kit }),
      }),
    ),
    ...[...shops, ...steps].filter(isAlarm).map((row): Signal => {
      const about = { code: row.code, step: row.step };
      const kind = row.shop === undefined ? ('step' as const) : ('shop' as const);
      return {
        id: `${kind} ${row.shop ?? row.kit ?? ''} ${row.code} ${row.step}`,
        kind,
        row,
        about,
        readings: readingsOf(p, about),
      };
    }),
  ];
  tell(1);
  return {
    signals,
    lots,
    shops,
    steps,
    kits: kitsOf(p),
    lotPoints: scan.lots.map((r) => ({
      name: `${r.kit} ${r.lot}`,
      kit: r.kit,
      lot: r.lot,
      n: r.sold,
      k: r.returns,
      expected: r.expected,
      alarm: isAlarm(r),
    })),
    shopPoints: shopPoints(returns, new Set(shops.filter(isAlarm).map((r) => r.shop))),
    lacked: lackedOf(returns),
    sold: p.lots.reduce((s, l) => s + l.sold, 0),
    returns: returns.length,
    strays: p.strays.length,
  };
}

/** Returns per thousand sold of every kit, exactly. */
function kitsOf(p: Population): KitLine[] {
  const by = new Map<string, { lots: number; sold: number; returns: number }>();
  for (const l of p.lots) {
    const k = by.get(l.kit) ?? { lots: 0, sold: 0, returns: 0 };
    by.set(l.kit, { lots: k.lots + 1, sold: k.sold + l.sold, returns: k.returns + l.returns.length });
  }
  return [...by]
    .map(([kit, k]): KitLine => {
      const { from, to } = garwood(k.returns);
      const per = (n: number) => (k.sold > 0 ? (1000 * n) / k.sold : NaN);
      return { kit, ...k, per: per(k.returns), interval: { from: per(from), to: per(to) } };
    })
    .sort((a, b) => b.per - a.per);
}

/** Workshops by how many of their returns are laid to the fitting. */
function shopPoints(returns: readonly Return[], alarms: ReadonlySet<string | undefined>): ChartPoint[] {
  const by = new Map<string, { n: number; k: number }>();
  for (const r of returns) {
    if (r.shop === '') continue;
    const s = by.get(r.shop) ?? { n: 0, k: 0 };
    by.set(r.shop, { n: s.n + 1, k: s.k + (r.faults.length > 0 ? 1 : 0) });
  }
  const all = [...by.values()].reduce((s, x) => ({ n: s.n + x.n, k: s.k + x.k }), { n: 0, k: 0 });
  return [...by].map(([name, s]) => ({
    name,
    ...s,
    expected: all.n > 0 ? (s.n * all.k) / all.n : 0,
    alarm: alarms.has(name),
  }));
}

/** What undecidable cases lacked, the dearest first: asked for first, it would have saved the most. */
function lackedOf(returns: readonly Return[]): Lacked[] {
  const by = new Map<string, Lacked>();
  for (const r of returns)
    for (const missing of r.missing ?? []) {
      const l = by.get(missing) ?? { missing, cases: [], cost: 0 };
      l.cases.push(r.id);
      l.cost += r.cost;
      by.set(missing, l);
    }
  return [...by.values()].sort((a, b) => b.cost - a.cost);
}

type LifeFigures = Record<'shape' | 'scale' | 'b10', { value: number; wald: Interval; likelihood: Interval }>;
export type Life = {
  failures: number;
  running: number;
  fit: WeibullFit | undefined;
  refused: WeibullError | undefined;
  figures: LifeFigures | undefined;
  /** On probability paper, by rank and by survival. */
  ranks: PlottedFailure[];
  survived: PlottedFailure[];
  modes: { mode: string; failures: number; fit: WeibullFit | undefined }[];
  /** The share that fails early, where two populations are plain. */
  two: { share: number; early: number; late: number } | undefined;
};

/** The life of all units of a kit, or of one lot of it, in months of running. */
export function lifeOf(p: Population, kit: string, lot?: string): Life {
  const lots = p.lots.filter((l) => l.kit === kit && (lot === undefined || l.lot === lot));
  const rows = livesOf(lots, p);
  const fit = fitWeibull(rows);
  const weigh = (of: (r: (typeof rows)[number]) => boolean) =>
    rows.reduce((s, r) => s + (of(r) ? (r.n ?? 1) : 0), 0);
  const figure = (of: Parameters<typeof waldInterval>[1], f: WeibullFit) => {
    const { value, ...wald } = waldInterval(f, of);
    return { value, wald, likelihood: likelihoodInterval(rows, f, of) };
  };
  const two = fit.ok ? twoPopulations(rows, fit.value) : undefined;
  return {
    failures: weigh((r) => r.to < Infinity),
    running: weigh((r) => r.to === Infinity),
    fit: fit.ok ? fit.value : undefined,
    refused: fit.ok ? undefined : fit.error,
    figures: fit.ok
      ? {
          shape: figure({ of: 'shape' }, fit.value),
          scale: figure({ of: 'scale' }, fit.value),
          b10: figure({ of: 'quantile', share: 0.1 }, fit.value),
        }
      : undefined,
    ranks: medianRanks(rows),
    survived: kaplanMeier(rows),
    modes: competingModes(rows).map((m) => ({
      mode: m.mode,
      failures: weigh((r) => r.to < Infinity && (r.mode ?? '') === m.mode),
      fit: m.fit.ok ? m.fit.value : undefined,
    })),
    two:
      two?.mixture && two.better > PATTERN_LIMITS.twoFrom.better
        ? {
            share: two.mixture.share,
            early: Math.min(two.mixture.early.scale, two.mixture.late.scale),
            late: Math.max(two.mixture.early.scale, two.mixture.late.scale),
          }
        : undefined,
  };
}
