import { oncePer, oncePerName } from '@core/quantity/keep';
import { nth } from '@core/quantity/must';
import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { HAS, hasAll, kindWord } from '@core/drive/drive-has';
import { own } from '@core/quantity/own';
import causes from './data/causes.json';
import findings from './data/findings.json';
import mechanisms from './data/mechanisms.json';

const Share = z.number().gt(0).lt(1);
const Shares = z.record(z.string(), Share);
const Needs = z.array(z.enum(HAS)).optional();

/** A run until failure: Weibull, km. */
const Life = z.strictObject({ shape: z.number().positive(), scale: z.number().positive() });
export type LifeTime = z.infer<typeof Life>;

/** Who bears what a cause comes of. */
const BEARERS = ['fitter', 'supplier', 'engine', 'owner', 'carrier', 'dealer', 'nobody'] as const;

const CauseSchema = z.strictObject({
  key: z.string(),
  wording: z.string(),
  family: z.string(),
  prior: Share,
  /** What a drive must have for it to occur there; any drive unless given. */
  needs: Needs,
  /** Code of the installation fault that it is, if it is one. */
  fault: z.string().optional(),
  mechanism: z.string(),
  consequence: z.string(),
  bears: z.enum(BEARERS),
  /** What is noticed of it, by the name of a profile. */
  symptoms: z.string(),
  /** Distance from the fitting until it is noticed. */
  life: Life,
  /** How surely it sets off each mechanism, from what comes first to what follows. */
  works: Shares,
  /** By finding the grades that show the cause itself, and not only what comes of it. */
  seen: z.record(z.string(), z.array(z.string()).min(1)).optional(),
});
export type CauseEntry = z.infer<typeof CauseSchema>;

const MechanismSchema = z.strictObject({
  key: z.string(),
  wording: z.string(),
  needs: Needs,
  /** How often it is at work though none of the causes set it off. */
  leak: Share,
  /** By finding: how surely it shows as each abnormal grade; the rest stays sound. */
  shows: z.record(z.string(), Shares),
});

const FindingSchema = z.strictObject({
  finding: z.string(),
  /** Observables that have to be filed to get it; the finding's own key unless given. */
  inputs: z.array(z.string()).optional(),
  /** Grades that need no explanation. */
  sound: z.array(z.string()).min(1),
  /** Abnormal grades, each with its share where no mechanism is at work: mistaken inspections, other sources. */
  off: Shares,
  /** Abnormal grades that ordinary use comes to as well: they need no fault. */
  ordinary: z.array(z.string()).optional(),
  /** A number is read by bands between these edges, each a grade. */
  edges: z.array(z.number()).min(2).optional(),
  grades: z.array(z.string()).optional(),
});
export type FindingSpec = z.infer<typeof FindingSchema>;

const JudgementSchema = z.strictObject({
  /** How often what was seen of a cause itself is no such cause: a mistaken look. */
  deceives: Share,
  /** With nothing abnormal, how much likelier each sound inspection makes it that nothing is wrong, and all together at most. */
  soundLook: z.strictObject({ each: z.number().min(1), most: z.number().min(1) }),
  /** On so few findings or fewer no cause is surer than this, unless it was seen itself. */
  few: z.strictObject({ findings: z.number().int().positive(), most: Share }),
});

export const CauseDataSchema = z.strictObject({
  edition: z.number().int().positive(),
  none: z.strictObject({ prior: Share, wording: z.string() }),
  /** What is decided where nothing can be: an outcome of its own, with a reason. */
  undecidable: z.strictObject({ wording: z.string() }),
  /** Two causes at once are as much rarer than their shares alone would make them; odds against one cause from which they are said. */
  pair: z.strictObject({ penalty: Share, odds: z.number().gt(1) }),
  /** A fault that the fitting sheet shows: how often with its cause, and at large; the cause that each code is. */
  sheet: z.strictObject({
    hit: Share,
    background: Share,
    /** Of each code the causes that it is; the one that the drive at hand can have. */
    names: z.record(z.string(), z.array(z.string()).min(1)),
    /** Codes of steps that change nothing by themselves, each with why. */
    none: z.record(z.string(), z.string().min(20)),
  }),
  /** Profiles of what is noticed: the share of each symptom. */
  symptoms: z.record(z.string(), Shares),
  /** How much commoner families of causes are on one kind of drive (belt, chain) and in what comes in one way (return, claim) than at large. */
  tilts: z.record(z.string(), z.record(z.string(), z.number().positive().max(10))),
  /** Cases in which a cause is expected at which the house's own settled cases count as much as what ships. */
  ownCases: z.number().positive(),
  /** Of two cases, bits: what an inspection that shows something in one of them only takes off their likeness, and what the same being noticed adds, which many have in common. */
  alike: z.strictObject({ differs: z.number().nonnegative(), noticed: z.number().nonnegative() }),
  /** What a drive runs a month, km: median, and the spread of its logarithm. */
  yearly: z.strictObject({ kmPerMonth: z.number().positive(), sd: z.number().positive() }),
  /** How far returns at large have run, km; how surely a life is known: the rest is a return like any, so that no run alone rules a cause out. */
  lives: z.strictObject({ atLarge: Life, sure: Share }),
  /** Where nothing is wrong, mechanisms are rarer than at large by this. */
  quiet: Share,
  /** What holds beside the sums; none of it where it is not given. */
  judgement: JudgementSchema.optional(),
  /** Findings that say one and the same in two places: of those of a group that were filed the first counts. */
  same: z.array(z.array(z.tuple([z.string(), z.string()])).min(2)).optional(),
  /** What was done to parts after they came off, and what of their findings it leaves: the rest of each says nothing. */
  screens: z
    .array(
      z.strictObject({
        by: z.tuple([z.string(), z.string()]),
        findings: z.array(z.string()).min(1),
        left: Share,
      }),
    )
    .optional(),
  contradictions: z.array(
    z.strictObject({
      a: z.tuple([z.string(), z.string()]),
      b: z.tuple([z.string(), z.string()]),
      wording: z.string(),
      /** What it means for the answer, and what to do about it. */
      means: z.string(),
    }),
  ),
  /** What sinks a cause whatever else speaks for it: a denial, or any abnormal inspection where nothing is to be wrong. */
  bars: z
    .array(
      z.strictObject({
        causes: z.array(z.string()).min(1),
        by: z.union([z.literal('abnormal'), z.strictObject({ finding: z.string(), value: z.string() })]),
      }),
    )
    .optional(),
  causes: z.array(CauseSchema),
  mechanisms: z.array(MechanismSchema),
  findings: z.array(FindingSchema),
});
export type CauseData = z.infer<typeof CauseDataSchema>;

