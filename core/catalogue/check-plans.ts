import { oncePer } from '@core/quantity/keep';
import { optionsOf } from '@core/facts/observable';
import { OBSERVABLES, registryWith } from '@core/facts/registry';
import { attributeObservables } from './attribute-observables';
import type { RowOf } from './check-pack';
import { featureObservables } from './feature-observables';
import type { Pack } from './pack';
import type { PackIssue } from './pack-issue';
import type { Plan } from './plan';

/**
 * What a plan leaves out has to be something that can be observed and answered so: an exclusion that nobody can ever answer
 * would be asked for at every claim. Held against at the import alone: a pack that is here, or that came with a case, keeps
 * answering.
 */
export function checkPlans(pack: Pack, rowOf: RowOf): PackIssue[] {
  const issues: PackIssue[] = [];
  const registry = registryWith(OBSERVABLES, [
    ...featureObservables(pack.features),
    ...attributeObservables(),
  ]);
  // Many kits share a plan: each is looked at once.
  const faults = oncePer((excludes: NonNullable<Plan['excludes']>): PackIssue['reason'][] =>
    excludes.flatMap(({ key, is }): PackIssue['reason'][] => {
      const o = registry.get(key);
      if (!o) return [{ code: 'no_observable', key }];
      const allowed = optionsOf(o).map((x) => x.key);
      return is
        .filter((value) => !allowed.includes(value))
        .map((value) => ({ code: 'no_such_answer', key, value, allowed }));
    }),
  );
  for (const [i, { terms }] of pack.kits.entries())
    for (const reason of terms.excludes ? faults(terms.excludes) : [])
      issues.push({ table: 'kits', row: rowOf('kits', i), column: 'terms_excludes', reason });
  return issues;
}
