import { expectedByLot } from './expected';
import type { Population, Return } from './population';

/** The three ways to read a signal. */
export type ReadingKind = 'lot' | 'shop' | 'design';
export type SignalReading = {
  kind: ReadingKind;
  /** What it accuses: a lot, a workshop, or a kit. */
  name: string;
  /** Returns of it among those of the signal, and how many it would have by its share of what is out there. */
  seen: number;
  of: number;
  expected: number;
  /** Its share among the three, all three held as likely before. */
  share: number;
};
/** What a signal is about: too many returns of a kit's lot, or one fault. */
export type Suspicion = { kit: string } | { code: string; step: string };

type Candidate = { name: string; seen: number; part: number };

/**
 * How much likelier so many are when one has a share of its own than when all have theirs: the likelihood ratio of a binomial,
 * less what is paid for choosing the best of many.
 */
function concentrated(all: readonly Candidate[], of: number): { best: Candidate | undefined; log: number } {
  let [best, log]: [Candidate | undefined, number] = [undefined, 0];
  for (const c of all) {
    const gain = logRatio(c.seen, of, c.part);
    if (gain > log) [best, log] = [c, gain];
  }
  return { best, log: log - Math.log(Math.max(1, all.length)) };
}
function logRatio(k: number, n: number, part: number): number {
  if (n === 0 || part <= 0 || part >= 1 || k / n <= part) return 0;
  const rest = n - k;
  return k * Math.log(k / (n * part)) + (rest > 0 ? rest * Math.log(rest / (n * (1 - part))) : 0);
}

/** One lot, one workshop, or the design with its sheet: weighed against each other by where the returns of a signal come from. */
export function readingsOf(p: Population, about: Suspicion): SignalReading[] {
  const all = [...p.lots.flatMap((l) => l.returns), ...p.strays];
  return 'code' in about ? ofFault(all, about) : ofRate(p, all, about.kit);
}

/** Too many returns of a kit: does one lot, one workshop, or the whole kit bring them? */
function ofRate(p: Population, all: readonly Return[], kit: string): SignalReading[] {
  const mine = all.filter((r) => r.kit === kit);
  const lots = p.lots.filter((l) => l.kit === kit);
  const expected = expectedByLot(lots, p);
  const sum = expected.reduce((s, e) => s + e, 0);
  const byLot = lots.map((l, i) => ({ name: l.lot, seen: l.returns.length, part: (expected[i] ?? 0) / sum }));
  const others = all.filter((r) => r.kit !== kit);
  const kits = [...new Set(p.lots.map((l) => l.kit))];
  // Each kit's part of all that ran, by the life that all kits have together.
  const life = expectedByLot(p.lots, p);
  const whole = life.reduce((s, e) => s + e, 0);
  const byKit = kits.map((name) => ({
    name,
    seen: name === kit ? mine.length : 0,
    part: p.lots.reduce((s, l, i) => s + (l.kit === name ? (life[i] ?? 0) : 0), 0) / whole,
  }));
  return weighed({
    lot: {
      found: concentrated(byLot, mine.length),
      of: mine.length,
    },
    shop: {
      found: concentrated(
        sharesOf(mine, others, (r) => r.shop),
        mine.length,
      ),
      of: mine.length,
    },
    design: {
      found: concentrated(
        byKit.filter((c) => c.name === kit),
        all.length,
      ),
      paid: kits.length,
      of: all.length,
    },
  });
}

/** One fault: is it of one lot, of one workshop, or of one kit whoever fits it? */
function ofFault(all: readonly Return[], about: { code: string; step: string }): SignalReading[] {
  const has = (r: Return) => r.faults.some((f) => f.code === about.code && f.step === about.step);
  const mine = all.filter(has);
  const others = all.filter((r) => !has(r));
  const part = (by: (r: Return) => string) => ({
    found: concentrated(sharesOf(mine, others, by), mine.length),
    of: mine.length,
  });
  return weighed({
    lot: part((r) => (r.lot === '' ? '' : `${r.kit} ${r.lot}`)),
    shop: part((r) => r.shop),
    design: part((r) => r.kit),
  });
}

/** Each one's returns among these, and its part of the others. */
function sharesOf(
  mine: readonly Return[],
  others: readonly Return[],
  by: (r: Return) => string,
): Candidate[] {
  const count = (list: readonly Return[]) => {
    const out = new Map<string, number>();
    for (const r of list) if (by(r) !== '') out.set(by(r), (out.get(by(r)) ?? 0) + 1);
    return out;
  };
  const [here, there] = [count(mine), count(others)];
  // Half a return for each: whoever has none elsewhere does not count as impossible.
  const names = [...new Set([...here.keys(), ...there.keys()])];
  const total = others.length + names.length / 2;
  return names.map((name) => ({
    name,
    seen: here.get(name) ?? 0,
    part: ((there.get(name) ?? 0) + 0.5) / total,
  }));
}

type Part = {
  found: { best: Candidate | undefined; log: number };
  /** Chosen of so many, where fewer were looked at. */
  paid?: number;
  of: number;
};
function weighed(parts: Record<ReadingKind, Part>): SignalReading[] {
  const kinds = Object.entries(parts) as [ReadingKind, Part][];
  const logs = kinds.map(([, x]) => x.found.log - Math.log(x.paid ?? 1));
  const top = Math.max(...logs);
  const sum = logs.reduce((s, l) => s + Math.exp(l - top), 0);
  return kinds
    .map(([kind, x], i): SignalReading => {
      const { best } = x.found;
      return {
        kind,
        name: best?.name ?? '',
        seen: best?.seen ?? 0,
        of: x.of,
        expected: (best?.part ?? 0) * x.of,
        share: Math.exp((logs[i] ?? 0) - top) / sum,
      };
    })
    .sort((a, b) => b.share - a.share);
}
