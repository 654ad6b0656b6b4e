import { must } from '@core/quantity/must';
import { numberOf, placedOf, spreadOf, thingsWith } from '@core/facts/read';
import { optionsOf, type Registry } from '@core/facts/observable';
import type { State } from '@core/facts/state';
import type { Policy } from '@core/policy/policy';
import { type AlongAnswer, alongOf, type SideAnswer, sideOf } from './where-on-it';
import { plainText } from '@core/facts/value';

/** Where on a sprocket its damage lies, or how the grooves of a guide change along it. */
export type SpreadAnswer = { about: string; facts: string[] } & (
  | { kind: 'sprocket'; answer: SideAnswer }
  | { kind: 'guide'; what: 'groove' | 'thickness'; answer: AlongAnswer }
);

const TEETH = 'sprocket.tooth_damage';
const COUNTED = 'sprocket.tooth_count';
const ALONG = { 'guide.groove': 'groove', 'guide.thickness': 'thickness' } as const;

/** @param teethOf teeth of a sprocket that nobody counted; none where the drive or the catalogue does not say */
export function spreadAnswers(
  state: State,
  registry: Registry,
  policy: Policy,
  teethOf: (about: string) => number | undefined,
): SpreadAnswer[] {
  const name = (about: string) => (about === '' ? undefined : about);
  const o = registry.get(TEETH);
  const bad = new Set((o ? optionsOf(o) : []).flatMap((x) => (x.abnormal ? [x.key] : [])));
  const wheels = thingsWith(state, TEETH).flatMap((about): SpreadAnswer[] => {
    const seen = placedOf(state, TEETH, name(about)).filter((p) => bad.has(plainText(p.value)));
    const count = numberOf(state, COUNTED, name(about)) ?? teethOf(about);
    if (seen.length === 0 || count === undefined) return [];
    const answer = sideOf(
      seen.flatMap((p) => p.place.from ?? []),
      count,
      policy,
    );
    return [{ about, kind: 'sprocket', answer, facts: seen.map((p) => p.fact.id) }];
  });
  const guides = (Object.keys(ALONG) as (keyof typeof ALONG)[]).flatMap((key) =>
    thingsWith(state, key).flatMap((about): SpreadAnswer[] => {
      const seen = placedOf(state, key, name(about)).filter(
        (p) => typeof p.value === 'number' && p.place.from !== undefined,
      );
      if (seen.length === 0) return [];
      const readings = seen.map((p) => ({
        at: must(p.place.from),
        value: Number(p.value),
        u: spreadOf(p.fact, registry, key),
      }));
      const answer = alongOf(readings, policy.alongMmPer100);
      return [{ about, kind: 'guide', what: ALONG[key], answer, facts: seen.map((p) => p.fact.id) }];
    }),
  );
  return [...wheels, ...guides];
}
