import { readingUnit } from '@core/drive/carrier';
import { tensionerIndex } from '@core/drive/layout';
import type { Stage } from '@core/drive/stages';
import { elongation, extensionRemainder, type Remainder } from '@core/drive/wear';
import { type Measured, measuredOf } from '@core/facts/measured';
import type { Registry } from '@core/facts/observable';
import { numberOf, type State } from '@core/facts/state';
import { judged } from '@core/quantity/judge';

export type ElongationAnswer = {
  elongation: Measured;
  limit?: number;
  /** Against the limit, judged at e and e ± 2u; undefined when it cannot be told. */
  long?: 'within' | 'past' | undefined;
  facts: string[];
};
export type ExtensionAnswer = { stage: number; reading: Measured; rest?: Remainder; facts: string[] };

/** Chain elongation from a length over counted links, as filed. */
export function elongationOf(
  state: State,
  registry: Registry,
  pitchMm: number,
): (Measured & { facts: string[] }) | undefined {
  const length = measuredOf(state, registry, 'chain.length');
  const links = state.standing.get('chain.links_over');
  const n = numberOf(state, 'chain.links_over');
  if (!length || !links || n === undefined) return undefined;
  const found = elongation(length.value, n, pitchMm, length.u);
  return found.ok ? { value: found.value.e, u: found.value.u, facts: [length.fact.id, links.id] } : undefined;
}

/** What a measured chain length says against the limit of the first chain of the drive. */
export function elongationAnswer(
  stages: readonly Stage[],
  state: State,
  registry: Registry,
): ElongationAnswer | undefined {
  const layout = stages.find((s) => s.layout.kind === 'chain')?.layout;
  const e = layout && elongationOf(state, registry, layout.pitchMm);
  if (!layout || !e) return undefined;
  const limit = layout.elongationLimit;
  return {
    elongation: { value: e.value, u: e.u },
    ...(limit === undefined
      ? {}
      : { limit, long: judged(e.value, e.u, (v) => (v <= limit ? ('within' as const) : ('past' as const))) }),
    facts: e.facts,
  };
}

/** What the measured extension says beyond the measured elongation, at the first chain with a plunger. */
export function extensionAnswer(
  stages: readonly Stage[],
  state: State,
  registry: Registry,
): ExtensionAnswer | undefined {
  const stage = stages.findIndex(({ layout }) => {
    const carrier = layout.wheels[tensionerIndex(layout)]?.carrier;
    return layout.kind === 'chain' && carrier !== undefined && readingUnit(carrier) === 'mm';
  });
  const layout = stages[stage]?.layout;
  const found = measuredOf(state, registry, 'tensioner.extension');
  const e = layout && elongationOf(state, registry, layout.pitchMm);
  if (!layout || !found || !e) return undefined;
  const reading = { value: found.value, u: found.u };
  const rest = extensionRemainder(layout, reading, { value: e.value, u: e.u });
  return {
    stage,
    reading,
    ...(rest.ok ? { rest: rest.value } : {}),
    facts: [found.fact.id, ...e.facts],
  };
}
