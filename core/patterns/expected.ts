import type { LifeRow } from './weibull-likelihood';
import { ageOf, type Lot, type Population } from './population';

/** Units of a lot that ran through each month of age: those that began long enough ago, the last month as far as it is over. */
function atRisk(lot: Pick<Lot, 'began'>, { now, part }: Pick<Population, 'now' | 'part'>): number[] {
  const out: number[] = [];
  for (const [month, units] of lot.began)
    for (let age = 0; age <= now - month; age++)
      out[age] = (out[age] ?? 0) + units * (age === now - month ? part : 1);
  return Array.from(out, (v) => v ?? 0);
}

/**
 * What each lot of a kit was to be expected to return had all its lots one life: at every age, the share of all running units
 * that came back at it, times those of the lot. Returns of unknown age count at the kit's mean rate. Their sum is that of the
 * returns (indirect standardisation): a young lot is not held against an old one.
 */
export function expectedByLot(
  lots: readonly Lot[],
  p: Pick<Population, 'now' | 'part' | 'assumed'>,
): number[] {
  const risk = lots.map((l) => atRisk(l, p));
  const hazard = hazardOf(lots, risk, p);
  return risk.map((r) => r.reduce((s, n, age) => s + n * hazard(age), 0));
}

/** Share of running units that comes back at each age, months, by what all these lots show; returns of unknown age at their mean rate. */
function hazardOf(
  lots: readonly Lot[],
  risk: readonly (readonly number[])[],
  p: Pick<Population, 'assumed'>,
): (age: number) => number {
  const all: number[] = [];
  for (const r of risk) r.forEach((n, age) => (all[age] = (all[age] ?? 0) + n));
  const failed: number[] = [];
  let unknown = 0;
  for (const r of lots.flatMap((l) => l.returns)) {
    const age = ageOf(r, p.assumed);
    // An age that no unit can have had is a wrong date, or less time on the shelf than is taken for granted.
    if (age === undefined || !((all[age] ?? 0) > 0)) unknown++;
    else failed[age] = (failed[age] ?? 0) + 1;
  }
  const months = all.reduce((s, n) => s + n, 0);
  return (age) => {
    const at = all[age] ?? 0;
    return (at > 0 ? (failed[age] ?? 0) / at : 0) + (months > 0 ? unknown / months : 0);
  };
}

/**
 * What a lot was to be expected to return in each month since its first units ran, by the life of the other lots of its kit: units
 * of each age in that month, times the share that comes back at it. Nothing where it is the only lot of its kit.
 * @returns months since the year 0, in order, the last as far as it is over
 */
export function expectedByMonth(lot: Lot, p: Population): { month: number; expected: number }[] {
  const others = p.lots.filter((l) => l.kit === lot.kit && l !== lot);
  const first = Math.min(...lot.began.keys());
  if (others.length === 0 || !Number.isFinite(first)) return [];
  const hazard = hazardOf(
    others,
    others.map((l) => atRisk(l, p)),
    p,
  );
  return Array.from({ length: p.now - first + 1 }, (_, i) => {
    const month = first + i;
    const over = month === p.now ? p.part : 1;
    let expected = 0;
    for (const [began, units] of lot.began)
      if (began <= month) expected += units * over * hazard(month - began);
    return { month, expected };
  });
}

/**
 * Lives in months as rows for a fit: a return within its month, by its cause as mode; what was sold and did not come back is
 * still running since it began. Returns of unknown age are left out, and their units with them.
 */
export function livesOf(
  lots: readonly Lot[],
  p: Pick<Population, 'now' | 'part' | 'assumed'>,
): (LifeRow & { mode?: string })[] {
  const rows: (LifeRow & { mode?: string })[] = [];
  const running = new Map<number, number>();
  for (const lot of lots) {
    const left = new Map(lot.began);
    for (const r of lot.returns) {
      const age = ageOf(r, p.assumed);
      const began = age === undefined || r.failed === '' ? undefined : firstAt(left, p.now, p.now - age);
      if (began !== undefined) left.set(began, (left.get(began) ?? 0) - 1);
      if (age !== undefined) rows.push({ from: age, to: age + 1, mode: r.cause });
    }
    for (const [month, n] of left)
      if (n > 0) running.set(p.now + p.part - month, (running.get(p.now + p.part - month) ?? 0) + n);
  }
  for (const [months, n] of running) if (months > 0) rows.push({ from: months, to: Infinity, n });
  return gathered(rows);
}

/** A month of sale that still has a unit and is old enough: the youngest such. */
function firstAt(left: ReadonlyMap<number, number>, now: number, latest: number): number | undefined {
  let best: number | undefined;
  for (const [month, n] of left)
    if (n > 0 && month <= Math.min(now, latest) && (best === undefined || month > best)) best = month;
  return best;
}

/** Rows that say the same, as one. */
function gathered(rows: readonly (LifeRow & { mode?: string })[]): (LifeRow & { mode?: string })[] {
  const by = new Map<string, LifeRow & { mode?: string; n: number }>();
  for (const r of rows) {
    const key = `${r.from} ${r.to} ${r.mode ?? ''}`;
    const known = by.get(key);
    if (known) known.n += r.n ?? 1;
    else by.set(key, { ...r, n: r.n ?? 1 });
  }
  return [...by.values()];
}
