import * as z from 'zod';
import '@core/quantity/plain-schemas';

/** In place of a value: why nothing is said. It was passed over on purpose, or looked at or asked for in vain. */
export const SilentSchema = z.strictObject({ none: z.enum(['notExamined', 'unknown']) });
export type Silent = Readonly<z.infer<typeof SilentSchema>>;
export type Why = Silent['none'];

const Spot = z.strictObject({ x: z.number(), y: z.number() });
/** Spots of one overlay at most: a chain has so many links. */
export const MOST_SPOTS = 400;

/** What was picked on a picture: data beside the untouched original. Lengths mm, spots pixels of the original. */
export const OverlaySchema = z.strictObject({
  is: z.literal('overlay'),
  /** SHA-256 of the picture, and the observable that was measured on it. */
  hash: z.string().max(64),
  key: z.string().max(120),
  scale: z.enum(['ruler', 'rectangle', 'counted']),
  /** Between the marks of a ruler; or width and height of a rectangle; what is counted needs no scale. */
  sides: z.array(z.number().positive()).max(2),
  sideU: z.number().nonnegative(),
  marks: z.array(Spot).max(4),
  spots: z.array(Spot).max(MOST_SPOTS),
});

/** A fitting sheet that went out or came back: its digest, the mark of what came back, and how many of its steps. */
const SheetSchema = z.strictObject({
  is: z.literal('sheet'),
  sheet: z.string().min(1).max(64),
  content: z.string().max(64).optional(),
  steps: z.number().int().min(0).max(10_000),
  of: z.number().int().min(0).max(10_000),
});

/** Answers of a house to what practitioners disagree on, by question; what it leaves as it ships is not among them. */
const PolicyAnswersSchema = z.strictObject({
  is: z.literal('policy'),
  chosen: z.record(z.string().max(40), z.string().max(40)),
});

/** Readings over time under one condition: seconds, and values in the base unit of the observable. */
const SeriesSchema = z
  .strictObject({
    is: z.literal('series'),
    t: z.array(z.number()).max(1000),
    values: z.array(z.number()).max(1000),
  })
  .refine((s) => s.t.length === s.values.length, 'as many times as values');

/** Who signed an issue: the fact that seals it, the signer's public key and the signature, lower-case hex. */
const SignatureSchema = z.strictObject({
  is: z.literal('signature'),
  seal: z.string().min(1).max(200),
  key: z.string().regex(/^04[0-9a-f]{128}$/),
  signature: z.string().regex(/^[0-9a-f]{128}$/),
});

/** Values with parts. Each is read by its own schema, and never put into a text to be taken apart again. */
export const StructuredSchema = z.union([
  OverlaySchema,
  SheetSchema,
  PolicyAnswersSchema,
  SeriesSchema,
  SignatureSchema,
]);
export type Structured = Readonly<z.infer<typeof StructuredSchema>>;
/** The structured value of one sort. */
export type StructuredAs<K extends Structured['is']> = Extract<Structured, { is: K }>;

/** A value as the structured one of a sort; undefined when it is none. */
export const asStructured = <K extends Structured['is']>(
  is: K,
  value: unknown,
): StructuredAs<K> | undefined =>
  typeof value === 'object' && value !== null && 'is' in value && value.is === is
    ? (value as StructuredAs<K>)
    : undefined;

/** Whether a value has parts. */
export const isStructured = (value: unknown): value is Structured =>
  typeof value === 'object' && value !== null && 'is' in value;

/** A value without parts as plain text: a key, a figure, a list; empty for what has parts or says nothing. */
export const plainText = (
  value: string | number | readonly (string | number)[] | Structured | Silent,
): string => (typeof value === 'object' && !isList(value) ? '' : String(value));
const isList = (value: object): value is readonly (string | number)[] => Array.isArray(value);
