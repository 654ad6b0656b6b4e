import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { asStructured, type StructuredAs } from '@core/facts/value';
import { oncePerName } from '@core/quantity/keep';
import { own } from '@core/quantity/own';
import choices from './data/questions.json';
import data from './data/figures.json';

const PolicyQuestionSchema = z.strictObject({
  key: z.string(),
  question: z.string(),
  options: z
    .array(
      z.strictObject({
        key: z.string(),
        wording: z.string(),
        /** What is printed on the sheets that it shapes. */
        sheet: z.string(),
      }),
    )
    .min(2),
  default: z.string(),
  /** Why the default is the default. */
  why: z.string(),
});
export type PolicyQuestion = Readonly<z.infer<typeof PolicyQuestionSchema>>;

/** What practitioners disagree on, and how a house may decide. */
export const POLICY_QUESTIONS: readonly PolicyQuestion[] = z
  .array(
    PolicyQuestionSchema.refine(
      (c) => c.options.some((o) => o.key === c.default),
      'its default is no option',
    ),
  )
  .parse(choices);

const PolicySchema = z.strictObject({
  edition: z.number().int().positive(),
  /** A decided cause below this share of the weight is pointed out. */
  weakLeader: z.number().gt(0).lt(1),
  /** The leader explains a finding when it makes it at least this many times likelier than it is at large. */
  explainedFactor: z.number().gt(1),
  /** Distance after which oil is held overdue, km, where the vehicle maker tells no other. */
  oilKm: z.number().positive(),
  /** Causes of supplier and fitter are not told apart while neither side has so many times the share of the other. */
  sidesApart: z.number().gt(1),
  /** Minutes that any look takes before it begins (the part, the light, the gauge); minutes to ask somebody who stands at the engine, to have something of the engine looked at once parts came off it, and to take a part out. */
  minutesTo: z.strictObject({
    begin: z.number().nonnegative(),
    ask: z.number().nonnegative(),
    engine: z.number().nonnegative(),
    takeOut: z.number().nonnegative(),
  }),
  /** A check that is worth less is not proposed, bits. */
  leastBits: z.number().nonnegative(),
  /** Smallest piece of a guide that matters in a sump, g. */
  leastPieceG: z.number().positive(),
  /** Smallest outline of a piece that matters, mm², and the share by which a picture's scale may be off on all pieces (standard). */
  leastPieceMm2: z.number().positive(),
  areaShare: z.number().nonnegative(),
  /** Change of a depth along a guide that matters, mm per 100 mm. */
  alongMmPer100: z.number().positive(),
  /** Bias of a bench scale that all pieces share, g. */
  scaleBiasG: z.number().nonnegative(),
  /** What a step is still suspected, after the fitter confirmed it, while nobody said, and when its sheet shows it. */
  suspicion: z.strictObject({
    confirmed: z.number().positive(),
    open: z.number().positive(),
    shown: z.number().positive(),
  }),
  /** Fewer marks than this repeat with any wheel; a wheel is named when chance does as well in fewer than this share of belts. */
  leastMarks: z.number().int().min(3),
  namedBelow: z.number().gt(0).lt(0.05),
  /** Share of a wrench's range below which its reading means little. */
  goodWrenchFrom: z.number().gt(0).lt(1),
  /** Standard uncertainty of a spot pressed on a photograph, pixels of the screen. */
  pickScreenPx: z.number().positive(),
  /** Standard uncertainty of a ruler's length or a rectangle's side that gives a photograph its scale, mm. */
  scaleSideU: z.number().nonnegative(),
  /** Seconds of a leak-down that belong to the first elastic take-up, and the most that a sound plunger sinks, mm/s. */
  takeUpS: z.number().nonnegative(),
  leakMaxMmPerS: z.number().positive(),
  /** A slow press for reuse: turns a minute, the screw's pitch, mm, and how long the oil is waited for, s. */
  press: z.strictObject({
    turnsPerMin: z.number().positive(),
    pitchMm: z.number().positive(),
    waitS: z.number().nonnegative(),
  }),
  /** Degrees of the crank by which cam and crank of a good engine may differ from a known-good capture. */
  traceToleranceDeg: z.number().positive(),
  /** Standard uncertainty of a cam edge that a design names: how sensors are mounted, crank degrees. */
  traceDesignU: z.number().positive(),
  /** A finding speaks for an installation fault when it moves its cause by so much, natural log, and that cause has at least this share. */
  speaks: z.strictObject({ share: z.number().gt(0).lt(1), nats: z.number().positive() }),
  /** Shares from which a cause is almost certain, probable, more likely than not; below the last a case is open. */
  sureFrom: z.strictObject({
    certain: z.number().gt(0).lt(1),
    probable: z.number().gt(0).lt(1),
    likely: z.number().gt(0).lt(1),
  }),
  /** Sum of a claim from which a second person signs its decision, in the house's money; days within which one is promised. */
  secondFrom: z.number().positive(),
  promiseDays: z.number().int().positive(),
  /** Minutes that an engine has to stand before it counts as cold when nobody measured it. */
  coldMinutes: z.number().positive(),
  /** Minutes that sealant cures before oil comes to it, where its maker says nothing longer. */
  cureMinutes: z.number().positive(),
  /** Share by which a wrench may be off the torque of a step. */
  wrenchWithin: z.number().gt(0).lt(0.5),
  /** Degrees within which an eccentric idler is set to where it is drawn. */
  eccentricWithinDeg: z.number().positive(),
  /** Least room between valve and piston, and between two valves, with which a shaft is turned by itself, mm. */
  leastRoomMm: z.number().positive(),
  /** Kelvin within which engine and air count as one temperature. */
  coldWithinK: z.number().positive(),
});
/** Figures of the house, and its answer to each question that practitioners disagree on. */
export type Policy = Readonly<z.infer<typeof PolicySchema>> & {
  readonly chosen: Readonly<Record<string, string>>;
};

