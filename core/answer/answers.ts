import { findingsOf, type Finding } from '@core/bench/findings';
import { driveObservables } from '@core/catalogue/drive-observables';
import type { Catalogue } from '@core/catalogue/find-records';
import { intervalFor } from '@core/catalogue/interval';
import { featureObservables } from '@core/catalogue/feature-observables';
import { oldPartObservables } from '@core/catalogue/old-part-observables';
import type { Engine, Kit, Procedure, Variant } from '@core/catalogue/pack';
import { type CauseData, causesFor } from '@core/cause/cause-data';
import { type Check, checkWorth } from '@core/cause/next-check';
import { rankCauses, type Ranking } from '@core/cause/rank';
import { checkDecision, type DecisionCheck } from '@core/claim/decision';
import { FAULTS, faultEvidence, faultKey, faultStep, type InstallationFault } from '@core/claim/faults';
import { checkSeals, type SealCheck } from '@core/claim/seal';
import { judgeTerms, monthsRun, type TermsAnswer } from '@core/claim/terms';
import type { Fact } from '@core/facts/fact';
import { type Registry, STATIONS, type Station } from '@core/facts/observable';
import { registryWith } from '@core/facts/registry';
import { type State, textOf } from '@core/facts/state';
import { applies } from './applies';
import { type DriveAnswer, driveAnswer } from './drive-answer';
import { type Identification, identify } from '@core/match/identify';
import { type KitMatch, matchKits } from '@core/match/match-kits';
import { type Asking, nextQuestions } from '@core/match/next-question';

/** Distance and time since fitting, with the facts that say so. */
export type Ran = { km?: number; months?: number; facts: string[]; u?: number };
export type FaultAnswer = {
  fault: InstallationFault;
  step?: Procedure['steps'][number] | undefined;
  evidence: string[];
  recorded?: Fact | undefined;
  proposed: boolean;
};

/** Everything that follows from a case's facts, a catalogue and the shipped weights. Nothing of it is stored. */
export type Answers = {
  registry: Registry;
  engine?: Engine | undefined;
  identification?: Identification | undefined;
  variant?: Variant | undefined;
  asking: Asking;
  kits: KitMatch[];
  kit?: Kit | undefined;
  procedure?: Procedure | undefined;
  drive?: DriveAnswer | undefined;
  ran: Ran;
  findings: Finding[];
  ranking: Ranking;
  checks: (Check & { minutes: number; key: string })[];
  terms?: TermsAnswer | undefined;
  faults: FaultAnswer[];
  decision: DecisionCheck;
  seals: SealCheck[];
  /** Keys of needed observables without a fact, and what else a station waits for. */
  lacks: Record<Station, string[]>;
};

const FINDING_KEY: Record<string, string> = {
  'setting.shown': 'tensioner.pointer',
  'key.sense': 'tensioner.key_turn',
  'rim.marks': 'wheel.rim_marks',
  'kit.match': 'kit.number',
  'extension.rest': 'tensioner.extension',
  'chain.long': 'chain.length',
};
/** The observable that has to be filed to get a finding. */
export const keyOfFinding = (finding: string): string => FINDING_KEY[finding] ?? finding;

const registries = new WeakMap<Catalogue, Registry>();
/** Registry for a catalogue; made once per catalogue, since it depends on nothing else. */
export function registryFor(cat: Catalogue): Registry {
  const known = registries.get(cat);
  if (known) return known;
  const made = registryWith([
    ...featureObservables(cat.pack.features),
    ...oldPartObservables(cat.pack.parts),
    ...driveObservables(cat.pack.layouts),
    ...faultObservables(),
  ]);
  registries.set(cat, made);
  return made;
}

function faultObservables() {
  return FAULTS.map((f) => ({
    key: faultKey(f.code),
    wording: `Fault ${f.code}`,
    aliases: [],
    part: 'claim',
    station: 'settle' as const,
    type: { kind: 'text' as const, long: false },
    how: 'decided' as const,
    hidden: true,
  }));
}

