import { attributeObservables } from '@core/catalogue/attribute-observables';
import { featureObservables } from '@core/catalogue/feature-observables';
import type { Catalogue } from '@core/catalogue/find-records';
import { packDigest } from '@core/catalogue/pack-digest';
import { packId } from '@core/catalogue/version';
import { type CauseData, CAUSES } from '@core/cause/cause-data';
import { FAULTS, type InstallationFault } from '@core/claim/faults';
import { SHIPPED_POLICY, type Policy } from '@core/policy/policy';
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
  readonly policy: Policy;
};

/** The knowledge that ships. */
export const SHIPPED: Knowledge = { observables: OBSERVABLES, causes: CAUSES, faults: FAULTS };

const within = <K extends object, V extends object>(map: WeakMap<K, V>, key: K, make: () => V): V => {
  const known = map.get(key);
  if (known) return known;
  const made = make();
  map.set(key, made);
  return made;
};
const knowing = new WeakMap<CauseData, Knowledge>([[CAUSES, SHIPPED]]);
/** What ships, but for what the house knows of causes. */
export function knowledgeOf(causes: CauseData): Knowledge {
  return within(knowing, causes, () => ({ ...SHIPPED, causes }));
}

/** What a case is judged by beside its catalogue. */
export type Judging = Pick<World, 'knowledge' | 'policy'>;

const worlds = new WeakMap<Catalogue, WeakMap<Knowledge, WeakMap<Policy, World>>>();
/** The world of a catalogue, by what ships unless the house judges otherwise; one and the same for the same of each. */
export function worldOf(
  catalogue: Catalogue,
  { knowledge = SHIPPED, policy = SHIPPED_POLICY }: Partial<Judging> = {},
): World {
  const byKnowledge = within(worlds, catalogue, () => new WeakMap<Knowledge, WeakMap<Policy, World>>());
  const byRules = within(byKnowledge, knowledge, () => new WeakMap<Policy, World>());
  return within(byRules, policy, () => ({ catalogue, knowledge, policy }));
}

const registries = new WeakMap<readonly Observable[], WeakMap<Catalogue, Registry>>();
/** What can be observed in a world: the house's observables, the catalogue's features, the dimensions of parts. */
export function registryFor({ catalogue, knowledge }: Pick<World, 'catalogue' | 'knowledge'>): Registry {
  // what is known of causes does not bear on what can be observed
  const own = within(registries, knowledge.observables, () => new WeakMap<Catalogue, Registry>());
  return within(own, catalogue, () =>
    registryWith(knowledge.observables, [
      ...featureObservables(catalogue.pack.features),
      ...attributeObservables(),
    ]),
  );
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

/** Digest of knowledge and rules: summaries made under others are made anew. */
export const knowledgeDigest = (k: Knowledge = SHIPPED, r: Policy = SHIPPED_POLICY): string =>
  `${digestOf(k).slice(0, 16)}-${digestOf(r).slice(0, 16)}`;

/** What judges: name and digest of the catalogue, digests of knowledge and rules. */
export const nameWorld = ({ catalogue, knowledge, policy }: World): WorldName => ({
  catalogue: `${packId(catalogue.pack)} ${packDigest(catalogue.pack)}`,
  knowledge: digestOf(knowledge),
  rules: digestOf(policy),
});
