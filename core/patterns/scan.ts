import { expectedByLot } from './expected';
import { PATTERN_LIMITS } from './limits';
import { type Lot, lotKey, type Population, type Return } from './population';
import {
  atLeastOf,
  type ComparedRates,
  compareRates,
  clopperPearson,
  type Counted,
  falseDiscovery,
  type Interval,
} from './rates';
import { shrink, type Shrunk, type Spread, ratioSpread } from './shrink';

/** A case with its number. */
type CaseNamed = { id: string; tag: string };
/** One lot against the others of its kit. */
export type LotRow = {
  kit: string;
  lot: string;
  sold: number;
  returns: number;
  /** Returns to be expected at the life of all lots of the kit. */
  expected: number;
  /** The same of all other lots of the kit. */
  others: Counted;
  /** Its first units began to run of late: such lots are few, and looked at by themselves. */
  young: boolean;
  /** Chance of as many or more, were it as all others; and the smallest share of false alarms at which it is one. */
  p: number;
  q: number;
  cases: readonly CaseNamed[];
};
/** One fault of one workshop, or of one kit, against the same of all others. */
export type FaultRow = {
  shop?: string;
  kit?: string;
  code: string;
  step: string;
  /** Returns with that fault, of all returns of that workshop or kit. */
  faults: number;
  of: number;
  /** The same of all others. */
  others: { faults: number; of: number };
  /** How much workshops, or kits, differ in this fault. */
  spread: Spread;
  /** Workshops that it happened at. */
  shops: number;
  p: number;
  q: number;
  cases: readonly CaseNamed[];
};
export type Scan = { lots: LotRow[]; shops: FaultRow[]; steps: FaultRow[]; returns: number; strays: number };
/** The three looks share what may be false. */
const EACH = PATTERN_LIMITS.falseShare / 3;
/** A lot of which nothing ran yet expects nothing. */
const LEAST_EXPOSURE = 1e-12;

/** Chance of as many or more, both sides having one rate. */
function chanceOf(mine: Counted, others: Counted): number {
  const share = mine.exposure / (mine.exposure + others.exposure);
  return atLeastOf(mine.returns, mine.returns + others.returns, share);
}

/** A lot's rate by that of the others, with its exact interval. */
export const lotFigures = (r: LotRow): ComparedRates =>
  compareRates({ returns: r.returns, exposure: Math.max(r.expected, LEAST_EXPOSURE) }, r.others);

/** Share of a fault with its exact interval, that of all others, and the ratio to it, shrunk towards all. */
export function faultFigures(r: FaultRow): {
  share: number;
  interval: Interval;
  otherShare: number;
  shrunk: Shrunk;
} {
  const all = (r.faults + r.others.faults) / (r.of + r.others.of);
  return {
    share: r.faults / r.of,
    interval: clopperPearson(r.faults, r.of),
    otherShare: r.others.faults / Math.max(1, r.others.of),
    shrunk: shrink({ returns: r.faults, expected: all * r.of }, r.spread),
  };
}

/** One lot against the others of its kit, as it was before a return: its own case says nothing about itself. */
export function lotWithout(p: Population, kit: string, lot: string, caseId: string): LotRow | undefined {
  const key = lotKey(kit, lot);
  const own = p.lots
    .filter((l) => l.kit.toUpperCase() === kit.trim().toUpperCase())
    .map((l) => ({ ...l, returns: l.returns.filter((r) => r.id !== caseId) }));
  return own.length < 2 ? undefined : lotsOfKit(own, p).find((r) => lotKey(r.kit, r.lot) === key);
}

export const isAlarm = (r: { q: number }): boolean => r.q <= EACH;

