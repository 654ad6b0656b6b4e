import { attributeObservables } from '@core/catalogue/attribute-observables';
import { featureObservables } from '@core/catalogue/feature-observables';
import type { Catalogue } from '@core/catalogue/find-records';
import { packDigest } from '@core/catalogue/pack-digest';
import { packId } from '@core/catalogue/version';
import { type CauseData, CAUSES } from '@core/cause/cause-data';
import { FAULTS, type InstallationFault } from '@core/claim/faults';
import { RULES, type Rules } from '@core/house/rules';
import { contentDigest } from '@core/facts/digest';
import type { Observable, Registry } from '@core/facts/observable';
import { OBSERVABLES, registryWith } from '@core/facts/registry';

/** What the house knows of causes, faults and what can be observed. */
export type Knowledge = {
  readonly observables: readonly Observable[];
  readonly causes: CauseData;
  readonly faults: readonly InstallationFault[];
};
/** Everything but the facts that answers depend on. */
export type World = {
  readonly catalogue: Catalogue;
  readonly knowledge: Knowledge;
  readonly rules: Rules;
};

/** The knowledge that ships. */
export const SHIPPED: Knowledge = { observables: OBSERVABLES, causes: CAUSES, faults: FAULTS };

const worlds = new WeakMap<Catalogue, Map<Rules, World>>();
/** The world of a catalogue with the knowledge that ships; one and the same for one catalogue and the same house rules. */
export function worldOf(catalogue: Catalogue, rules: Rules = RULES): World {
  const byRules = worlds.get(catalogue) ?? new Map<Rules, World>();
  worlds.set(catalogue, byRules);
  const known = byRules.get(rules);
  if (known) return known;
  const made: World = { catalogue, knowledge: SHIPPED, rules };
  byRules.set(rules, made);
  return made;
}

const registries = new WeakMap<Knowledge, WeakMap<Catalogue, Registry>>();
/** What can be observed in a world: the house's observables, the catalogue's features, the dimensions of parts. */
export function registryFor({ catalogue, knowledge }: Pick<World, 'catalogue' | 'knowledge'>): Registry {
  const own = registries.get(knowledge) ?? new WeakMap<Catalogue, Registry>();
  registries.set(knowledge, own);
  const known = own.get(catalogue);
  if (known) return known;
  const made = registryWith(knowledge.observables, [
    ...featureObservables(catalogue.pack.features),
    ...attributeObservables(),
  ]);
  own.set(catalogue, made);
  return made;
}

/** Parts of a world, each with the digest of its content (SHA-256, canonical JSON). */
export type WorldName = { catalogue: string; knowledge: string; rules: string };

const digests = new WeakMap<object, string>();
const digestOf = (content: object): string => {
  const known = digests.get(content);
  if (known !== undefined) return known;
  const made = contentDigest(content);
  digests.set(content, made);
  return made;
};

/** Digest of knowledge and rules: heads made under others are made anew. */
export const knowledgeDigest = (k: Knowledge = SHIPPED, r: Rules = RULES): string =>
  `${digestOf(k).slice(0, 16)}-${digestOf(r).slice(0, 16)}`;

/** What judges: name and digest of the catalogue, digests of knowledge and rules. */
export const nameWorld = ({ catalogue, knowledge, rules }: World): WorldName => ({
  catalogue: `${packId(catalogue.pack)} ${packDigest(catalogue.pack)}`,
  knowledge: digestOf(knowledge),
  rules: digestOf(rules),
});