/** Computes all answers of a case. Pure; under a few milliseconds. */
export function answersFor(cat: Catalogue, state: State): Answers {
  const registry = registryFor(cat);
  const code = textOf(state, 'engine.code');
  const engine = code === undefined ? undefined : cat.engines.get(code);
  const identification = engine ? identify(cat, engine.code, state) : undefined;
  const variant = identification?.possible.length === 1 ? identification.possible[0] : undefined;
  const kitNumber = textOf(state, 'kit.number');
  const kits = engine && identification ? matchKits(cat, engine.code, identification, kitNumber) : [];
  const kit = kitNumber === undefined ? undefined : cat.kits.get(kitNumber);
  const procedure = variant?.procedure === undefined ? undefined : cat.procedures.get(variant.procedure);
  const drive = driveAnswer(cat, variant, state);
  const ran = ranSince(state);
  const findings = findingsOf(state, {
    layout: drive?.layout,
    settings: drive?.settings.ok ? drive.settings.value : undefined,
    kitFits: kitFits(kits, kitNumber),
    marks: drive?.marks,
    extension: drive?.extension,
    interval: engine
      ? intervalFor(cat.pack.intervals, engine.code, textOf(state, 'vehicle.name'))
      : undefined,
    ran,
  });
  const causes = causesFor(new Set(drive?.stages.map((x) => x.layout.kind)));
  const ranking = rankCauses(
    causes,
    findings,
    ran.km === undefined ? undefined : { km: ran.km, facts: ran.facts },
  );
  const terms = kit
    ? judgeTerms(kit.terms, textOf(state, 'kit.fitted'), textOf(state, 'case.date'), ran.km)
    : undefined;
  const faults = faultAnswers(state, ranking, procedure);
  const recorded = faults.flatMap((f) => (f.recorded ? [f.recorded] : []));
  const partial = {
    registry,
    engine,
    identification,
    variant,
    kits,
    kit,
    procedure,
    drive,
    ran,
    findings,
    ranking,
    terms,
    faults,
  };
  return {
    ...partial,
    asking: identification
      ? nextQuestions(cat, identification, state)
      : { questions: [], expectedMinutes: 0, allMinutes: 0, exact: true },
    checks: checkList(causes, registry, ranking, findings, state, drive),
    decision: checkDecision(state, ranking, terms, recorded),
    seals: checkSeals(state),
    lacks: lacking(registry, state, identification, drive),
  };
}

function ranSince(state: State): Ran {
  const now = state.standing.get('vehicle.odometer');
  const then = state.standing.get('kit.fitted_odometer');
  const ran: Ran = { facts: [] };
  if (typeof now?.value === 'number' && typeof then?.value === 'number' && now.value >= then.value) {
    ran.km = now.value - then.value;
    const u = Math.hypot(now.u ?? 0, then.u ?? 0);
    if (u > 0) ran.u = u;
    ran.facts.push(now.id, then.id);
  }
  const months = monthsRun(textOf(state, 'kit.fitted'), textOf(state, 'case.date'));
  if (months !== undefined && months >= 0) ran.months = months;
  return ran;
}

function kitFits(kits: readonly KitMatch[], named: string | undefined): boolean | undefined {
  const match = kits.find((k) => k.kit.number === named);
  return match === undefined || match.verdict === 'fits_if' ? undefined : match.verdict === 'fits';
}

function faultAnswers(state: State, ranking: Ranking, procedure?: Procedure): FaultAnswer[] {
  const decided = textOf(state, 'cause.decided') ?? ranking.causes[0]?.cause.key;
  const wanted = ranking.causes.find((c) => c.cause.key === decided)?.cause.fault;
  return FAULTS.map((fault) => ({
    fault,
    step: faultStep(fault, procedure),
    evidence: faultEvidence(fault, ranking),
    recorded: state.standing.get(faultKey(fault.code)),
    proposed: fault.code === wanted,
  }));
}

/** Checks worth making, by bits per minute, with the observable to file. */
function checkList(
  causes: CauseData,
  registry: Registry,
  ranking: Ranking,
  findings: readonly Finding[],
  state: State,
  drive: DriveAnswer | undefined,
): Answers['checks'] {
  return checkWorth(causes, ranking, findings)
    .map((c) => {
      const key = keyOfFinding(c.finding);
      return { ...c, key, minutes: registry.get(key)?.minutes ?? 1 };
    })
    .filter((c) => {
      const o = registry.get(c.key);
      return o !== undefined && applies(o, drive) && !state.standing.has(c.key) && c.bits > 0.005;
    })
    .sort((a, b) => b.bits / b.minutes - a.bits / a.minutes);
}

function lacking(
  registry: Registry,
  state: State,
  id: Identification | undefined,
  drive: DriveAnswer | undefined,
): Record<Station, string[]> {
  const lacks = Object.fromEntries(STATIONS.map((s) => [s, []])) as unknown as Record<Station, string[]>;
  for (const o of registry.values())
    if (o.needed && !state.standing.has(o.key) && applies(o, drive)) lacks[o.station].push(o.key);
  if (id?.possible.length !== 1) lacks.identify.push('variant');
  if (!state.standing.has('cause.decided')) lacks.cause.push('cause.decided');
  if (state.standing.has('claim.decision') && !state.standing.has('claim.reason'))
    lacks.settle.push('claim.reason');
  if (!state.standing.has('report.issue')) lacks.settle.push('report.issue');
  return lacks;
}
