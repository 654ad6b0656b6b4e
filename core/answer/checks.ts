import { must } from '@core/quantity/must';
import type { Finding } from '@core/examination/finding';
import { type CauseData, inputsOf } from '@core/cause/cause-data';
import { type Check, checkWorth } from '@core/cause/next-check';
import type { Observable, Registry } from '@core/facts/observable';
import type { State } from '@core/facts/state';
import { applies, type Possible } from './applies';
import { KINDS } from '@core/facts/kinds';
import { has, wasAsked } from '@core/facts/read';
import type { Policy } from '@core/policy/policy';
import { isInspected, subjectsOf } from './subjects';

/** A check worth making: the inspections still to be made for it, and the minutes that they take. */
export type CheckAnswer = Check & { minutes: number; inspections: OpenInspection[] };
/** What checks settle a minute, the most first. @param begin minutes before any look begins */
export const byWorth = (begin: number) => {
  const worth = ({ settles, minutes }: Pick<CheckAnswer, 'settles' | 'minutes'>): number =>
    settles / (minutes + begin);
  return (a: CheckAnswer, b: CheckAnswer): number => worth(b) - worth(a);
};

/** An observable still to be filed, of a thing where it has no first one. */
export type OpenInspection = { key: string; about: string | undefined; minutes: number };

/**
 * Checks worth making, by what they settle a minute. A check is proposed with every input that is missing, and only where all of
 * its inputs can be observed on a drive that is still possible.
 */
export function checkList(
  causes: CauseData,
  registry: Registry,
  findings: readonly Finding[],
  state: State,
  drive: Possible,
  { leastBits, minutesTo }: Pick<Policy, 'leastBits' | 'minutesTo'>,
): CheckAnswer[] {
  const box = has(state, 'parts.sent');
  // what came lies on the bench; the engine is elsewhere, and what is in it has to be taken out first
  const reach = (o: Observable): number => {
    const { part, box: isBox } = KINDS.get(o.part) ?? {};
    if (o.station === 'call' || isBox || o.part === 'kit') return 0;
    if (o.station !== 'examine') return box ? minutesTo.engine : 0;
    if (part) return box ? 0 : minutesTo.takeOut;
    return minutesTo.ask;
  };
  const missing = (finding: string): OpenInspection[] => {
    const wanted = inputsOf(causes, finding).map((key) => registry.get(key));
    if (wanted.some((o) => o === undefined || !applies(o, drive))) return [];
    return wanted.flatMap((o) => (o ? openOf(o, state, drive, reach(o)) : []));
  };
  const looks = new Map<string, OpenInspection[]>();
  // What cannot be looked at is not worked out.
  const wanted = (finding: string) => must(looks.set(finding, missing(finding)).get(finding)).length > 0;
  return checkWorth(causes, findings, wanted, leastBits)
    .map((c): CheckAnswer => {
      const mine = must(looks.get(c.finding));
      return { ...c, minutes: mine.reduce((sum, m) => sum + m.minutes, 0), inspections: mine };
    })
    .sort(byWorth(minutesTo.begin));
}

const openOf = (o: Observable, state: State, drive: Possible, reach: number): OpenInspection[] =>
  subjectsOf(o, drive)
    .filter((about) => !isInspected(state, o, about) && !wasAsked(state, o.key, about))
    .map((about) => ({ key: o.key, about, minutes: (o.minutes ?? 1) + reach }));