/** The knowledge that ships. */
export const CAUSES: CauseData = CauseDataSchema.parse({ ...causes, mechanisms, findings });

/** What can be decided though it is no cause. */
export const NO_CAUSE = ['none', 'undecidable'] as const;
export type NoCause = (typeof NO_CAUSE)[number];
export const noCauseOf = (key: string | undefined): NoCause | undefined => NO_CAUSE.find((k) => k === key);

/** Findings that are weighed beside those that mechanisms show in: what is noticed, how far it ran, what the sheet says. */
export const APART = {
  symptom: { finding: 'symptom', inputs: ['symptom'] },
  distance: { finding: 'distance.run', inputs: ['vehicle.odometer', 'kit.fitted_odometer', 'kit.run'] },
  time: { finding: 'time.run', inputs: ['kit.fitted', 'case.date'] },
  sheet: { finding: 'sheet.fault', inputs: [] as string[] },
} as const;

/** Every finding that is weighed; those among them that are read as numbers. */
export const weighedFindings = (data: Listed): string[] => listed(data).all;
export const numberedFindings = (data: Listed): ReadonlySet<string> => listed(data).numbers;

type Listed = Pick<CauseData, 'findings' | 'bars' | 'screens'>;

const listed = oncePer(
  ({ findings, bars, screens }: Listed): { all: string[]; numbers: ReadonlySet<string> } => {
    const all = new Set([
      ...findings.map((f) => f.finding),
      ...Object.values(APART).map((a) => a.finding),
      // what only denies a cause, or takes from what others say
      ...(bars ?? []).flatMap(({ by }) => (by === 'abnormal' ? [] : [by.finding])),
      ...(screens ?? []).map(({ by }) => by[0]),
    ]);
    const numbers = new Set(findings.flatMap((f) => (f.edges ? [f.finding] : [])));
    return { all: [...all], numbers };
  },
);

/** Observables that a finding takes. */
export function inputsOf(data: Pick<CauseData, 'findings'>, finding: string): readonly string[] {
  const apart = Object.values(APART).find((a) => a.finding === finding);
  return apart?.inputs ?? data.findings.find((f) => f.finding === finding)?.inputs ?? [finding];
}

/**
 * The causes and mechanisms that can occur on a drive with these things, in its words, each as common as it is there; all while the drive is not known.
 * @param arrival how the case came, where that is known: "return", "claim"
 */
export function causesFor(
  data: CauseData,
  has: ReadonlySet<string> | undefined,
  arrival?: string,
): CauseData {
  const key = `${arrival ?? ''}: ${has === undefined ? '*' : [...has].sort().join(' ')}`;
  return filtered(data, key, () => filter(data, has, arrival));
}

/** However common, a cause stays a share. */
export const MOST_COMMON = 0.9;

/** One and the same for drives that have the same, so that what is made of it is made once. */
const filtered = oncePerName<CauseData, CauseData>();
function filter(data: CauseData, has: ReadonlySet<string> | undefined, arrival = ''): CauseData {
  const word = kindWord(has);
  const tilts = [word, arrival].flatMap((when) => {
    const families = own(data.tilts, when);
    return families ? [families] : [];
  });
  const common = (c: CauseEntry) =>
    Math.min(
      MOST_COMMON,
      tilts.reduce((p, families) => p * (own(families, c.family) ?? 1), c.prior),
    );
  const Word = nth(word, 0).toUpperCase() + word.slice(1);
  const fill = (text: string) => text.replace(/\{drive\}/g, word).replace(/\{Drive\}/g, Word);
  return {
    ...data,
    causes: data.causes
      .filter((c) => hasAll(c.needs, has))
      .map((c) => ({
        ...c,
        prior: common(c),
        wording: fill(c.wording),
        mechanism: fill(c.mechanism),
        consequence: fill(c.consequence),
      })),
    mechanisms: data.mechanisms
      .filter((m) => hasAll(m.needs, has))
      .map((m) => ({ ...m, wording: fill(m.wording) })),
  };
}
