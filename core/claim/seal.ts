import { factsDigest } from '@core/facts/digest';
import type { Author, Fact } from '@core/facts/fact';
import type { State } from '@core/facts/state';

/** An issued report: which facts it was sealed on, and whether they are still the same. */
export type SealCheck = {
  seal: Fact;
  issue: number;
  /**
   * intact: every sealed fact is here, unchanged; altered: one is missing or differs; void: it names no fact and seals
   * nothing; unchecked: an old issue that was not computed again.
   */
  verdict: 'intact' | 'altered' | 'void' | 'unchecked';
  /** Facts that it does not cover, seals aside, whenever they were filed or merged: a new issue would say something else. */
  later: number;
};

/** Issues, newest first, that are computed again at every look; older ones were superseded by them. */
const RECHECKED = 4;

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

/** Verifies the seals of a case, oldest first. Judged by ids alone: no clock has a say in what a seal covers. */
export function checkSeals(state: State, rechecked = RECHECKED): SealCheck[] {
  const byId = new Map(state.log.map((f) => [f.id, f]));
  const plain = state.log.filter((f) => f.key !== 'report.issue');
  const seals = state.log.filter((f) => f.key === 'report.issue' && f.strikes === undefined);
  return seals.map((seal, i) => {
    const sealed = new Set(seal.basis);
    const verdict = i < seals.length - rechecked ? 'unchecked' : verify(seal, byId);
    const later = plain.reduce((n, f) => (sealed.has(f.id) ? n : n + 1), 0);
    return { seal, issue: i + 1, verdict, later };
  });
}

function verify(seal: Fact, byId: ReadonlyMap<string, Fact>): 'intact' | 'altered' | 'void' {
  const ids = seal.basis ?? [];
  if (ids.length === 0) return 'void';
  const facts = ids.flatMap((id) => byId.get(id) ?? []);
  return facts.length === ids.length && factsDigest(facts) === seal.value ? 'intact' : 'altered';
}

/** The newest issue, when it covers everything that is known and nothing of it was altered. */
export function sealedNow(seals: readonly SealCheck[]): SealCheck | undefined {
  const last = seals.at(-1);
  return last?.verdict === 'intact' && last.later === 0 ? last : undefined;
}
