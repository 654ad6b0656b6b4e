import { readingUnit } from '@core/drive/carrier';
import { tensionerIndex } from '@core/drive/layout';
import type { Stage } from '@core/drive/stages';
import { elongation, extensionRemainder, type Measured, type Remainder } from '@core/drive/wear';
import { numberOf, type State } from '@core/facts/state';

export type ExtensionAnswer = {
  stage: number;
  reading: Measured;
  elongation: Measured;
  limit?: number;
  /** Against the limit, judged at e and e ± 2u. */
  long?: 'within' | 'past';
  rest?: Remainder;
  facts: string[];
};

/** Chain elongation from a length over counted links, as filed. */
export function elongationOf(state: State, pitchMm: number): (Measured & { facts: string[] }) | undefined {
  const length = state.standing.get('chain.length');
  const links = state.standing.get('chain.links_over');
  const [mm, n] = [numberOf(state, 'chain.length'), numberOf(state, 'chain.links_over')];
  if (!length || !links || mm === undefined || n === undefined) return undefined;
  const { e, u } = elongation(mm, n, pitchMm, length.u ?? 0);
  return { value: e, u, facts: [length.id, links.id] };
}

/** What the measured extension says beyond the measured elongation, at the first stage with a plunger. */
export function extensionAnswer(stages: readonly Stage[], state: State): ExtensionAnswer | undefined {
  const stage = stages.findIndex(({ layout }) => {
    const carrier = layout.wheels[tensionerIndex(layout)]?.carrier;
    return carrier !== undefined && readingUnit(carrier) === 'mm';
  });
  const layout = stages[stage]?.layout;
  const fact = state.standing.get('tensioner.extension');
  const value = numberOf(state, 'tensioner.extension');
  const e = layout && elongationOf(state, layout.pitchMm);
  if (!layout || !fact || value === undefined || !e) return undefined;
  const reading = { value, u: fact.u ?? 0 };
  const rest = extensionRemainder(layout, reading, e);
  const limit = layout.elongationLimit;
  const long =
    limit === undefined
      ? undefined
      : e.value + 2 * e.u <= limit
        ? ('within' as const)
        : e.value - 2 * e.u > limit
          ? ('past' as const)
          : undefined;
  return {
    stage,
    reading,
    elongation: { value: e.value, u: e.u },
    ...(limit === undefined ? {} : { limit }),
    ...(long === undefined ? {} : { long }),
    ...(rest.ok ? { rest: rest.value } : {}),
    facts: [fact.id, ...e.facts],
  };
}
