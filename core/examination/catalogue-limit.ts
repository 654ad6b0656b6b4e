import { ATTRIBUTES } from '@core/catalogue/attributes';
import type { Catalogue } from '@core/catalogue/find-records';
import type { Kit, Part } from '@core/catalogue/pack';
import { chancesOf, judged } from '@core/quantity/judge';
import type { Measured } from '@core/facts/read';

/** A dimension of the new part as the catalogue has it: what a reading of the old one is held against. */
export type CatalogueLimit = {
  /** Number of the part that has it. */
  part: string;
  nominal: number;
  /** Readings within this of the nominal one are equal; base unit of the dimension, 0 of a count. */
  tolerance: number;
  /** Within it or not, when the reading's interval (coverage 2) lies wholly on one side; none without a reading or when it straddles. */
  within?: boolean;
  /** How likely the reading is within it. */
  chance?: number;
};

/** Kinds of parts in the catalogue that bear another name there. */
const AS_PART: Readonly<Record<string, string>> = { roller: 'idler' };

/**
 * Parts of the catalogue that a returned part can be: the one whose number it bears, else those of its kind in the kit.
 * @param kind of the returned thing @param number read off it
 */
export function newParts(
  cat: Catalogue,
  kit: Kit | undefined,
  kind: string,
  number: string | undefined,
): readonly Part[] {
  const named = number === undefined ? undefined : cat.parts.get(number);
  if (named) return [named];
  return (kit?.contents ?? [])
    .flatMap((c) => cat.parts.get(c.part) ?? [])
    .filter((p) => p.kind === (AS_PART[kind] ?? kind));
}

/**
 * The limit for a dimension of a returned part, as far as all parts that it can be have the same. None where the catalogue does not
 * say. @param reading in the dimension's base unit; its interval has coverage 2
 */
export function catalogueLimit(
  parts: readonly Part[],
  attribute: string,
  reading?: Measured,
): CatalogueLimit | undefined {
  const values = new Set(parts.map((p) => p.attributes[attribute]));
  const [nominal] = values;
  const [part] = parts;
  if (!part || values.size !== 1 || typeof nominal !== 'number') return undefined;
  const tolerance = ATTRIBUTES.get(attribute)?.tolerance ?? 0;
  const isWithin = (v: number) => Math.abs(v - nominal) <= tolerance + ROUNDING;
  const within = reading && judged(reading.value, reading.u, isWithin);
  const chance = reading && chancesOf(reading, (v) => (isWithin(v) ? 'within' : 'outside')).within;
  return {
    part: part.number,
    nominal,
    tolerance,
    ...(within === undefined ? {} : { within }),
    ...(reading ? { chance: chance ?? 0 } : {}),
  };
}

/** A reading at the very edge of its tolerance is within it, whatever binary fractions say. */
const ROUNDING = 1e-9;
