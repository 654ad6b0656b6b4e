import type { Fact } from '@core/facts/fact';
import { type State, textOf } from '@core/facts/state';
import type { Ranking } from '@core/cause/rank';
import type { TermsAnswer } from './terms';

/** Why a decision may not be issued as it stands. */
export type Objection =
  | { code: 'no_decision' }
  | { code: 'no_reason' }
  | { code: 'decline_needs_evidence' }
  | { code: 'decline_needs_alternative' }
  | { code: 'share_missing' };
/** What speaks for looking twice; it does not stop anything. */
export type Warning =
  | { code: 'leader_weak'; probability: number }
  | { code: 'cause_overrules'; leader: string; decided: string }
  | { code: 'out_of_terms_accepted' }
  | { code: 'missing_document'; document: 'invoice' | 'sheet' };

export type DecisionCheck = { objections: Objection[]; warnings: Warning[] };

const firsthand = (f: Fact) => f.how === 'measured' || f.how === 'seen';

/**
 * House rules of settling. Declining needs at least one measured or seen fact on which a recorded fault stands (or any
 * on the bench when the finding is no fault of fitting), a considered alternative, and plain words.
 */
export function checkDecision(
  state: State,
  ranking: Ranking,
  terms: TermsAnswer | undefined,
  recorded: readonly Fact[],
): DecisionCheck {
  const objections: Objection[] = [];
  const warnings: Warning[] = [];
  const decision = textOf(state, 'claim.decision');
  if (decision === undefined) objections.push({ code: 'no_decision' });
  if (decision !== undefined && textOf(state, 'claim.reason') === undefined)
    objections.push({ code: 'no_reason' });
  if (decision === 'part' && !state.standing.has('claim.share')) objections.push({ code: 'share_missing' });
  if (decision === 'decline') {
    const ids = new Set(recorded.flatMap((f) => f.basis ?? []));
    const pool = [...state.standing.values()].filter((f) => recorded.length === 0 || ids.has(f.id));
    if (!pool.some(firsthand)) objections.push({ code: 'decline_needs_evidence' });
    if (textOf(state, 'claim.alternative') === undefined)
      objections.push({ code: 'decline_needs_alternative' });
  }
  const leader = ranking.causes[0];
  const decided = textOf(state, 'cause.decided');
  if (decided !== undefined && leader) {
    if (decided !== leader.cause.key)
      warnings.push({ code: 'cause_overrules', leader: leader.cause.key, decided });
    else if (leader.probability < 0.6)
      warnings.push({ code: 'leader_weak', probability: leader.probability });
  }
  if (decision === 'accept' && terms?.verdict === 'out') warnings.push({ code: 'out_of_terms_accepted' });
  for (const document of ['invoice', 'sheet'] as const) {
    if (decision !== undefined && textOf(state, `claim.${document}`) !== 'yes')
      warnings.push({ code: 'missing_document', document });
  }
  return { objections, warnings };
}
