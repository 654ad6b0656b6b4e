import { sealedNow } from '@core/claim/seal';
import type { Station } from '@core/facts/stations';
import { textOf } from '@core/facts/read';
import type { State } from '@core/facts/state';
import type { Answers } from './answers';

/** How far a case has come at a station. */
export type StationStanding =
  | { is: 'inspected'; looked: number; of: number }
  | { is: 'lacks'; count: number }
  | { is: 'complete' | 'decided' | 'nothing_to_weigh' | 'sealed' | 'issue_again' | 'nothing_to_settle' };

/** What a station that lacks nothing says, where it is more than that. */
const COMPLETE: Partial<Record<Station, (a: Answers, state: State) => StationStanding>> = {
  cause: (_, state) => ({ is: textOf(state, 'cause.decided') ? 'decided' : 'nothing_to_weigh' }),
  settle: ({ seals }) => ({
    is: sealedNow(seals) ? 'sealed' : seals.length > 0 ? 'issue_again' : 'nothing_to_settle',
  }),
};

/** What is looked at is counted; else what is needed and lacks; else how it stands complete. */
export function standingAt(station: Station, a: Answers, state: State): StationStanding {
  const counted = Object.entries(a.inspections).find(([at]) => at === station)?.[1];
  if (counted) {
    const of = counted.looked + counted.open.length + counted.notSent.length;
    return { is: 'inspected', looked: counted.looked, of };
  }
  const count = a.lacks[station].length;
  return count > 0 ? { is: 'lacks', count } : (COMPLETE[station]?.(a, state) ?? { is: 'complete' });
}
