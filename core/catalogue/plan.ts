import * as z from 'zod';
import '@core/quantity/plain-schemas';

/** Papers that a plan may ask for. */
export const DOCUMENTS = ['invoice', 'sheet'] as const;
export type DocumentKind = (typeof DOCUMENTS)[number];
/** Where terms begin: at the fitting, at the sale, or at the sale where the fitting is not known. */
export const STARTS = ['fitted', 'sold', 'fitted_else_sold'] as const;
export type Start = (typeof STARTS)[number];
/** What a claim may ask for. */
export const COST_KINDS = ['part', 'labour', 'other'] as const;
export type CostKind = (typeof COST_KINDS)[number];

/** A step of our share: after so many whole months it is so much, of 1. */
const StepSchema = z.strictObject({ after: z.number().int().positive(), share: z.number().min(0).max(1) });
/** Left out where an observation says one of these. */
const ExclusionSchema = z.strictObject({
  key: z.string().min(1).max(60),
  is: z.array(z.string().min(1).max(60)).min(1),
  why: z.string().max(200),
});

/**
 * Warranty terms of a kit: limits, whichever comes first, from where they run, what is borne and how much of it, what is left out,
 * and what has to be shown. No limit by months or by km: none of that kind; neither: for life.
 */
export const PlanSchema = z.strictObject({
  name: z.string().max(80).optional(),
  months: z.number().int().positive().optional(),
  km: z.number().positive().optional(),
  /** At the fitting where it is left out. */
  from: z.enum(STARTS).optional(),
  /** Kinds of cost that are borne; all of them where it is left out. */
  bears: z.array(z.enum(COST_KINDS)).min(1).optional(),
  /** Our share by months, the first step first; it never grows. */
  shares: z
    .array(StepSchema)
    .refine((steps) => steps.every((s, i) => i === 0 || s.after > (steps[i - 1]?.after ?? 0)), {
      message: 'later steps come after earlier ones',
    })
    .refine((steps) => steps.every((s, i) => s.share <= (steps[i - 1]?.share ?? 1)), {
      message: 'a share never grows with time',
    })
    .optional(),
  excludes: z.array(ExclusionSchema).optional(),
  /** Papers without which no claim under these terms is decided. */
  documents: z.array(z.enum(DOCUMENTS)).optional(),
});
export type Plan = z.infer<typeof PlanSchema>;
