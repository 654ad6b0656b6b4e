import { type DocumentKind, DOCUMENTS } from '@core/catalogue/plan';
import type { Fact } from '@core/facts/fact';
import { meaningOf } from '@core/facts/meaning';
import type { Registry } from '@core/facts/observable';
import { allStanding, factsOf, has, numberOf, standing, textOf } from '@core/facts/read';
import { nameOfId } from '@core/facts/thing';
import type { State } from '@core/facts/state';
import type { RankedCause, Ranking } from '@core/cause/rank';
import type { LeftOut } from './cover';
import type { TermsAnswer } from './terms';

/** Why a decision may not be issued as it stands. */
export type Objection =
  | { code: 'no_decision' }
  | { code: 'no_reason' }
  | { code: 'decline_needs_evidence' }
  | { code: 'decline_needs_alternative' }
  | { code: 'share_missing' }
  /** More than all of it is laid to the faults. */
  | { code: 'faults_over'; sum: number }
  /** This desk advised on it, and nobody said how that bears on what is declined. */
  | { code: 'told_unweighed'; times: number }
  /** Supplier and fitter are not told apart, and one person alone would decline. */
  | { code: 'tie_unsigned' }
  /** The claim is of so much, minor units, that one person alone does not decide it. */
  | { code: 'amount_unsigned'; gross: number; from: number }
  /** The second signature is that of who decided. */
  | { code: 'second_same'; who: string }
  /** A document that the terms require is missing, and no reason was given to go on without it. */
  | { code: 'missing_document'; document: DocumentKind };
/** What speaks for looking twice; it does not stop anything. */
export type Warning =
  | { code: 'leader_weak'; probability: number }
  | { code: 'cause_overrules'; leader: string; decided: string }
  | { code: 'out_of_terms_accepted' }
  /** Our share and what is laid to the faults do not come to all of it. */
  | { code: 'shares_apart'; ours: number; faults: number }
  /** The plan leaves out what is accepted, and why. */
  | { code: 'excluded_accepted'; why: string }
  | { code: 'missing_document'; document: DocumentKind };

/** Shares that differ by less read the same. */
const SHARE_APART = 0.005;
/** Code of a fault that was recorded. */
const codeOf = (f: Fact): string => nameOfId(f.about ?? '');

export type DecisionCheck = { objections: Objection[]; warnings: Warning[] };

/** What a decision stands on beside the facts: the causes, the terms, faults recorded, documents that the terms require. */
export type DecidedOn = {
  ranking: Ranking;
  terms: TermsAnswer | undefined;
  /** What the plan leaves out. */
  exclusions?: readonly LeftOut[] | undefined;
  recorded: readonly Fact[];
  /** Shares that were laid to recorded faults, of 1. */
  laid?: readonly number[] | undefined;
  required?: readonly DocumentKind[] | undefined;
  /** A finding speaks for a cause when it moves it by more than this, natural log. */
  speaks: number;
  /** A decided cause below this share is pointed out. */
  weakLeader: number;
  /** A leader from this share on is more likely than not. */
  likely: number;
  /** Supplier and fitter are not told apart. */
  tie: boolean;
  /** What is asked for, and the sum from which a second person signs, minor units. */
  gross: number;
  secondFrom: number;
};

/**
 * Measured or seen, on the returned parts or the fitting (a reading of the vehicle or a paper proves nothing about either),
 * and speaking for the fault: an abnormal inspection, or a finding that makes what is accused likelier. What was not examined,
 * could not be told, or looked sound opens no gate.
 */
function speaksFor(f: Fact, registry: Registry, accused: readonly RankedCause[], nats: number): boolean {
  const o = registry.get(meaningOf(f).key);
  if (f.how !== 'measured' && f.how !== 'seen') return false;
  if (o?.station !== 'examine' && o?.station !== 'fit') return false;
  if (o.type.kind === 'choice') return o.type.options.some((x) => x.key === f.value && x.abnormal === true);
  return accused.some((c) => c.weights.some((w) => w.nats > nats && w.facts.includes(f.id)));
}

