import { CASE_KINDS, type CaseKind } from '@core/facts/observable';
import { has, textOf } from '@core/facts/read';
import type { State } from '@core/facts/state';

/** The kind filed; else what the facts say: a claim once one is numbered or decided, a return once parts are here. */
export function caseKind(state: State): CaseKind {
  const filed = CASE_KINDS.find((k) => k === textOf(state, 'case.kind'));
  if (filed) return filed;
  if (has(state, 'claim.number') || has(state, 'claim.decision')) return 'claim';
  return has(state, 'parts.sent') ? 'return' : 'question';
}
