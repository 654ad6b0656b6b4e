import { oncePer } from '@core/quantity/keep';
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

/** What ships, but for what this desk knows of causes. */
export const knowledgeOf = oncePer(
  (causes: CauseData): Knowledge => (causes === CAUSES ? SHIPPED : { ...SHIPPED, causes }),
);

/** What a case is judged by beside its catalogue. */
export type Judging = Pick<World, 'knowledge' | 'policy'>;

const worlds = oncePer((catalogue: Catalogue) =>
  oncePer((knowledge: Knowledge) => oncePer((policy: Policy): World => ({ catalogue, knowledge, policy }))),
);
/** The world of a catalogue, by what ships unless the house judges otherwise; one and the same for the same of each. */
export function worldOf(
  catalogue: Catalogue,
  { knowledge = SHIPPED, policy = SHIPPED_POLICY }: Partial<Judging> = {},
): World {
  return worlds(catalogue)(knowledge)(policy);
}

const registries = oncePer((observables: readonly Observable[]) =>
  oncePer(
    (catalogue: Catalogue): Registry =>
      registryWith(observables, [...featureObservables(catalogue.pack.features), ...attributeObservables()]),
  ),
);
/** What can be observed in a world: the house's observables, the catalogue's features, the dimensions of parts. */
export function registryFor({ catalogue, knowledge }: Pick<World, 'catalogue' | 'knowledge'>): Registry {
  // what is known of causes does not bear on what can be observed
  return registries(knowledge.observables)(catalogue);
}

/** What can be observed while no catalogue answers: nothing that only a catalogue names. */
export const registryWithout = oncePer(
  ({ observables }: Knowledge): Registry => registryWith(observables, attributeObservables()),
);

/** Parts of a world, each with the digest of its content (SHA-256, canonical JSON). */
export type WorldName = { catalogue: string; knowledge: string; rules: string };

const digestOf = oncePer((content: object): string => contentDigest(content));

/** Digest of knowledge and rules: summaries made under others are made anew. */
export const knowledgeDigest = (k: Knowledge = SHIPPED, r: Policy = SHIPPED_POLICY): string =>
  `${digestOf(k).slice(0, 16)}-${digestOf(r).slice(0, 16)}`;

/** What judges: name and digest of the catalogue, digests of knowledge and rules. */
export const nameWorld = ({ catalogue, knowledge, policy }: World): WorldName => ({
  catalogue: `${packId(catalogue.pack)} ${packDigest(catalogue.pack)}`,
  knowledge: digestOf(knowledge),
  rules: digestOf(policy),
});
