import { CASE_KINDS, type CaseKind } from '@core/facts/observable';
import { has, listOf, textOf } from '@core/facts/read';
import type { State } from '@core/facts/state';

/** The kind filed; else what the facts say: a claim once one is numbered or decided, a return once parts are here. */
export function caseKind(state: State): CaseKind {
  const filed = CASE_KINDS.find((k) => k === textOf(state, 'case.kind'));
  if (filed) return filed;
  if (has(state, 'claim.number') || has(state, 'claim.decision')) return 'claim';
  return has(state, 'parts.sent') ? 'return' : 'question';
}

/** Whether causes are weighed for a case: of parts and claims always, of a question where it asks why. */
export const weighsCauses = (state: State): boolean =>
  caseKind(state) !== 'question' || listOf(state, 'call.asked').includes('why');
