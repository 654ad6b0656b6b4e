import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { LayoutSchema } from '@core/drive/layout';
import { isDay } from '@core/quantity/dates';
import { PlanSchema } from './plan';
import { ProcedureSchema } from './procedure';

const Id = z.string().min(1).max(60);
const DayText = z.string().refine(isDay, 'is not a calendar day such as 2026-03-12');

const EngineSchema = z.strictObject({
  code: Id,
  maker: z.string(),
  family: z.string(),
  vehicles: z.array(z.string()),
  /** Do valves meet pistons when timing is lost? Unknown counts as yes. */
  interference: z.enum(['yes', 'no', 'unknown']),
});
export type Engine = z.infer<typeof EngineSchema>;

/** What it costs to look, by strip-down. */
export const WAYS_TO_SEE = ['phone', 'eye', 'cover', 'front'] as const;
/** What a figure among a feature's values measures: a bolt's thread, its key and its head are three numbers. */
export const MEASURES = [
  'thread',
  'key',
  'head',
  'length',
  'outside diameter',
  'width',
  'thickness',
] as const;

export const FeatureSchema = z.strictObject({
  id: Id,
  wording: z.string(),
  /** The sentence to say on the phone. */
  say: z.string(),
  look: z.enum(WAYS_TO_SEE),
  measures: z.enum(MEASURES).optional(),
  options: z.array(z.strictObject({ key: Id, wording: z.string() })).min(2),
});
export type Feature = z.infer<typeof FeatureSchema>;

const VariantSchema = z.strictObject({
  id: Id,
  engine: Id,
  name: z.string(),
  /** Share among engines of this code, any positive scale. */
  share: z.number().positive(),
  /** Build window; an open end is left out. `slackDays`: nobody is sure of the date by this much. */
  built: z.strictObject({
    from: DayText.optional(),
    to: DayText.optional(),
    slackDays: z.number().int().nonnegative(),
  }),
  /** Allowed values of each feature; a feature that is not listed may have any. */
  features: z.record(z.string(), z.array(Id)),
  /** Markets in which it was sold; empty: all. */
  markets: z.array(z.string()),
  layout: Id.optional(),
  procedure: Id.optional(),
});
export type Variant = z.infer<typeof VariantSchema>;

export const PART_KINDS = [
  'belt',
  'chain',
  'tensioner',
  'guide',
  'idler',
  'sprocket',
  'phaser',
  'ring',
  'pump',
  'thermostat',
  'bolt',
  'seal',
  'screen',
  'liquid',
] as const;
const PartSchema = z.strictObject({
  number: Id,
  kind: z.enum(PART_KINDS),
  name: z.string(),
  /** By attribute key (data/attributes.json); lengths in mm. */
  attributes: z.record(z.string(), z.union([z.number(), z.string()])),
  /** What of the work it is (data/step-things.json): "idler-bolt", "crank-seal". By it steps, kits and lists count alike. */
  as: z.string().max(40).optional(),
  /** The part that replaces this one by design. */
  supersededBy: Id.optional(),
});
export type Part = z.infer<typeof PartSchema>;

const KitSchema = z.strictObject({
  number: Id,
  name: z.string(),
  revision: z.number().int().positive(),
  /** What this kit has beyond the plain one, for example "crank sprocket". */
  options: z.array(z.string()),
  status: z.enum(['current', 'discontinued']),
  supersededBy: Id.optional(),
  contents: z.array(z.strictObject({ part: Id, quantity: z.number().int().positive() })),
  /** Warranty terms, whichever comes first. */
  terms: PlanSchema,
});
export type Kit = z.infer<typeof KitSchema>;

const ApplicationSchema = z.strictObject({ kit: Id, variant: Id });

/** Why a job needs a thing beyond the drive itself. */
export const JOB_KINDS = [
  'single_use',
  'seal',
  'sealant',
  'fluid',
  'reachable_now',
  'clean',
  'length',
  'check',
] as const;
const JobSchema = z.strictObject({
  variant: Id,
  item: z.string(),
  kind: z.enum(JOB_KINDS),
  /** The part that it takes; when the kit holds it, nothing is ordered. */
  part: Id.optional(),
  /** What of the work it is (data/step-things.json), as at a part. */
  as: z.string().max(40).optional(),
  quantity: z.number().int().positive(),
  why: z.string(),
  /** Given: it may be used again after this check. */
  check: z.string().optional(),
  costNow: z.number().nonnegative(),
  /** What it costs when it fails later and the drive has to come off again. */
  costLater: z.number().nonnegative(),
});
export type JobItem = z.infer<typeof JobSchema>;

const ServiceIntervalSchema = z.strictObject({
  engine: Id,
  vehicle: z.string(),
  km: z.number().positive(),
  months: z.number().int().positive(),
});
export type ServiceInterval = z.infer<typeof ServiceIntervalSchema>;

/** A number of our own for the same thing elsewhere: an older list, a dealer's shelf. */
const CrossSchema = z.strictObject({ number: Id, names: Id });

/** A catalogue as it is exchanged. Limits of parts and engines live here, never in code. */
export const PackSchema = z.strictObject({
  format: z.literal('hollow-sprocket-catalogue'),
  formatVersion: z.literal(1),
  name: z.string(),
  version: z.string(),
  issued: DayText,
  source: z.string(),
  engines: z.array(EngineSchema),
  features: z.array(FeatureSchema),
  variants: z.array(VariantSchema),
  layouts: z.array(LayoutSchema),
  parts: z.array(PartSchema),
  kits: z.array(KitSchema),
  applications: z.array(ApplicationSchema),
  jobs: z.array(JobSchema),
  intervals: z.array(ServiceIntervalSchema),
  cross: z.array(CrossSchema),
  procedures: z.array(ProcedureSchema),
});
export type Pack = z.infer<typeof PackSchema>;
