import { must } from '@core/quantity/must';
import { type Catalogue, stagesFor } from '@core/catalogue/find-records';
import { featureKey } from '@core/catalogue/feature-observables';
import { anyHas, type Has, hasAll } from '@core/drive/drive-has';
import { isMarked } from '@core/drive/judge-marks';
import type { Stage } from '@core/drive/stages';
import type { ChoiceOption, Observable } from '@core/facts/observable';
import { bankThing, kindOfId, wheelThing } from '@core/facts/thing';
import type { Identification } from '@core/match/identify';

/**
 * What can be observed on any drive that is still possible: what it has, and the marked wheels, banks and features of its own.
 * Undefined where nothing is known, and everything may be.
 */
export type Possible = {
  has: ReadonlySet<Has> | undefined;
  own: ReadonlySet<string> | undefined;
  /** Stages of each possible design, in the order of the identification; none where it has no layout. */
  designs: readonly (readonly Stage[])[];
};

/** From the designs that are left; from all of the engine's when facts contradict each other. */
export function possibleDrives(cat: Catalogue, id: Identification | undefined): Possible {
  if (!id) return { has: undefined, own: undefined, designs: [] };
  const variants = id.possible.length > 0 ? id.possible : id.standings.map((s) => s.variant);
  const designs = variants.map((v) => (v.layout === undefined ? [] : stagesFor(cat, v.layout)));
  const own = new Set<string>();
  for (const { variant } of id.standings)
    for (const feature of Object.keys(variant.features)) own.add(featureKey(feature));
  for (const { layout } of designs.flat()) {
    for (const w of layout.wheels) if (isMarked(w)) own.add(wheelThing(w.id));
    for (const b of layout.banks ?? []) own.add(bankThing(b.id));
  }
  return { has: anyHas(designs), own, designs };
}

/**
 * Can this be observed on a drive that is still possible? A chain drive has no belt edges, a plunger no pointer.
 * @param about thing that it is about: a wheel or bank that no possible drive has cannot be observed
 */
export function applies(o: Pick<Observable, 'key' | 'needs'>, p: Possible, about?: string): boolean {
  if (o.key.startsWith('feature.')) return p.own?.has(o.key) ?? true;
  const kind = about === undefined ? undefined : kindOfId(about);
  if ((kind === 'wheel' || kind === 'bank') && !(p.own?.has(must(about)) ?? true)) return false;
  return hasAll(o.needs, p.has);
}

/** The values of a choice or list that such a drive can show. */
export const possibleOptions = (
  options: readonly ChoiceOption[],
  p: Pick<Possible, 'has'>,
): readonly ChoiceOption[] => options.filter((x) => hasAll(x.needs, p.has));
