import { judgeBand } from '@core/quantity/judge';
import { must } from '@core/quantity/must';
import { ATTRIBUTES, type Attribute } from '@core/catalogue/attributes';
import { ancestorsOf, type Catalogue } from '@core/catalogue/find-records';
import type { Part } from '@core/catalogue/pack';

export type AttributeVerdict = 'equal' | 'superseded' | 'wrong' | 'not_measured' | 'cannot_tell';
type AttributeLine = {
  attribute: Attribute;
  old?: number | string | undefined;
  new: number | string;
  verdict: AttributeVerdict;
  by?: string | undefined;
};
export type Comparison = {
  lines: AttributeLine[];
  verdict: 'equal' | 'superseded' | 'wrong' | 'cannot_tell';
  lacks: Attribute[];
};

/** An old part as measured: by attribute key, with a standard uncertainty where one is known. */
export type OldPart = ReadonlyMap<string, { value: number | string; u?: number | undefined }>;

/**
 * Old part against new, attribute by attribute. Different is "superseded by design" only when a part that the new one
 * replaces has the old value; else it is wrong. A measured length whose ±2u straddles the tolerance cannot tell.
 */
export function compareParts(cat: Catalogue, fresh: Part, old: OldPart): Comparison {
  const ancestors = ancestorsOf(cat, fresh.number);
  const lines: AttributeLine[] = [];
  for (const [key, value] of Object.entries(fresh.attributes)) {
    const attribute = ATTRIBUTES.get(key);
    if (attribute) lines.push(line(attribute, value, old.get(key), ancestors));
  }
  const has = (v: AttributeVerdict) => lines.some((l) => l.verdict === v);
  const lacks = lines.filter((l) => l.verdict === 'not_measured').map((l) => l.attribute);
  const verdict = has('wrong')
    ? 'wrong'
    : has('cannot_tell') || lacks.length
      ? 'cannot_tell'
      : has('superseded')
        ? 'superseded'
        : 'equal';
  return { lines, verdict, lacks };
}

function line(
  attribute: Attribute,
  value: number | string,
  old: { value: number | string; u?: number | undefined } | undefined,
  ancestors: readonly Part[],
): AttributeLine {
  if (old === undefined) return { attribute, new: value, verdict: 'not_measured' };
  const base = { attribute, old: old.value, new: value };
  const own = agrees(attribute, old, value);
  if (own !== 'no') return { ...base, verdict: own === 'yes' ? 'equal' : 'cannot_tell' };
  const before = ancestors.find(
    (p) =>
      p.attributes[attribute.key] !== undefined &&
      agrees(attribute, old, must(p.attributes[attribute.key])) === 'yes',
  );
  return before ? { ...base, verdict: 'superseded', by: before.number } : { ...base, verdict: 'wrong' };
}

const ROUNDING = 1e-9;

function agrees(
  a: Attribute,
  old: { value: number | string; u?: number | undefined },
  value: number | string,
): 'yes' | 'no' | 'maybe' {
  if (typeof old.value === 'string' || typeof value === 'string') return old.value === value ? 'yes' : 'no';
  const tolerance = a.tolerance ?? 0;
  // On the very tolerance it still agrees; figures of a catalogue are rounded.
  const within = { from: value - tolerance - ROUNDING, to: value + tolerance + ROUNDING };
  const said = judgeBand(old.value, old.u ?? 0, within);
  return said === 'within' ? 'yes' : said === 'outside' ? 'no' : 'maybe';
}

/**
 * Teeth by which an old belt wrapped once round a new one comes up short: its pitch line lies one thickness further
 * out, so the circle is longer by 2π·t. Handbook geometry; exact for a circle. @param thicknessMm between the pitch lines
 * @example wrapShortfall(4.8, 8) // 3.77 teeth
 */
export const wrapShortfall = (thicknessMm: number, pitchMm: number): number =>
  (2 * Math.PI * thicknessMm) / pitchMm;
