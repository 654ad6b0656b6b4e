import type { Finding } from '@core/bench/finding';
import type { CauseData } from '@core/cause/cause-data';
import { type Check, checkWorth } from '@core/cause/next-check';
import type { Ranking } from '@core/cause/rank';
import type { Observable, Registry } from '@core/facts/observable';
import { has } from '@core/facts/read';
import type { State } from '@core/facts/state';
import { kindOfId } from '@core/facts/thing';
import { needsThing } from '@core/facts/registry';
import { applies, type Possible } from './applies';

/** A check worth making: the looks still to be made for it, and the minutes that they take. */
export type CheckAnswer = Check & { minutes: number; looks: Look[] };
/** An observable still to be filed, of a thing where it has no first one. */
export type Look = { key: string; about?: string; minutes: number };

/** Worth of less than this is not worth proposing, bits. */
const LEAST_BITS = 0.005;

/**
 * Checks worth making, by bits per minute. A check is proposed with every input that is missing, and only where all of
 * its inputs can be observed on a drive that is still possible.
 */
export function checkList(
  causes: CauseData,
  registry: Registry,
  ranking: Ranking,
  findings: readonly Finding[],
  state: State,
  drive: Possible,
): CheckAnswer[] {
  const inputs = new Map(causes.evidence.map((e) => [e.finding, e.inputs ?? [e.finding]]));
  return checkWorth(causes, ranking, findings)
    .filter((c) => c.bits > LEAST_BITS)
    .flatMap((c): CheckAnswer[] => {
      const wanted = (inputs.get(c.finding) ?? []).map((key) => registry.get(key));
      if (wanted.length === 0 || wanted.some((o) => o === undefined || !applies(o, drive))) return [];
      const missing = wanted.flatMap((o) => (o ? openOf(o, state, drive) : []));
      if (missing.length === 0) return [];
      const minutes = missing.reduce((sum, m) => sum + m.minutes, 0);
      return [{ ...c, minutes, looks: missing }];
    })
    .sort((a, b) => b.bits / b.minutes - a.bits / a.minutes);
}

/** What is still to be looked at: every wheel or bank of the possible drives that has no answer yet, or the first of its kind. */
function openOf(o: Observable, state: State, drive: Possible): Look[] {
  const minutes = o.minutes ?? 1;
  if (!needsThing(o)) return has(state, o.key) ? [] : [{ key: o.key, minutes }];
  return [...(drive.own ?? [])]
    .filter((id) => kindOfId(id) === o.part && !has(state, o.key, id))
    .map((about) => ({ key: o.key, about, minutes }));
}
