import type { Finding } from '@core/bench/finding';
import { findingsOf, type Ran } from '@core/bench/findings';
import { agreedMarks, marksAnswer, type MarksAnswer } from '@core/bench/marks';
import { attributeObservables } from '@core/catalogue/attribute-observables';
import type { Catalogue } from '@core/catalogue/find-records';
import { intervalFor } from '@core/catalogue/interval';
import { featureObservables } from '@core/catalogue/feature-observables';
import type { Engine, Kit, Variant } from '@core/catalogue/pack';
import { causesFor } from '@core/cause/cause-data';
import { rankCauses, type Ranking } from '@core/cause/rank';
import { checkDecision, type DecisionCheck } from '@core/claim/decision';
import { FAULTS, faultEvidence, faultStep, type InstallationFault } from '@core/claim/faults';
import { checkSeals, type SealCheck } from '@core/claim/seal';
import { judgeTerms, type TermsAnswer } from '@core/claim/terms';
import type { Fact } from '@core/facts/fact';
import type { CaseKind, Registry, Station } from '@core/facts/observable';
import { OBSERVABLES, registryWith } from '@core/facts/registry';
import { standing, textOf, thingsOf } from '@core/facts/read';
import type { State } from '@core/facts/state';
import { faultThing } from '@core/facts/thing';
import { type Sheet, type SheetStep, sheetFor } from '@core/fitting/sheet';
import { type Identification, identify } from '@core/match/identify';
import { type KitMatch, matchKits } from '@core/match/match-kits';
import { type Asking, nextQuestions } from '@core/match/next-question';
import { applies, type Possible, possibleDrives } from './applies';
import { caseKind } from './case-kind';
import { type CheckAnswer, checkList } from './checks';
import { type Contradiction, contradictionsOf } from './contradictions';
import { type DriveAnswer, driveAnswer } from './drive-answer';
import { lacking } from './lacks';
import { ranSince } from './ran';
import { type NamedThing, namedThings } from './things';

export type FaultAnswer = {
  fault: InstallationFault;
  step?: SheetStep | undefined;
  evidence: string[];
  recorded?: Fact | undefined;
  proposed: boolean;
};

/** Everything that follows from a case's facts, a catalogue and the shipped weights. Nothing of it is stored. */
export type Answers = {
  registry: Registry;
  kind: CaseKind;
  /** What facts can be about by name. */
  things: NamedThing[];
  engine?: Engine | undefined;
  identification?: Identification | undefined;
  variant?: Variant | undefined;
  asking: Asking;
  kits: KitMatch[];
  kit?: Kit | undefined;
  /** The procedure for this drive, written from its layout; none of its kind is told apart from none at all. */
  sheet?: Sheet | undefined;
  /** What the designs that are left can have: all of them, while the design is open. */
  possible: Possible;
  /** The drive, when one design is left. */
  drive?: DriveAnswer | undefined;
  /** Marks as every possible design judges them, while several are left. */
  openMarks?: MarksAnswer | undefined;
  ran: Ran;
  contradictions: Contradiction[];
  findings: Finding[];
  ranking: Ranking;
  checks: CheckAnswer[];
  terms?: TermsAnswer | undefined;
  faults: FaultAnswer[];
  decision: DecisionCheck;
  seals: SealCheck[];
  /** Keys of needed observables without a fact, and what else a station waits for. */
  lacks: Record<Station, string[]>;
};

const registries = new WeakMap<Catalogue, Registry>();
/** Registry for a catalogue; made once per catalogue, since it depends on nothing else. */
export function registryFor(cat: Catalogue): Registry {
  const known = registries.get(cat);
  if (known) return known;
  const made = registryWith(OBSERVABLES, [
    ...featureObservables(cat.pack.features),
    ...attributeObservables(),
  ]);
  registries.set(cat, made);
  return made;
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
  const possible = possibleDrives(cat, identification);
  const stages = variant ? (possible.designs[0] ?? []) : [];
  const drive = driveAnswer(stages, state, registry);
  const sheet = variant && sheetFor(cat, variant, stages);
  const openMarks =
    drive || possible.designs.length < 2
      ? undefined
      : agreedMarks(possible.designs.map((d) => marksAnswer(d, state, registry)));
  const ran = ranSince(state, registry);
  const causes = causesFor(possible.has);
  const findings = findingsOf(
    causes.evidence.map((e) => e.finding),
    {
      state,
      registry,
      applies: (key) => {
        const o = registry.get(key);
        return o !== undefined && applies(o, possible);
      },
      drive: {
        layout: drive?.layout,
        settings: drive?.settings.ok ? drive.settings.value : undefined,
        carrier: drive?.carrier,
        tensioners: drive?.tensioners ?? [],
        elongations: drive?.elongations ?? [],
        extensions: drive?.extensions ?? [],
      },
      kitFits: kitFits(kits, kitNumber),
      marks: drive?.marks ?? openMarks,
      interval: engine
        ? intervalFor(cat.pack.intervals, engine.code, textOf(state, 'vehicle.name'))
        : undefined,
      ran,
    },
  );
  const kind = caseKind(state);
  const ranking = rankCauses(causes, findings, ran.distance);
  const terms = kit
    ? judgeTerms(
        kit.terms,
        textOf(state, 'kit.fitted'),
        textOf(state, 'case.date'),
        ran.distance?.km,
        ran.back,
      )
    : undefined;
  const faults = faultAnswers(state, ranking, sheet);
  const recorded = faults.flatMap((f) => (f.recorded ? [f.recorded] : []));
  return {
    registry,
    kind,
    things: namedThings(thingsOf(state, registry), possible),
    engine,
    identification,
    variant,
    kits,
    kit,
    sheet,
    possible,
    drive,
    openMarks,
    ran,
    findings,
    ranking,
    terms,
    faults,
    contradictions: contradictionsOf(
      state,
      registry,
      possible,
      engine,
      identification?.standings.map((s) => s.variant) ?? [],
    ),
    asking: identification
      ? nextQuestions(cat, identification, state)
      : { questions: [], expectedMinutes: 0, allMinutes: 0, exact: true },
    checks: checkList(causes, registry, ranking, findings, state, possible),
    decision: checkDecision(state, ranking, terms, recorded, registry, kit?.terms.documents),
    seals: checkSeals(state),
    lacks: lacking(registry, state, kind, identification, possible),
  };
}

function kitFits(kits: readonly KitMatch[], named: string | undefined): boolean | undefined {
  const match = kits.find((k) => k.kit.number === named);
  return match === undefined || match.verdict === 'fits_if' ? undefined : match.verdict === 'fits';
}

function faultAnswers(state: State, ranking: Ranking, sheet: Sheet | undefined): FaultAnswer[] {
  const decided = textOf(state, 'cause.decided') ?? ranking.causes[0]?.cause.key;
  const wanted = ranking.causes.find((c) => c.cause.key === decided)?.cause.fault;
  return FAULTS.map((fault) => ({
    fault,
    step: faultStep(fault, sheet?.steps ?? []),
    evidence: faultEvidence(fault, ranking),
    recorded: standing(state, 'claim.fault', faultThing(fault.code)),
    proposed: fault.code === wanted,
  }));
}
