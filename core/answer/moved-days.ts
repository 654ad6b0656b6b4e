import type { Fact } from '@core/facts/fact';
import { addDays } from '@core/quantity/dates';
import type { CaseSummary } from './case-summary';

const DAY_MS = 86_400_000;
const DAY = /^\d{4}-\d{2}-\d{2}$/;
/** A day that hangs on what was built when, not on when somebody called. */
const STAYS = 'vehicle.built';
const ISSUED = 'report.issue';

/** Whole days by which summaries move so that what was touched last was touched at most a day ago. @param now ms since 1970 */
export const daysUntil = (summaries: readonly Pick<CaseSummary, 'touched'>[], now: number): number => {
  const last = Math.max(...summaries.map((s) => Date.parse(s.touched)));
  return Number.isFinite(last) ? Math.floor((now - last) / DAY_MS) : 0;
};

export type CasesAtOnce = Readonly<{ facts: readonly Fact[]; summaries: readonly CaseSummary[] }>;

/**
 * Cases as they would read had everything happened so many days later: when it was filed, and every day that was told but the
 * vehicle's. What ran between two of them stays what it was. An issued report stays of its day, and so does all of its case.
 */
export function laterBy(days: number, { facts, summaries }: CasesAtOnce): CasesAtOnce {
  if (days === 0) return { facts, summaries };
  const sealed = new Set(facts.filter((f) => f.key === ISSUED).map((f) => f.case));
  const told = new Map<string, Set<string>>();
  const later = (at: string): string => new Date(Date.parse(at) + days * DAY_MS).toISOString();
  const day = (told: string): string => (told === '' ? '' : addDays(told, days));
  const moved = facts.map((f): Fact => {
    if (sealed.has(f.case)) return f;
    const { value } = f;
    if (typeof value !== 'string' || !DAY.test(value) || f.key === STAYS) return { ...f, at: later(f.at) };
    told.set(f.case, (told.get(f.case) ?? new Set()).add(value));
    return { ...f, at: later(f.at), value: addDays(value, days) };
  });
  return {
    facts: moved,
    summaries: summaries.map((s): CaseSummary => {
      if (sealed.has(s.id)) return s;
      const own = told.get(s.id);
      return {
        ...s,
        opened: later(s.opened),
        touched: later(s.touched),
        ...(s.back === undefined ? {} : { back: addDays(s.back, days) }),
        ...(s.run ? { run: { ...s.run, fitted: day(s.run.fitted), failed: day(s.run.failed) } } : {}),
        text: s.text
          .split('\n')
          .map((line) => (own?.has(line) ? addDays(line, days) : line))
          .join('\n'),
      };
    }),
  };
}
