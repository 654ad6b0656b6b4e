import type { Finding } from '@core/bench/findings';
import type { CauseData } from '@core/cause/cause-data';
import { type Check, checkWorth } from '@core/cause/next-check';
import type { Ranking } from '@core/cause/rank';
import type { Registry } from '@core/facts/observable';
import type { State } from '@core/facts/state';
import { applies, type Possible } from './applies';

/** A check worth making: the observables still to be filed for it, and the minutes that they take. */
export type CheckAnswer = Check & { minutes: number; keys: string[] };

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
      const wanted = (inputs.get(c.finding) ?? []).flatMap((key) => expand(key, drive));
      const known = wanted.map((key) => registry.get(key));
      if (known.length === 0 || known.some((o) => o === undefined || !applies(o, drive))) return [];
      const missing = known.flatMap((o) => (o && !state.standing.has(o.key) ? [o] : []));
      if (missing.length === 0) return [];
      const minutes = missing.reduce((sum, o) => sum + (o.minutes ?? 1), 0);
      return [{ ...c, minutes, keys: missing.map((o) => o.key) }];
    })
    .sort((a, b) => b.bits / b.minutes - a.bits / a.minutes);
}

/** "mark.*" is every mark that the possible drives have. */
function expand(key: string, drive: Possible): string[] {
  if (!key.endsWith('*')) return [key];
  const stem = key.slice(0, -1);
  return [...(drive.own ?? [])].filter((k) => k.startsWith(stem));
}
