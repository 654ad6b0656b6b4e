import { must } from '@core/quantity/must';
import type { Stage } from '@core/drive/stages';
import { supersessionChain } from './check-pack';
import { type Catalogue, stagesFor } from './find-records';
import type { Engine, Feature, ServiceInterval, JobItem, Kit, Part, Variant } from './pack';

/** One design of an engine: its drive, and the values by which it is told from the others. */
export type LeafDesign = {
  variant: Variant;
  stages: readonly Stage[];
  /** Features of which not every design of the engine has the same values. */
  telling: { feature: Feature; values: string[] }[];
  jobs: readonly JobItem[];
};
type LeafKit = {
  kit: Kit;
  /** Designs that it serves. */
  serves: Variant[];
  contents: { part: Part | undefined; number: string; quantity: number }[];
  /** The end of its supersession, and what it replaced itself. */
  replacedBy: string | undefined;
  replaces: string[];
};
/** Everything that a catalogue knows of an engine, on one page. */
export type Leaf = { engine: Engine; designs: LeafDesign[]; kits: LeafKit[]; intervals: ServiceInterval[] };

/** The page of an engine; undefined where the catalogue has no such engine. */
export function engineLeaf(cat: Catalogue, code: string): Leaf | undefined {
  const engine = cat.engines.get(code);
  if (!engine) return undefined;
  const variants = cat.variantsOf.get(code) ?? [];
  const told = [...cat.features.values()].filter((f) => {
    const values = variants.map((v) => [...(v.features[f.id] ?? [])].sort().join());
    return (
      variants.some((v) => v.features[f.id] !== undefined) &&
      (new Set(values).size > 1 || variants.length === 1)
    );
  });
  const wording = (f: Feature, key: string) => f.options.find((o) => o.key === key)?.wording ?? key;
  const designs = variants.map(
    (variant): LeafDesign => ({
      variant,
      stages: variant.layout === undefined ? [] : stagesFor(cat, variant.layout),
      telling: told.flatMap((feature) => {
        const values = variant.features[feature.id];
        return values ? [{ feature, values: values.map((k) => wording(feature, k)) }] : [];
      }),
      jobs: cat.jobsOf.get(variant.id) ?? [],
    }),
  );
  const numbers = [...new Set(variants.flatMap((v) => cat.kitsOf.get(v.id) ?? []))].sort();
  return {
    engine,
    designs,
    kits: numbers.map((n) => kitOf(cat, variants, n)),
    intervals: cat.pack.intervals.filter((i) => i.engine === code),
  };
}

function kitOf(cat: Catalogue, variants: readonly Variant[], number: string): LeafKit {
  const kit = must(cat.kits.get(number));
  const { chain, loop } = supersessionChain(cat.kits, number);
  const served = new Set(cat.variantsOfKit.get(number) ?? []);
  return {
    kit,
    serves: variants.filter((v) => served.has(v.id)),
    contents: kit.contents.map((c) => ({
      number: c.part,
      part: cat.parts.get(c.part),
      quantity: c.quantity,
    })),
    replacedBy: loop || chain.length < 2 ? undefined : chain.at(-1),
    replaces: cat.pack.kits.filter((k) => k.supersededBy === number).map((k) => k.number),
  };
}

/** Engine on whose page a kit or part stands: the first that it serves. */
export function engineOfNumber(cat: Catalogue, number: string): string | undefined {
  const kit = cat.kits.has(number)
    ? number
    : cat.pack.kits.find((k) => k.contents.some((c) => c.part === number))?.number;
  const [variant] = (kit === undefined ? undefined : cat.variantsOfKit.get(kit)) ?? [];
  return variant === undefined ? undefined : cat.variants.get(variant)?.engine;
}
