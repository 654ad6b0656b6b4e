import { explain, type Explanation } from '@core/cause/explain';
import type { Ranking } from '@core/cause/rank';
import type { Answers } from './answers';

const known = new WeakMap<Ranking, { explanation: Explanation | undefined }>();

/** Why the leader leads. It takes longer than the ranking and is worked out only where it is read, once for a ranking. */
export function explained({
  ranking,
  causes,
  findings,
}: Pick<Answers, 'ranking' | 'causes' | 'findings'>): Explanation | undefined {
  let made = known.get(ranking);
  if (!made) known.set(ranking, (made = { explanation: explain(causes, findings) }));
  return made.explanation;
}
