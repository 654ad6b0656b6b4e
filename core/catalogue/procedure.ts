import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { EffectSchema } from './effects';

const Id = z.string().min(1).max(60);
/** Ids of steps and of uses of blocks: parts of a step's whole id, which is a part of a fact's. */
const Part = z
  .string()
  .regex(/^[a-z0-9][a-z0-9-]*$/, 'an id of small letters, digits and hyphens')
  .max(24);

const STEP_KINDS = [
  'prepare',
  'position',
  'lock',
  'slacken',
  'remove',
  'clean',
  'inspect',
  'fit',
  'align',
  'tension',
  'torque',
  'release',
  'rotate',
  'verify',
  'close',
] as const;
export type StepKind = (typeof STEP_KINDS)[number];

/** Headings under which steps stand, in the order of the work. */
export const STEP_PHASES = ['ready', 'off', 'clean', 'build', 'check', 'close'] as const;
export type StepPhase = (typeof STEP_PHASES)[number];

/** What a step is done to. */
const STEP_ON = [
  'engine',
  'vehicle',
  'crank',
  'cams',
  'cam',
  'loop',
  'tensioner',
  'shoes',
  'rollers',
  'pump',
  'ring',
  'bolt',
  'cover',
] as const;

/** What a step does to the drive, so that the drive can be drawn as it then stands. */
const STEP_SETS = [
  'crank-mark',
  'crank-before',
  'crank-safe',
  'crank-turning',
  'locate',
  'lock-crank',
  'lock-cams',
  'unlock',
  'unlock-stop',
  'unlock-crank',
  'unlock-cams',
  'loop-off',
  'loop-slack',
  'loop-gives',
  'loop-taut',
  'tensioner-slack',
  'tensioner-off',
  'tensioner-start',
  'tensioner-nominal',
  'pin-in',
  'pin-out',
  'cam-loose',
  'cam-tight',
  /** Shown at this step only: the way of key and pointer, marks, the way of running. */
  'show-key',
  'show-marks',
  'show-running',
] as const;
export type StepSets = (typeof STEP_SETS)[number];

/** A number that stands in the data, or the name of one that the drive gives, such as "{count}". */
const Bound = z.union([z.number(), z.string().regex(/^\{\w+\}$/)]);
const QUANTITIES = [
  'length',
  'angle',
  'torque',
  'temperature',
  'difference',
  'count',
  'minutes',
  'reading',
] as const;
export type Quantity = (typeof QUANTITIES)[number];
/** One figure that proves a step. Lengths mm, angles °, torques N·m, temperatures °C; `reading` as the tensioner shows. */
const AskSchema = z.strictObject({
  id: Part,
  wording: z.string(),
  quantity: z.enum(QUANTITIES),
  from: Bound.optional(),
  to: Bound.optional(),
  /** Only whole multiples of it are right: turns come in whole working cycles. */
  every: z.number().int().positive().max(99).optional(),
  /** Observable that the figure is filed under as well. */
  key: z.string().optional(),
});
export type Ask = z.infer<typeof AskSchema>;

const PROVED_BY = ['look', 'measure', 'count', 'feel', 'torque'] as const;
const ProofSchema = z.strictObject({
  by: z.enum(PROVED_BY),
  text: z.string(),
  asks: z.array(AskSchema).max(4).optional(),
});

const ToolSchema = z.strictObject({
  name: z.string(),
  /** Accepted instead where the house allows it, each with its risk. */
  instead: z.array(z.strictObject({ name: z.string(), risk: z.string() })).optional(),
});

const TorqueSchema = z.strictObject({
  fastener: z.string(),
  count: z.number().int().positive().max(99).optional(),
  /** "42 N·m", "42 N·m / 31 lbf·ft", "+90°", "back 360°" (torque-plan.ts). */
  stages: z.array(z.string()).min(1).max(8),
  leftHand: z.boolean().optional(),
  /** A new one every time. */
  singleUse: z.boolean().optional(),
});

/** Numbered pattern of bolts in rows, from the middle outward or from one end, in rounds. */
const PatternSchema = z.strictObject({
  rows: z.number().int().min(1).max(6),
  columns: z.number().int().min(1).max(12),
  from: z.enum(['middle', 'ends']),
  rounds: z.number().int().min(1).max(6),
});