/** What a second person has to sign, and has not. */
function unsigned(
  state: State,
  decision: string | undefined,
  { tie, gross, secondFrom }: Pick<DecidedOn, 'tie' | 'gross' | 'secondFrom'>,
): Objection[] {
  if (decision === undefined || decision === 'wait') return [];
  const wanted: Objection[] = [
    ...(tie && decision === 'decline' ? [{ code: 'tie_unsigned' as const }] : []),
    ...(gross >= secondFrom ? [{ code: 'amount_unsigned' as const, gross, from: secondFrom }] : []),
  ];
  const second = textOf(state, 'claim.second')?.trim();
  if (wanted.length === 0 || second === undefined) return wanted;
  const first = standing(state, 'claim.decision')?.by ?? '';
  return second.toLowerCase() === first.trim().toLowerCase() ? [{ code: 'second_same', who: first }] : [];
}

/**
 * Policy of settling. Declining needs at least one fact measured or seen on the returned parts or the fitting that speaks
 * for the fault (one that a recorded fault stands on, when there is a fault), a considered alternative, and plain words. A document that the terms
 * require holds any decision up until it is here or a reason is given to go on without it.
 */
export function checkDecision(
  state: State,
  registry: Registry,
  {
    ranking,
    terms,
    exclusions = [],
    recorded,
    laid = [],
    required = [],
    speaks,
    weakLeader,
    likely,
    tie,
    gross,
    secondFrom,
  }: DecidedOn,
): DecisionCheck {
  const objections: Objection[] = [];
  const warnings: Warning[] = [];
  const decision = textOf(state, 'claim.decision');
  if (decision === undefined) objections.push({ code: 'no_decision' });
  if (decision !== undefined && textOf(state, 'claim.reason') === undefined)
    objections.push({ code: 'no_reason' });
  if (decision === 'part' && !has(state, 'claim.share')) objections.push({ code: 'share_missing' });
  const sum = laid.reduce((a, b) => a + b, 0);
  if (sum > 1 + SHARE_APART) objections.push({ code: 'faults_over', sum });
  const ours = numberOf(state, 'claim.share');
  if (decision === 'part' && laid.length > 0 && ours !== undefined && Math.abs(sum + ours - 1) > SHARE_APART)
    warnings.push({ code: 'shares_apart', ours, faults: sum });
  if (decision === 'decline') {
    const ids = new Set(recorded.flatMap((f) => f.basis ?? []));
    const pool = allStanding(state)
      .flatMap((s) => s.facts)
      .filter((f) => recorded.length === 0 || ids.has(f.id));
    const codes = new Set(recorded.map((f) => codeOf(f)));
    const accused = ranking.causes.filter((c) =>
      recorded.length > 0
        ? c.cause.fault !== undefined && codes.has(c.cause.fault)
        : c.cause.key === (textOf(state, 'cause.decided') ?? ranking.causes[0]?.cause.key),
    );
    if (!pool.some((f) => speaksFor(f, registry, accused, speaks)))
      objections.push({ code: 'decline_needs_evidence' });
    if (textOf(state, 'claim.alternative') === undefined)
      objections.push({ code: 'decline_needs_alternative' });
    // A fault that our own words led to is not the fitter's.
    const times = factsOf(state, 'call.told').length;
    if (times > 0 && !has(state, 'claim.told_weighed')) objections.push({ code: 'told_unweighed', times });
  }
  objections.push(...unsigned(state, decision, { tie, gross, secondFrom }));
  const leader = ranking.causes[0];
  const cause = textOf(state, 'cause.decided');
  if (cause !== undefined && leader) {
    // that nothing can be decided contradicts no leader that is not likely itself
    const open = cause === 'undecidable' && leader.probability < likely;
    if (cause !== leader.cause.key && !open)
      warnings.push({ code: 'cause_overrules', leader: leader.cause.key, decided: cause });
    else if (!open && leader.probability < weakLeader)
      warnings.push({ code: 'leader_weak', probability: leader.probability });
  }
  if (decision === 'accept' && terms?.verdict === 'out') warnings.push({ code: 'out_of_terms_accepted' });
  if (decision === 'accept')
    for (const { why, stands } of exclusions)
      if (stands === 'applies') warnings.push({ code: 'excluded_accepted', why });
  const decided = decision !== undefined && decision !== 'wait';
  const goesOn = textOf(state, 'claim.without_document') !== undefined;
  for (const document of DOCUMENTS) {
    if (!decided || textOf(state, `claim.${document}`) === 'yes') continue;
    if (required.includes(document) && !goesOn) objections.push({ code: 'missing_document', document });
    else warnings.push({ code: 'missing_document', document });
  }
  return { objections, warnings };
}
