import { KINDS } from './kinds';

/** Keys by which a thing is declared and described. They are facts like any other, so that merging stays a union. */
export const THING = {
  kind: 'thing.kind',
  place: 'thing.place',
  number: 'thing.number',
  lot: 'thing.lot',
  /** Layout of the stage that it belongs to. */
  stage: 'thing.stage',
  /** A photograph, capture or document of it. */
  file: 'thing.file',
} as const;

/** Something that facts are about: a returned part, or one of the wheels, banks and stages that a drive brings along. */
export type Thing = {
  id: string;
  kind: string;
  /** Where on the drive it belongs, in the words filed: "left bank, secondary". */
  place?: string;
  number?: string;
  lot?: string;
  /** True for the first of its kind, which needs no declaration: facts that name no thing are about it. */
  first: boolean;
};

/** Ids of things that are not declared, since the drive or the catalogue has them. */
export const wheelThing = (wheel: string): string => `wheel:${wheel}`;
export const bankThing = (bank: string): string => `bank:${bank}`;
export const oldThing = (kind: string): string => `old:${kind}`;
export const costThing = (id: string): string => `cost:${id}`;
export const faultThing = (code: string): string => `fault:${code}`;

/** Kind of a thing by its id alone: "wheel:cam" is a wheel, "tensioner" the first tensioner; undefined for a declared one. */
export function kindOfId(id: string): string | undefined {
  const at = id.indexOf(':');
  const kind = at > 0 ? id.slice(0, at) : id;
  return KINDS.has(kind) ? kind : undefined;
}

/** What is left of an id behind its kind. @example nameOfId('wheel:cam') // "cam" */
export const nameOfId = (id: string): string => id.slice(id.indexOf(':') + 1);
