import type { Policy } from '@core/policy/policy';
import { standing, thingsWith } from '@core/facts/read';
import type { State } from '@core/facts/state';
import { type LeakDown, leakDown, type LeakError, type LeakPoint, leakVerdict } from './leak-down';
import { chancesOf, uOfHalf } from '@core/quantity/judge';
import { seriesPoints } from './read-series';

/** The leak-down of one tensioner: what was recorded, what it comes to, and its verdict against the house's limit, mm/s. */
export type LeakAnswer = {
  about: string;
  facts: string[];
  points: LeakPoint[];
  limit: number;
  result?: LeakDown;
  error?: LeakError;
  verdict?: 'within' | 'above' | 'cannot_tell';
  /** How likely the rate is on either side of the limit. */
  chances?: Readonly<Partial<Record<'within' | 'above', number>>>;
};

const SERIES = 'tensioner.leak_series';

/** Every leak-down that was recorded, thing by thing. */
export function leakAnswers(state: State, rules: Pick<Policy, 'takeUpS' | 'leakMaxMmPerS'>): LeakAnswer[] {
  return thingsWith(state, SERIES).flatMap((about): LeakAnswer[] => {
    const fact = standing(state, SERIES, about === '' ? undefined : about);
    const points = seriesPoints(fact?.value);
    if (!fact || points.length === 0) return [];
    const r = leakDown(points, rules.takeUpS);
    const base = { about, facts: [fact.id], points, limit: rules.leakMaxMmPerS };
    if (!r.ok) return [{ ...base, error: r.error }];
    const { chosen } = r.value;
    const rate = { value: Math.abs(chosen.rate), u: uOfHalf(chosen.halfWidth) };
    return [
      {
        ...base,
        result: r.value,
        verdict: leakVerdict(chosen, base.limit),
        chances: chancesOf(rate, (v) => (v <= base.limit ? 'within' : 'above')),
      },
    ];
  });
}
