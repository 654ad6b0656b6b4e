import { nth } from '@core/quantity/must';
import type { Catalogue } from '@core/catalogue/find-records';
import type { Stage } from '@core/drive/stages';
import { numberOf } from '@core/facts/read';
import type { Case, LinksBetween } from './advice';
import { designsOf } from './missing';

/** What a count of links between the marks says; undefined where none was told, or the designs left differ in it. */
export function linksBetween(c: Case): LinksBetween | undefined {
  const counted = numberOf(c.state, 'chain.between');
  if (counted === undefined) return undefined;
  const designs = designsOf(c);
  const right = new Set(designs.flatMap((d) => rightOf(c.world.catalogue, d.variant.id)));
  if (right.size !== 1) return undefined;
  const [wanted = 0] = right;
  const teeth = counted - wanted;
  const crank = new Set(designs.map((d) => crankTeeth(d.stages)));
  const [z] = crank;
  // One link is one tooth of the driving wheel: 360° of the crank by its teeth.
  return {
    counted,
    right: wanted,
    teeth,
    ...(crank.size === 1 && z !== undefined ? { crankDeg: (Math.abs(teeth) * 360) / z } : {}),
  };
}

/** Links between the marks of a design's chains, by the parts of its kits. */
const rightOf = (cat: Catalogue, variant: string): number[] =>
  (cat.kitsOf.get(variant) ?? [])
    .flatMap((k) => cat.kits.get(k)?.contents ?? [])
    .flatMap((content) => {
      const n = cat.parts.get(content.part)?.attributes['linksBetween'];
      return typeof n === 'number' ? [n] : [];
    });

const crankTeeth = (stages: readonly Stage[]): number | undefined => {
  const first = stages[0]?.layout;
  return first?.kind === 'chain' ? nth(first.wheels, 0).teeth : undefined;
};
