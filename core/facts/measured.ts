import type { Fact } from './fact';
import type { Registry } from './observable';
import type { State } from './state';

/** A number with its standard uncertainty, in the observable's base unit. */
export type Measured = { value: number; u: number };

/** Standard uncertainty of a fact: its own, else that of the gauge usually taken for this observable, else none. */
export function spreadOf(fact: Pick<Fact, 'key' | 'u'>, registry: Registry): number {
  if (fact.u !== undefined) return fact.u;
  const type = registry.get(fact.key)?.type;
  return type?.kind === 'number' ? (type.u ?? 0) : 0;
}

/** The standing number of an observable with its uncertainty and the fact that says so. */
export function measuredOf(
  state: State,
  registry: Registry,
  key: string,
): (Measured & { fact: Fact }) | undefined {
  const fact = state.standing.get(key);
  if (!fact || typeof fact.value !== 'number') return undefined;
  return { value: fact.value, u: spreadOf(fact, registry), fact };
}
