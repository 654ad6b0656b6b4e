import * as z from 'zod';
import { LayoutSchema } from '@core/drive/layout';

z.config({ jitless: true });

const Id = z.string().min(1).max(60);
const DayText = z.string().regex(/^\d{4}-\d{2}-\d{2}$/);

export const EngineSchema = z.strictObject({
  code: Id,
  maker: z.string(),
  family: z.string(),
  vehicles: z.array(z.string()),
  /** Do valves meet pistons when timing is lost? Unknown counts as yes. */
  interference: z.enum(['yes', 'no', 'unknown']),
});
export type Engine = z.infer<typeof EngineSchema>;

/** What it costs to look, by strip-down. */
export const LOOKS = ['phone', 'eye', 'cover', 'front'] as const;
export const FeatureSchema = z.strictObject({
  id: Id,
  wording: z.string(),
  /** The sentence to say on the phone. */
  say: z.string(),
  look: z.enum(LOOKS),
  options: z.array(z.strictObject({ key: Id, wording: z.string() })).min(2),
});
export type Feature = z.infer<typeof FeatureSchema>;

export const VariantSchema = z.strictObject({
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
  layout: Id.optional(),
  procedure: Id.optional(),
});
export type Variant = z.infer<typeof VariantSchema>;

export const PartSchema = z.strictObject({
  number: Id,
  kind: z.enum(['belt', 'tensioner', 'idler', 'pump', 'bolt']),
  name: z.string(),
  attributes: z.record(z.string(), z.union([z.number(), z.string()])),
});
export type Part = z.infer<typeof PartSchema>;

export const KitSchema = z.strictObject({
  number: Id,
  name: z.string(),
  contents: z.array(z.strictObject({ part: Id, quantity: z.number().int().positive() })),
  /** Warranty terms, whichever comes first. */
  terms: z.strictObject({ months: z.number().int().positive(), km: z.number().positive() }),
});
export type Kit = z.infer<typeof KitSchema>;

export const ApplicationSchema = z.strictObject({ kit: Id, variant: Id });

export const StepSchema = z.strictObject({
  id: Id,
  kind: z.enum([
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
  ]),
  text: z.string(),
  proof: z.string().optional(),
  /** What happens when it is skipped or done wrong. */
  fault: z.string().optional(),
  caution: z.string().optional(),
  torqueNm: z.number().positive().optional(),
});
export const ProcedureSchema = z.strictObject({
  id: Id,
  name: z.string(),
  interval: z.strictObject({ km: z.number(), months: z.number() }),
  steps: z.array(StepSchema),
});
export type Procedure = z.infer<typeof ProcedureSchema>;

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
  procedures: z.array(ProcedureSchema),
});
export type Pack = z.infer<typeof PackSchema>;

/** Name and version as one text; cases name the pack they answer with by it. */
export const packId = (pack: Pick<Pack, 'name' | 'version'>): string => `${pack.name} ${pack.version}`;
