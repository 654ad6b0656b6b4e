import { nth } from '@core/quantity/must';
import type { Catalogue } from '@core/catalogue/find-records';
import type { Part, Variant } from '@core/catalogue/pack';
import type { Placeholder } from '@core/catalogue/placeholders';
import type { Stage } from '@core/drive/stages';
import { restDeg } from '@core/drive/valve-safety';
import type { Policy } from '@core/policy/policy';
import { phrase, PHRASES } from './phrases';
import { viewedSense } from './viewed-sense';

/** What a design's parts and its engine put into its sheet, wherever a step stands. */
export type DesignValues = {
  texts: Partial<Record<Placeholder, string>>;
  numbers: Partial<Record<string, number>>;
};
export const NO_DESIGN: DesignValues = { texts: {}, numbers: {} };

/** How much a bolt's length may be read off, mm: far less than sister designs differ. */
const BOLT_MM = 1;

/** Values of one design: bounds that its own parts set, so that a sister's part is refused; what its valves do. */
export function designOf(
  cat: Catalogue,
  variant: Pick<Variant, 'id' | 'engine'>,
  stages: readonly Stage[],
  policy: Policy,
): DesignValues {
  const parts = partsOf(cat, variant.id);
  const find = (kind: Part['kind'], attribute: string, as?: string) =>
    parts.find(
      (p) => p.kind === kind && (as === undefined || p.as === as) && p.attributes[attribute] !== undefined,
    )?.attributes[attribute];
  const windows = find('ring', 'windows');
  const bolt = find('bolt', 'lengthMm', 'housing-bolts');
  const hand = find('tensioner', 'hand');
  const { press } = policy;
  return {
    texts: {
      meets: PHRASES.meets[cat.engines.get(variant.engine)?.interference === 'no' ? 'no' : 'yes'],
      ...clearing(stages, policy),
      ...(typeof hand === 'string' ? { hand } : {}),
      ...(typeof windows === 'number' ? { windows: String(windows) } : {}),
      press: phrase(PHRASES.press, { turns: press.turnsPerMin, wait: press.waitS }),
    },
    numbers: {
      ...(typeof windows === 'number' ? { windows } : {}),
      ...(typeof bolt === 'number' ? { bolt_from: bolt - BOLT_MM, bolt_to: bolt + BOLT_MM } : {}),
    },
  };
}

/** The parts of all kits of a design, those of options as well. */
function partsOf(cat: Catalogue, variant: string): Part[] {
  const numbers = new Set(
    (cat.kitsOf.get(variant) ?? []).flatMap((k) => (cat.kits.get(k)?.contents ?? []).map((c) => c.part)),
  );
  return [...numbers].flatMap((n) => cat.parts.get(n) ?? []);
}

/** How the crank by itself leaves its mark for where no valve reaches a piston, and how it comes back. */
function clearing(stages: readonly Stage[], policy: Policy): DesignValues['texts'] {
  const { clear } = PHRASES;
  const layout = nth(stages, 0).layout;
  const rest = layout.valves && restDeg(layout.valves, policy.leastRoomMm);
  if (rest === undefined) return { clear: clear.none, return: clear.returnNone };
  if (rest === 0) return { clear: clear.stays, return: clear.returnStays };
  const back = rest < 0;
  const runs = layout.runs === 'cw' ? 'cw' : 'ccw';
  const against = runs === 'cw' ? 'ccw' : 'cw';
  const deg = Math.round(Math.abs(rest));
  const sense = viewedSense(back ? against : runs, layout, true);
  return {
    clear: phrase(back ? clear.back : clear.on, { deg, sense }),
    return: phrase(back ? clear.returnOn : clear.returnBack, { deg }),
  };
}
