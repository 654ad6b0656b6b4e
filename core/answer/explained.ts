import { lastPer } from '@core/quantity/keep';
import { explain, type Explanation } from '@core/cause/explain';
import type { Ranking } from '@core/cause/rank';
import type { Answers } from './answers';

const kept = lastPer<Ranking, { explanation: Explanation | undefined }>();

/** Why the leader leads. It takes longer than the ranking and is worked out only where it is read, once for a ranking. */
export function explained({
  ranking,
  causes,
  findings,
}: Pick<Answers, 'ranking' | 'causes' | 'findings'>): Explanation | undefined {
  return kept(
    ranking,
    () => true,
    () => ({ explanation: explain(causes, findings) }),
  ).explanation;
}