/** Looks at every lot, every workshop and every step of every kit; progress by share. */
export function scanAll(p: Population, tell: (share: number) => void = () => undefined): Scan {
  const byKit = groupBy(p.lots, (l) => l.kit);
  const lots: LotRow[] = [];
  let done = 0;
  for (const own of byKit.values()) {
    lots.push(...lotsOfKit(own, p));
    tell((0.8 * ++done) / byKit.size);
  }
  const families = [true, false]
    .map((young) => lots.filter((r) => r.young === young))
    .filter((f) => f.length > 0);
  for (const f of families)
    withQ(f, f.length, (r) => (r.returns < PATTERN_LIMITS.leastReturns ? 1 : r.p), families.length);
  lots.sort(plainest);
  const returns = [...p.lots.flatMap((l) => l.returns), ...p.strays];
  const shops = faultRows(returns, (r) => r.shop, 'shop');
  const steps = faultRows(returns, (r) => r.kit, 'kit');
  withQ(shops.rows, shops.tests, (r) => r.p);
  withQ(steps.rows, steps.tests, (r) => (r.shops < PATTERN_LIMITS.manyShops ? 1 : r.p));
  tell(1);
  return { lots, shops: shops.rows, steps: steps.rows, returns: returns.length, strays: p.strays.length };
}

function lotsOfKit(own: readonly Lot[], p: Population): LotRow[] {
  const expected = expectedByLot(own, p);
  const all = own.reduce((s, l) => s + l.returns.length, 0);
  const sum = expected.reduce((s, e) => s + e, 0);
  return own.map((l, i): LotRow => {
    const mine = expected[i] ?? 0;
    const others = { returns: all - l.returns.length, exposure: Math.max(sum - mine, LEAST_EXPOSURE) };
    return {
      kit: l.kit,
      lot: l.lot,
      sold: l.sold,
      returns: l.returns.length,
      expected: mine,
      others,
      young: p.now - Math.min(...l.began.keys()) <= PATTERN_LIMITS.youngMonths,
      p: chanceOf({ returns: l.returns.length, exposure: mine }, others),
      q: 1,
      cases: l.returns.map(named),
    };
  });
}

function faultRows(
  returns: readonly Return[],
  by: (r: Return) => string,
  as: 'shop' | 'kit',
): { rows: FaultRow[]; tests: number } {
  const told = returns.filter((r) => by(r) !== '');
  const groups = groupBy(told, by);
  const totals = new Map<string, number>();
  for (const r of told) for (const k of faultsIn(r)) totals.set(k, (totals.get(k) ?? 0) + 1);
  const rows: FaultRow[] = [];
  for (const [fault, total] of totals) {
    const [code = '', step = ''] = fault.split('\t');
    const all = [...groups].map(([name, own]) => {
      const cases = own.filter((r) => faultsIn(r).has(fault));
      return {
        name,
        of: own.length,
        cases,
        returns: cases.length,
        expected: (total * own.length) / told.length,
      };
    });
    const spread = ratioSpread(all);
    for (const g of all) {
      if (g.returns === 0) continue;
      const others = { faults: total - g.returns, of: told.length - g.of };
      rows.push({
        [as]: g.name,
        code,
        step,
        faults: g.returns,
        of: g.of,
        others,
        spread,
        shops: new Set(g.cases.map((r) => r.shop).filter((s) => s !== '')).size,
        p: chanceOf(
          { returns: g.returns, exposure: g.of },
          { returns: others.faults, exposure: Math.max(others.of, LEAST_EXPOSURE) },
        ),
        q: 1,
        cases: g.cases.map(named),
      });
    }
  }
  return { rows, tests: groups.size * totals.size };
}
const named = ({ id, tag }: Return): CaseNamed => ({ id, tag });
const faultsIn = (r: Return): Set<string> => new Set(r.faults.map((f) => `${f.code}\t${f.step}`));

/** Chances become shares of false alarms, the plainest first. @param families that share what may be false among them */
function withQ<T extends { p: number; q: number }>(
  rows: T[],
  tests: number,
  p: (r: T) => number,
  families = 1,
): void {
  const qs = falseDiscovery(rows.map(p), tests);
  rows.forEach((r, i) => (r.q = Math.min(1, families * (qs[i] ?? 1))));
  rows.sort(plainest);
}
const plainest = (a: { p: number; q: number }, b: { p: number; q: number }): number => a.q - b.q || a.p - b.p;

function groupBy<T>(all: readonly T[], by: (x: T) => string): Map<string, T[]> {
  const out = new Map<string, T[]>();
  for (const x of all) {
    const key = by(x);
    const list = out.get(key);
    if (list) list.push(x);
    else out.set(key, [x]);
  }
  return out;
}
