import { must } from '@core/quantity/must';
import * as z from 'zod';
import '@core/quantity/plain-schemas';
import data from './data/phrases.json';

const PhrasesSchema = z.strictObject({
  inLine: z.string(),
  ahead: z.string(),
  behind: z.string(),
  between: z.string(),
  twins: z.string(),
  and: z.string(),
  timing: z.string(),
  window: z.string(),
  /** By the house's answer to marks that stand off. */
  tolerance: z.strictObject({ computed: z.string(), exact: z.string() }),
  safe: z.strictObject({
    after: z.string(),
    around: z.string(),
    first: z.string(),
    next: z.string(),
    or: z.string(),
    none: z.string(),
  }),
  /** A sense with where it is seen from. */
  seen: z.strictObject({ front: z.string(), rear: z.string(), across: z.string() }),
  /** Marks that come back only after more turns. */
  later: z.string(),
  laterFirst: z.string(),
  slack: z.strictObject({ timed: z.string(), untimed: z.string() }),
  /** What a shaft that turns alone does, by what the catalogue knows of the engine. */
  meets: z.strictObject({ yes: z.string(), no: z.string() }),
  clear: z.strictObject({
    back: z.string(),
    on: z.string(),
    none: z.string(),
    stays: z.string(),
    returnStays: z.string(),
    returnOn: z.string(),
    returnBack: z.string(),
    returnNone: z.string(),
  }),
  press: z.string(),
  /** What a fitter reads off a tensioner, by its kind. */
  reading: z.strictObject({
    automatic_eccentric: z.string(),
    manual_eccentric: z.string(),
    plunger: z.string(),
    lever: z.string(),
  }),
});

/** How what is computed is put into a step's sentences. */
export const PHRASES = PhrasesSchema.parse(data);

/** A phrase with its figures and names filled in. */
export const phrase = (text: string, values: Readonly<Record<string, string | number>>): string =>
  text.replace(/\{(\w+)\}/g, (_, k: string) => String(values[k] ?? ''));

/** "a, b and c". */
export const listed = (words: readonly string[]): string =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')}${PHRASES.and}${must(words.at(-1))}`;
