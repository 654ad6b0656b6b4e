import { nth } from '@core/quantity/must';
import type { NewFact } from '@core/facts/change';
import { THING } from '@core/facts/thing';
import { foldCode } from '@core/catalogue/find-records';
import type { Part } from '@core/catalogue/pack';
import { type IntakeContext, knownOf } from './context';

/** Kind of returned part that a catalogue part is; the rest belongs to the kit. */
export const KIND_OF_PART: Partial<Record<Part['kind'], string>> = {
  belt: 'belt',
  chain: 'chain',
  tensioner: 'tensioner',
  guide: 'guide',
  idler: 'roller',
  sprocket: 'sprocket',
  phaser: 'phaser',
  ring: 'ring',
  pump: 'pump',
  bolt: 'bolt',
};
/** Signs between the fields of a label; what separates them in the code itself is below the blank. */
const BETWEEN = /[\s|;,]+/;
const printed = (text: string): string => [...text].map((c) => (c < ' ' ? ' ' : c)).join('');
const LOT = /^(?:lot:?)?([A-Z]{0,2}\d{3,8})$/i;

/**
 * What a label on a box or part says, as a scanner types it: a kit or a part by its number, and its lot; undefined where no
 * number of the catalogue is on it.
 */
export function readLabel(text: string, ctx: Pick<IntakeContext, 'catalogue'>): NewFact[] | undefined {
  const { codes } = knownOf(ctx.catalogue);
  const fields = printed(text).split(BETWEEN).filter(Boolean);
  const lot = fields.map((f) => LOT.exec(f)?.[1]).find((x) => x !== undefined);
  // Some numbers are printed with a blank in them.
  const pairs = fields.slice(1).map((f, i) => nth(fields, i) + f);
  for (const f of [...fields, ...pairs]) {
    const entry = codes.get(foldCode(f));
    if (!entry || entry.kind === 'engine') continue;
    const how = 'document' as const;
    const part = entry.kind === 'part' ? ctx.catalogue.parts.get(entry.code) : undefined;
    const about = part && KIND_OF_PART[part.kind];
    if (part && about === undefined) continue;
    return about === undefined
      ? [
          { key: 'kit.number', value: entry.means, how },
          ...(lot === undefined ? [] : [{ key: 'kit.lot', value: lot, how }]),
        ]
      : [
          { key: THING.number, about, value: entry.code, how },
          ...(lot === undefined ? [] : [{ key: THING.lot, about, value: lot, how }]),
        ];
  }
  return undefined;
}
