import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { DIMENSIONS } from '@core/quantity/units';
import { PROVENANCES } from './fact';
import { PLACED_ON } from './place';
import { STATIONS } from './stations';

const Option = z.strictObject({
  key: z.string(),
  wording: z.string(),
  /** True when this value is a finding that a cause has to explain. */
  abnormal: z.boolean().optional(),
  also: z.array(z.string()).optional(),
  /** What a drive must have for this value to be possible (core/drive/drive-has.ts). */
  needs: z.array(z.string()).optional(),
});
export type ChoiceOption = z.infer<typeof Option>;

const ValueTypeSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('number'),
    dimension: z.enum(DIMENSIONS),
    /** Unit in which it is first shown and typed. */
    unit: z.string(),
    decimals: z.number().int().min(0).max(6),
    /** Plausible range in the base unit; outside it the entry is refused with the range named. */
    min: z.number(),
    max: z.number(),
    /** Standard uncertainty in the base unit that the usual gauge gives. */
    u: z.number().positive().optional(),
  }),
  z.strictObject({
    kind: z.literal('count'),
    what: z.string(),
    min: z.number().int(),
    max: z.number().int(),
  }),
  z.strictObject({
    kind: z.literal('choice'),
    options: z.array(Option).min(2),
    /** Whoever files it knows it: that it is not known is no answer. */
    sure: z.boolean().optional(),
  }),
  z.strictObject({ kind: z.literal('several'), options: z.array(Option), none: z.string() }),
  /** Like several, the options being the wheels of the drive at hand. */
  z.strictObject({ kind: z.literal('wheels'), none: z.string() }),
  z.strictObject({ kind: z.literal('date') }),
  z.strictObject({ kind: z.literal('text'), long: z.boolean() }),
  z.strictObject({ kind: z.literal('codes'), pattern: z.string(), example: z.string() }),
  z.strictObject({
    kind: z.literal('ref'),
    table: z.enum(['engine', 'kit', 'variant', 'cause', 'catalogue']),
  }),
  z.strictObject({ kind: z.literal('seal') }),
  /** Readings over time under one condition. */
  z.strictObject({
    kind: z.literal('series'),
    dimension: z.enum(DIMENSIONS),
    unit: z.string(),
    decimals: z.number().int().min(0).max(6),
  }),
  /** How answers read at some time, line by line. */
  z.strictObject({ kind: z.literal('reading') }),
  /** What the program itself files, with parts. */
  z.strictObject({ kind: z.literal('structured'), is: z.enum(['overlay', 'sheet', 'policy', 'signature']) }),
]);

/** A question on the phone, parts on the bench, money wanted: what is lacking and what is weighed follows from it. */
export const CASE_KINDS = ['question', 'return', 'claim'] as const;
export type CaseKind = (typeof CASE_KINDS)[number];

/** A thing that can be known. Screens render these, the fact line parses them, the cause engine weighs them. */
export const ObservableSchema = z.strictObject({
  key: z.string(),
  wording: z.string(),
  /** Words that call it up on the fact line. */
  aliases: z.array(z.string()),
  /** Kind of thing that it is about (`kinds/`). */
  part: z.string(),
  station: z.enum(STATIONS),
  /** Groups of stations in which it is shown (data/groups.json); of returned parts their kind is the group. */
  groups: z.array(z.string()).optional(),
  /** It is about places on its thing, counted so. */
  place: z.enum(PLACED_ON).optional(),
  /** What a drive must have for it to be observed there (core/drive/drive-has.ts); none: any drive. */
  needs: z.array(z.string()).optional(),
  type: ValueTypeSchema,
  /** Usual way of knowing; the user may say otherwise. */
  how: z.enum(PROVENANCES),
  /** How to observe it, in one sentence. */
  observe: z.string().optional(),
  /** Minutes of bench or phone time. */
  minutes: z.number().nonnegative().optional(),
  /** Kinds of case whose station lacks something without it. */
  needed: z.array(z.enum(CASE_KINDS)).optional(),
  caution: z.string().optional(),
  /** True when no field of a station shows it. */
  hidden: z.boolean().optional(),
  /** True when the fact line takes it although it is hidden. */
  line: z.boolean().optional(),
});
export type Observable = Readonly<z.infer<typeof ObservableSchema>>;

export type Registry = ReadonlyMap<string, Observable>;

/** Registry by key. Later entries with a known key are a bug in the data and throw. */
export function registryOf(observables: readonly Observable[]): Registry {
  const map = new Map<string, Observable>();
  for (const o of observables) {
    if (map.has(o.key)) throw new Error(`observable ${o.key} is declared twice`);
    map.set(o.key, o);
  }
  return map;
}

/** Whether somebody may answer that it is not known. */
export const mayBeUnknown = ({ type }: Pick<Observable, 'type'>): boolean =>
  type.kind !== 'seal' &&
  type.kind !== 'series' &&
  type.kind !== 'reading' &&
  type.kind !== 'structured' &&
  !(type.kind === 'choice' && type.sure);

/** The options of a choice or list, empty for other types. */
export function optionsOf(o: Observable): readonly ChoiceOption[] {
  return o.type.kind === 'choice' || o.type.kind === 'several' ? o.type.options : [];
}
