import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { FeatureSchema } from '@core/catalogue/pack';
import data from './data/families.json';

const Dim = z.union([z.number(), z.string(), z.array(z.number())]);
const VariantSketch = z.strictObject({
  key: z.string(),
  name: z.string(),
  share: z.number(),
  template: z.string(),
  features: z.record(z.string(), z.array(z.string())),
  from: z.string().optional(),
  to: z.string().optional(),
  slackDays: z.number(),
  markets: z.array(z.string()),
  dims: z.record(z.string(), Dim),
  /** A layout that is computed: belt teeth and height of the cam over the crank. */
  sketch: z.strictObject({ count: z.number(), camY: z.number(), kind: z.string() }).optional(),
  options: z.array(z.string()),
  procedure: z.string(),
});
const Families = z.strictObject({
  features: z.array(FeatureSchema),
  families: z.array(
    z.strictObject({
      code: z.string(),
      maker: z.string(),
      family: z.string(),
      vehicles: z.array(z.string()),
      interference: z.enum(['yes', 'no', 'unknown']),
      interval: z.strictObject({ km: z.number(), months: z.number() }),
      variants: z.array(VariantSketch),
    }),
  ),
});

export const FAMILIES = Families.parse(data);
export type FamilySketch = (typeof FAMILIES)['families'][number];
export type VariantSketch = FamilySketch['variants'][number];
