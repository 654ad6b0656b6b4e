import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { PlaceSchema } from './place';
import { isWhole } from './text';
import { type Silent, SilentSchema, StructuredSchema } from './value';

/** How a fact is known. Order is by strength, strongest first. */
export const PROVENANCES = [
  'measured',
  'seen',
  'document',
  'computed',
  'reported',
  'imported',
  'decided',
] as const;
export type Provenance = (typeof PROVENANCES)[number];

/** Facts of one case at most: far more than anybody files, and few enough to be read at once. */
export const MOST_FACTS = 20_000;
/** Signs that a text and a note hold. */
export const LONGEST_TEXT = 20_000;
export const LONGEST_NOTE = 5000;
const HALF = 'the text holds half of a sign';
const Hash = z.string().regex(/^[0-9a-f]{64}$/);
export const FileRefSchema = z.strictObject({
  /** SHA-256 of the content, lower-case hex: the file is kept by it, once, and never inside a fact. */
  hash: Hash,
  name: z.string().min(1).max(200),
  type: z.string().max(100),
  bytes: z.number().int().min(0).max(1e12),
});
export type FileRef = Readonly<z.infer<typeof FileRefSchema>>;

/**
 * One thing that was reported, seen, measured, computed, decided or imported. Facts are only ever added.
 * - `about` is the thing that it is about; without one it is the first of the observable's kind.
 * - `place` is where on that thing; `series` the repeats that it is one of; `files` photographs, captures, documents.
 * - `value` is in the observable's base unit; choices by key; dates as "YYYY-MM-DD"; lists for several; an object for what has
 *   parts; or why nothing is said.
 * - `u` is the standard uncertainty in the same unit (JCGM 100).
 * - `supersedes` names the facts that this one corrects; `strikes` the fact that this one withdraws (value is then '').
 * - `basis` names the facts on which a computed or decided fact stands.
 */
export const FactSchema = z.strictObject({
  id: z.string().min(1).max(80),
  case: z.string().min(1).max(80),
  about: z
    .string()
    .regex(/^[a-z0-9][a-z0-9:_.-]*$/i)
    .max(120)
    .optional(),
  key: z.string().regex(/^[a-z][a-z0-9_.-]*$/i),
  place: PlaceSchema.optional(),
  series: z.string().min(1).max(80).optional(),
  files: z.array(FileRefSchema).min(1).max(50).optional(),
  value: z.union([
    z.number().min(-1e15).max(1e15),
    z.string().max(LONGEST_TEXT).refine(isWhole, HALF),
    z.array(z.string().max(200).refine(isWhole, HALF)).max(500),
    z.array(z.number().min(-1e15).max(1e15)).max(2000),
    SilentSchema,
    StructuredSchema,
  ]),
  u: z.number().positive().max(1e15).optional(),
  how: z.enum(PROVENANCES),
  by: z.string().min(1).max(120),
  at: z.iso.datetime(),
  /**
   * One more than the greatest of the facts that its desk knew of this case when it was filed (Lamport 1978): order that no
   * clock can turn round. Facts of earlier makes have none.
   */
  seen: z.number().int().min(1).max(1e12).optional(),
  /** One fact or several: a correction that ends a contradiction names all of its sides. */
  supersedes: z.union([z.string(), z.array(z.string()).min(1).max(100_000)]).optional(),
  strikes: z.string().optional(),
  basis: z.array(z.string()).max(100_000).optional(),
  /** Facts filed by one act of a person have the same; they are undone together. */
  act: z.string().min(1).max(80).optional(),
  note: z.string().max(LONGEST_NOTE).refine(isWhole, HALF).optional(),
});
export type Fact = Readonly<z.infer<typeof FactSchema>>;
/** All that a fact can hold, also that nothing is said. */
export type FactValue = Fact['value'];
/** What says something: readers of a state meet no other. */
export type Said = Exclude<FactValue, Silent>;
export type SaidFact = Fact & { readonly value: Said };

/** Ids of the facts that a fact corrects. */
export const correctedBy = (f: Pick<Fact, 'supersedes'>): readonly string[] =>
  f.supersedes === undefined ? [] : typeof f.supersedes === 'string' ? [f.supersedes] : f.supersedes;

/** What the edges lend to pure code: who acts, the time, and fresh ids. */
export type Author = { by: string; now: () => string; newId: () => string };
