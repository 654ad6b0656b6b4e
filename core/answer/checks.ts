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
/** Minutes that any look takes before it begins: to find the part, the light, the gauge. */
const TO_BEGIN = 2;
/** What a check settles a minute. */
export const worthOf = ({ settles, minutes }: Pick<CheckAnswer, 'settles' | 'minutes'>): number =>
  settles / (minutes + TO_BEGIN);

/** An observable still to be filed, of a thing where it has no first one. */
export type OpenInspection = { key: string; about: string | undefined; minutes: number };

/**
 * Checks worth making, by bits per minute. A check is proposed with every input that is missing, and only where all of
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
    .sort((a, b) => worthOf(b) - worthOf(a));
}

const openOf = (o: Observable, state: State, drive: Possible, reach: number): OpenInspection[] =>
  subjectsOf(o, drive)
    .filter((about) => !isInspected(state, o, about) && !wasAsked(state, o.key, about))
    .map((about) => ({ key: o.key, about, minutes: (o.minutes ?? 1) + reach }));
