import { type Carrier, readingUnit } from '@core/drive/carrier';
import { type Layout, tensionerIndex } from '@core/drive/layout';
import type { Stage } from '@core/drive/stages';
import { elongation, extensionRemainder, type Remainder } from '@core/drive/wear';
import { type Measured, measuredOf, numberOf, standing, thingsWith } from '@core/facts/read';
import type { Registry } from '@core/facts/observable';
import type { State } from '@core/facts/state';
import { chancesOf, judged } from '@core/quantity/judge';
import { stageOf } from './stage-of';

/** `about`: the thing, "" for the first of its kind; `stage`: where it belongs. */
type OfThing = { about: string; stage: number; facts: string[] };
export type ElongationAnswer = OfThing & {
  elongation: Measured;
  limit?: number;
  /** Against the limit, judged at e and e ± 2u; undefined when it cannot be told. */
  long?: 'within' | 'past' | undefined;
  /** How likely it is on either side of it. */
  chances?: Readonly<Partial<Record<'within' | 'past', number>>>;
};
export type ExtensionAnswer = OfThing & { reading: Measured; rest?: Remainder };

const LENGTH = 'chain.length';
const LINKS = 'chain.links_over';
const EXTENSION = 'tensioner.extension';

/** Elongation of one chain from a length over counted links, as filed. */
export function elongationOf(
  state: State,
  registry: Registry,
  pitchMm: number,
  about = '',
): (Measured & { facts: string[] }) | undefined {
  const thing = about === '' ? undefined : about;
  const length = measuredOf(state, registry, LENGTH, thing);
  const links = standing(state, LINKS, thing);
  const n = numberOf(state, LINKS, thing);
  if (!length || !links || n === undefined) return undefined;
  const found = elongation(length.value, n, pitchMm, length.u);
  return found.ok
    ? { value: found.value.e, u: found.value.u, facts: [...length.facts.map((f) => f.id), links.id] }
    : undefined;
}

const sideOf = (limit: number) => (v: number) => (v <= limit ? ('within' as const) : ('past' as const));

/** What the measured length of every chain says against the limit of its stage. */
export function elongationAnswers(
  stages: readonly Stage[],
  state: State,
  registry: Registry,
): ElongationAnswer[] {
  return thingsWith(state, LENGTH).flatMap((about): ElongationAnswer[] => {
    const stage = stageOf(state, about, 'chain', stages, (l) => l.kind === 'chain');
    const layout = stages[stage]?.layout;
    const e = layout && elongationOf(state, registry, layout.pitchMm, about);
    if (!layout || !e) return [];
    const limit = layout.elongationLimit;
    return [
      {
        about,
        stage,
        elongation: { value: e.value, u: e.u },
        ...(limit === undefined
          ? {}
          : {
              limit,
              long: judged(e.value, e.u, sideOf(limit)),
              chances: chancesOf(e, sideOf(limit)),
            }),
        facts: e.facts,
      },
    ];
  });
}

const carrierOf = (l: Layout): Carrier | undefined => l.wheels[tensionerIndex(l)]?.carrier;
export const hasPlunger = (l: Layout): boolean => {
  const carrier = carrierOf(l);
  return carrier !== undefined && readingUnit(carrier) === 'mm';
};

/** What the measured extension of every plunger says beyond the measured elongation of the chain of its stage. */
export function extensionAnswers(
  stages: readonly Stage[],
  state: State,
  registry: Registry,
  elongations: readonly ElongationAnswer[],
): ExtensionAnswer[] {
  return thingsWith(state, EXTENSION).flatMap((about): ExtensionAnswer[] => {
    const stage = stageOf(state, about, 'tensioner', stages, (l) => l.kind === 'chain' && hasPlunger(l));
    const layout = stages[stage]?.layout;
    const found = measuredOf(state, registry, EXTENSION, about === '' ? undefined : about);
    const chain = elongations.find((e) => e.stage === stage);
    if (!layout || !found || !chain) return [];
    const reading = { value: found.value, u: found.u };
    const rest = extensionRemainder(layout, reading, chain.elongation);
    return [
      {
        about,
        stage,
        reading,
        ...(rest.ok ? { rest: rest.value } : {}),
        facts: [...found.facts.map((f) => f.id), ...chain.facts],
      },
    ];
  });
}