const FIGURES = PolicySchema.parse(data);
const DEFAULTS: Readonly<Record<string, string>> = Object.fromEntries(
  POLICY_QUESTIONS.map((c) => [c.key, c.default]),
);

/** Policy as shipped. */
export const SHIPPED_POLICY: Policy = { ...FIGURES, chosen: DEFAULTS };

const kept = oncePerName<Policy, Policy>();
/** Rules with some answers of the house's own; one and the same object for the same answers. Unknown ones are left out. */
export function policyWith(answers: Readonly<Record<string, string>>): Policy {
  const ours = ownAnswers(answers);
  if (Object.keys(ours).length === 0) return SHIPPED_POLICY;
  return kept(SHIPPED_POLICY, JSON.stringify(ours), () => ({
    ...FIGURES,
    chosen: { ...DEFAULTS, ...ours },
  }));
}

/** Answers that are known and not as they ship, in the order of the questions. */
const ownAnswers = (chosen: Readonly<Record<string, string>>): Readonly<Record<string, string>> =>
  Object.fromEntries(
    POLICY_QUESTIONS.flatMap((c): [string, string][] => {
      const is = own(chosen, c.key);
      return is !== undefined && is !== c.default && c.options.some((o) => o.key === is) ? [[c.key, is]] : [];
    }),
  );

/** What a case keeps of the rules that it is judged by. */
export const policyToKeep = (policy: Policy): StructuredAs<'policy'> => ({
  is: 'policy',
  chosen: { ...ownAnswers(policy.chosen) },
});

/** The rules that a case kept. Earlier makes wrote "marks=exact; turns=4", or "as shipped". */
export function policyFrom(value: unknown): Policy | undefined {
  const kept = asStructured('policy', value);
  if (kept) return policyWith(kept.chosen);
  if (typeof value !== 'string') return undefined;
  return policyWith(
    Object.fromEntries(
      value.split(/;\s*/).flatMap((pair): [string, string][] => {
        const [key, is] = pair.split('=');
        return key && is ? [[key, is]] : [];
      }),
    ),
  );
}

/** Turns by hand before marks count: what the procedure asks for, and never fewer than the house does. */
export const leastTurns = (policy: Policy, procedure = 0): number =>
  Math.max(Number(policy.chosen['turns'] ?? 2), procedure);