const WHENS = ['skipped', 'reversed', 'wrong', 'time'] as const;
export type When = (typeof WHENS)[number];

const StepShape = {
  id: Part,
  kind: z.enum(STEP_KINDS),
  on: z.enum(STEP_ON).optional(),
  /** What and where. {key}, {nominal}, {route} and the like are written from the layout (core/fitting/values.ts). */
  text: z.string(),
  /** What a drive must have for this step to be on its sheet. */
  needs: z.array(z.string()).optional(),
  /** It is there only where the house chose so (core/policy/data/questions.json): [question, answer]. */
  rule: z.tuple([z.string(), z.string()]).optional(),
  /** Turns by hand, for {turns}. */
  turns: z.number().int().min(2).max(99).optional(),
  tool: ToolSchema.optional(),
  torque: TorqueSchema.optional(),
  pattern: PatternSchema.optional(),
  /** What must be true before. */
  before: z.string().optional(),
  /** What proves it done. A text alone is an inspection. */
  proof: z.union([z.string(), ProofSchema]).optional(),
  /** What to ask the fitter about it. */
  ask: z.string().optional(),
  /** What happens when it is skipped or done wrong. */
  fault: z.string().optional(),
  /** Installation faults that follow, by how it went (core/claim/data/faults.json). */
  faults: z.partialRecord(z.enum(WHENS), z.string()).optional(),
  caution: z.string().optional(),
  /** What has to be new when it is undone and done again; "never": it cannot be made up for later. */
  undo: z.string().optional(),
  sets: z.array(z.enum(STEP_SETS)).optional(),
  /** What it does to which thing (effects.ts): the sheet is judged by these, not by its words. */
  does: z.array(EffectSchema).max(12).optional(),
  /** Heading that it stands under; without this its block's, else by its kind. */
  phase: z.enum(STEP_PHASES).optional(),
  /** Older packs: one torque. */
  torqueNm: z.number().positive().optional(),
};
const StepSchema = z.strictObject(StepShape);
export type StepRow = z.infer<typeof StepSchema>;

/** Over what a block is laid: once for each stage, cam or eccentric idler of the drive. */
const EACH = ['stage', 'cam', 'idler'] as const;
const UseSchema = z.strictObject({
  use: Id,
  as: Part.optional(),
  with: z.record(z.string(), z.string()).optional(),
  each: z.enum(EACH).optional(),
  /** The last first: idlers from the crank along the tight side; in older packs the innermost stage. */
  inward: z.boolean().optional(),
  /** Stages by the rows that they lie in: the front one first, or the rear one; each waits for the one before. */
  order: z.enum(['front', 'rear']).optional(),
  /** Why a row waits for the one before, where an order is given. */
  why: z.string().optional(),
  /** Its rows stand as if written here: no name before their ids. */
  inline: z.boolean().optional(),
  /** Heading of its steps that name none. */
  phase: z.enum(STEP_PHASES).optional(),
  needs: z.array(z.string()).optional(),
  rule: StepShape.rule,
});
export type Use = z.infer<typeof UseSchema>;

/** One step before others, why, and the fault that breaking it is. Ids as in the procedure: "step" or "use.step". */
const GateSchema = z.strictObject({
  before: z.string(),
  after: z.union([z.string(), z.array(z.string()).min(1)]),
  why: z.string(),
  fault: z.string().optional(),
  needs: z.array(z.string()).optional(),
  rule: StepShape.rule,
});
export type GateRow = z.infer<typeof GateSchema>;

export const ProcedureSchema = z.strictObject({
  id: Id,
  name: z.string(),
  /** What a drive must have for this procedure to be its own, such as ["belt", "automatic_eccentric"]. */
  for: z.array(z.string()).optional(),
  /** A block is no procedure by itself: others use it, and fill in its parameters. */
  block: z.boolean().optional(),
  params: z.array(z.string()).optional(),
  steps: z.array(z.union([StepSchema, UseSchema])),
  gates: z.array(GateSchema).optional(),
});
export type Procedure = z.infer<typeof ProcedureSchema>;

export const isUse = (s: StepRow | Use): s is Use => 'use' in s;
