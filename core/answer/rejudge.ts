import { textOf } from '@core/facts/read';
import type { State } from '@core/facts/state';
import { answersFor } from './answers';
import type { World } from './world';

/** Which cause leads a case, and by what share. */
type Leads = { cause: string; wording: string; share: number };
/** A case that other knowledge judges otherwise: what led and what leads, and what was decided by then. */
export type Rejudged = { tag: string; before: Leads; after: Leads; decided?: string };

/** Shares of one and the same leader that are nearer than this read the same. */
const SAME_SHARE = 0.05;

/** What one case would say otherwise in another world; undefined where the same cause leads by about the same share, and of a mere question. */
export function rejudged(state: State, before: World, after: World): Rejudged | undefined {
  const [then, now] = [before, after].map((world) => leads(state, world));
  if (!then || !now) return undefined;
  if (then.cause === now.cause && Math.abs(then.share - now.share) < SAME_SHARE) return undefined;
  const decided = textOf(state, 'cause.decided');
  return {
    tag: textOf(state, 'case.tag') ?? '—',
    before: then,
    after: now,
    ...(decided === undefined ? {} : { decided }),
  };
}

function leads(state: State, world: World): Leads | undefined {
  const a = answersFor(world, state);
  const first = a.ranking.causes[0];
  return a.kind === 'question' || a.ranking.weighed === 0 || !first
    ? undefined
    : { cause: first.cause.key, wording: first.cause.wording, share: first.probability };
}
