import type { CauseEntry } from '@core/cause/cause-data';
import { isQuiet } from '@core/cause/model';
import type { SeenFault } from '@core/cause/rank';
import { type SidesTie, tieOf } from '@core/cause/sides';
import type { Finding } from '@core/examination/finding';
import type { Answers } from './answers';
import type { PossibleCheck } from './conclude';

/** What a case comes to by all that is filed, as far as it can be said in a sentence or two. */
export type CauseVerdict = {
  leader: CauseEntry;
  share: number;
  /** What it leads by: what was seen of it itself, else what speaks for it most. */
  because: { seen: boolean; findings: Pick<Finding, 'finding' | 'value' | 'about'>[] };
  /** Faults that were seen and stand together; one or none is no such answer. */
  together: readonly SeenFault[];
  /** Supplier and fitter are not told apart. */
  tie?: SidesTie;
  /** Less likely than not, whatever leads. */
  open: boolean;
  /** Nothing is wrong with what was looked at; so many looks are still to be made at what is here. */
  sound?: { unseen: number };
  /** What would settle it; none where nothing that can be had parts the causes. */
  settles?: PossibleCheck;
  /** What did not come, and would have told most. */
  lost?: string;
};

/** Findings that a verdict names for it, and the least weight of one, natural log. */
const [MOST_NAMED, LEAST_NATS] = [3, 0.3];

/** The verdict of a case on its cause; undefined while nothing is filed that weighs, or where no cause is asked for. */
export const causeVerdict = (a: Answers): CauseVerdict | undefined =>
  a.kind === 'question' ? undefined : likelyCause(a);

/** What a case comes to on its cause, whatever kind it is of; undefined while nothing is filed that weighs. */
export function likelyCause(a: Answers): CauseVerdict | undefined {
  const [first] = a.ranking.causes;
  if (!first || a.ranking.weighed === 0) return undefined;
  const { cause, probability } = first;
  const own = a.ranking.faults.find((f) => f.cause.key === cause.key);
  const speaking = own
    ? own.shownBy
    : [...first.weights].sort((x, y) => y.nats - x.nats).filter((w) => w.nats >= LEAST_NATS);
  const tie = tieOf(a.ranking, a.policy.sidesApart);
  const [settles] = a.conclude.possible;
  const [lost] = a.conclude.lost;
  return {
    leader: cause,
    share: probability,
    because: { seen: own !== undefined, findings: speaking.slice(0, MOST_NAMED) },
    // faults that explain nothing of what another cause explains are none of this answer
    together: own && a.ranking.faults.length > 1 ? a.ranking.faults : [],
    ...(tie ? { tie } : {}),
    open: probability < a.policy.sureFrom.likely,
    ...(isQuiet(cause) ? { sound: { unseen: a.inspections.examine.open.length } } : {}),
    ...(settles ? { settles } : {}),
    ...(lost ? { lost: lost.wording } : {}),
  };
}
