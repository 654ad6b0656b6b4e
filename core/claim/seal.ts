import { lastPer } from '@core/quantity/keep';
import { contentDigest, factsDigest } from '@core/facts/digest';
import type { Author, Fact } from '@core/facts/fact';
import { standing } from '@core/facts/read';
import { type Signature, SIGNED, signaturesOf } from './signature';
import { nextSeen, type State } from '@core/facts/state';

/** An issued report: which facts it was sealed on, and whether they are still the same. */
export type SealCheck = {
  seal: Fact;
  issue: number;
  /**
   * intact: every sealed fact is here, unchanged; altered: one is missing or differs; void: it names no fact and seals
   * nothing.
   */
  verdict: 'intact' | 'altered' | 'void';
  /** Facts that it does not cover, seals aside, whenever they were filed or merged: a new issue would say something else. */
  later: number;
  /** Who signed it. The seal alone says that nothing changed, not who issued it. */
  signatures: Signature[];
};

const [ISSUE, SAID] = ['report.issue', 'report.said'];
/** Facts that belong to the issuing of reports: no seal need cover those of a later one. */
export const isOfReport = (f: Fact): boolean => f.key === ISSUE || f.key === SAID || f.key === SIGNED;

/**
 * The facts that seal everything known so far: how it read, line by line, and the seal over that, all else and itself: who
 * issued it, when and over what. Its value is the digest, its basis the ids.
 */
export function makeSeal(state: State, caseId: string, said: readonly string[], author: Author): Fact[] {
  const common = { case: caseId, by: author.by, at: author.now() };
  const seen = nextSeen(state.log);
  const reading: Fact = {
    id: author.newId(),
    ...common,
    seen,
    key: SAID,
    value: [...said],
    how: 'computed',
    ...correcting(standing(state, SAID)),
  };
  const all = [...state.log, reading];
  const seal: Omit<Fact, 'value'> = {
    id: author.newId(),
    ...common,
    seen: seen + 1,
    key: ISSUE,
    how: 'decided',
    basis: all.map((f) => f.id),
  };
  return [reading, { ...seal, value: sealDigest(all, seal) }];
}

/** SHA-256 over the facts sealed and the seal itself, all but its value. */
function sealDigest(facts: readonly Fact[], seal: Omit<Fact, 'value'>): string {
  const rest = Object.fromEntries(Object.entries(seal).filter(([k]) => k !== 'value'));
  return contentDigest({ facts: factsDigest(facts), seal: rest });
}

const correcting = (f: Fact | undefined) => (f ? { supersedes: f.id } : {});

/** Verifies every seal of a case, oldest first. Judged by ids alone: no clock has a say in what a seal covers. */
export function checkSeals(state: State): SealCheck[] {
  const byId = new Map(state.log.map((f) => [f.id, f]));
  const plain = state.log.filter((f) => !isOfReport(f));
  const seals = state.log.filter((f) => f.key === ISSUE && f.strikes === undefined);
  return seals.map((seal, i) => {
    const sealed = new Set(seal.basis);
    const verdict = verify(seal, byId);
    const later = plain.reduce((n, f) => (sealed.has(f.id) ? n : n + 1), 0);
    return { seal, issue: i + 1, verdict, later, signatures: signaturesOf(state, seal) };
  });
}

const verified = lastPer<Fact, { facts: readonly Fact[]; verdict: 'intact' | 'altered' }>();

function verify(seal: Fact, byId: ReadonlyMap<string, Fact>): 'intact' | 'altered' | 'void' {
  const ids = seal.basis ?? [];
  if (ids.length === 0) return 'void';
  const facts = ids.flatMap((id) => byId.get(id) ?? []);
  // A digest over the very same facts is not computed twice.
  const same = (known: { facts: readonly Fact[] }) =>
    known.facts.length === facts.length && facts.every((f, i) => f === known.facts[i]);
  // Issues of earlier makes sealed the facts alone.
  const holds = () => sealDigest(facts, seal) === seal.value || factsDigest(facts) === seal.value;
  return verified(seal, same, () => ({
    facts,
    verdict: facts.length === ids.length && holds() ? 'intact' : 'altered',
  })).verdict;
}

/** The newest issue, when it covers everything that is known and nothing of it was altered. */
export function sealedNow(seals: readonly SealCheck[]): SealCheck | undefined {
  const last = seals.at(-1);
  return last?.verdict === 'intact' && last.later === 0 ? last : undefined;
}
