import { type Carrier, limitsOf, readingUnit } from '@core/drive/carrier';
import { type Layout, tensionerIndex } from '@core/drive/layout';
import type { Stage } from '@core/drive/stages';
import { settingsOf } from '@core/drive/settings-of';
import { intendedSetting } from '@core/drive/tensioner';
import { measuredOf, thingsWith, type Reading } from '@core/facts/read';
import type { Registry } from '@core/facts/observable';
import type { State } from '@core/facts/state';
import { chancesOf, judged } from '@core/quantity/judge';
import { stageOf } from './stage-of';

/** Which setting the reading shows; beyond: more than its window, short of the end. */
export type Shown = 'right' | 'wrong_way' | 'slack' | 'beyond' | 'end' | 'cannot_tell';

/** A returned tensioner as its reading shows it. `about`: the thing, "" for the first. */
export type TensionerAnswer = {
  about: string;
  stage: number;
  key: 'tensioner.extension' | 'tensioner.pointer';
  carrier: Carrier;
  reading: Reading;
  shown: Shown;
  /** How likely each setting is, by its uncertainty. */
  chances: Readonly<Partial<Record<Shown, number>>>;
};

/** What a tensioner's reading is filed under. */
const readingKey = (carrier: Carrier): TensionerAnswer['key'] =>
  readingUnit(carrier) === 'mm' ? 'tensioner.extension' : 'tensioner.pointer';

/**
 * Judges a pointer reading against the window, the end mark and the reading of the other setting. The reading is
 * judged at v and v ± 2u; when these disagree the answer is "cannot tell".
 */
export function judgePointer(
  readingDeg: number,
  u: number,
  carrier: Carrier,
  wrongDeg: number | undefined,
): Shown {
  const { window, end } = limitsOf(carrier);
  const judge = (v: number): Shown => {
    const { from, to } = window;
    if (v >= from && v <= to) return 'right';
    if (v >= end) return 'end';
    const toWindow = Math.min(Math.abs(v - from), Math.abs(v - to));
    // Only an eccentric can be turned the wrong way; a lever has no other sense.
    if (carrier.kind === 'eccentric' && wrongDeg !== undefined && Math.abs(v - wrongDeg) < toWindow)
      return 'wrong_way';
    return v > to ? 'beyond' : 'slack';
  };
  return judged(readingDeg, u, judge) ?? 'cannot_tell';
}

/** Every returned tensioner whose reading was filed, against the stage that it belongs to. */
export function tensionerAnswers(
  stages: readonly Stage[],
  state: State,
  registry: Registry,
): TensionerAnswer[] {
  return (['tensioner.pointer', 'tensioner.extension'] as const).flatMap((key) =>
    thingsWith(state, key).flatMap((about): TensionerAnswer[] => {
      const suits = (l: Layout) => {
        const c = l.wheels[tensionerIndex(l)]?.carrier;
        return c !== undefined && readingKey(c) === key;
      };
      const stage = stageOf(state, about, 'tensioner', stages, suits);
      const layout = stages[stage]?.layout;
      const carrier = layout?.wheels[tensionerIndex(layout)]?.carrier;
      const reading = measuredOf(state, registry, key, about === '' ? undefined : about);
      if (!layout || !carrier || !reading) return [];
      const settings = settingsOf(layout);
      const other = settings.ok ? intendedSetting(settings.value, carrier).other?.reading : undefined;
      return [
        {
          about,
          stage,
          key,
          carrier,
          reading,
          shown: judgePointer(reading.value, reading.u, carrier, other),
          chances: chancesOf(reading, (v) => judgePointer(v, 0, carrier, other)),
        },
      ];
    }),
  );
}
