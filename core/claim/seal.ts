import { factsDigest } from '@core/facts/digest';
import type { Author, Fact } from '@core/facts/fact';
import type { State } from '@core/facts/state';

/** An issued report: which facts it was sealed on, and whether they are still the same. */
export type SealCheck = {
  seal: Fact;
  issue: number;
  /** intact: every sealed fact is here, unchanged; altered: one is missing or differs. */
  verdict: 'intact' | 'altered';
  /** Facts filed since, seals aside: a new issue would say something else. */
  later: number;
};

/** The fact that seals everything known so far: its value is the digest, its basis the ids. */
export function makeSeal(state: State, caseId: string, author: Author): Fact {
  return {
    id: author.newId(),
    case: caseId,
    key: 'report.issue',
    value: factsDigest(state.log),
    how: 'decided',
    by: author.by,
    at: author.now(),
    basis: state.log.map((f) => f.id),
  };
}

/** Verifies every seal of a case, oldest first. */
export function checkSeals(state: State): SealCheck[] {
  const byId = new Map(state.log.map((f) => [f.id, f]));
  return state.log
    .filter((f) => f.key === 'report.issue' && f.strikes === undefined)
    .map((seal, i) => {
      const ids = seal.basis ?? [];
      const facts = ids.map((id) => byId.get(id)).filter((f) => f !== undefined);
      const whole = facts.length === ids.length && factsDigest(facts) === seal.value;
      const sealed = new Set(ids);
      const later = state.log.filter(
        (f) => !sealed.has(f.id) && f.key !== 'report.issue' && f.at > seal.at,
      ).length;
      return { seal, issue: i + 1, verdict: whole ? ('intact' as const) : ('altered' as const), later };
    });
}
