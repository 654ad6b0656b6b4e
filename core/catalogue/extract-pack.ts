import type { Catalogue } from './find-records';
import type { Pack } from './pack';

/** The part of a pack that the answers about one engine (and a named kit) need; name and version are kept. */
export function extractPack(cat: Catalogue, engine: string | undefined, kit: string | undefined): Pack {
  const { pack } = cat;
  const own = pack.variants.filter((v) => v.engine === engine);
  const kits = new Set(own.flatMap((v) => cat.kitsOf.get(v.id) ?? []));
  if (kit !== undefined) kits.add(kit);
  const applications = pack.applications.filter((a) => kits.has(a.kit));
  const variantIds = new Set([...own.map((v) => v.id), ...applications.map((a) => a.variant)]);
  const variants = pack.variants.filter((v) => variantIds.has(v.id));
  const engines = new Set(variants.map((v) => v.engine));
  if (engine !== undefined) engines.add(engine);
  const layouts = new Set(variants.map((v) => v.layout));
  const procedures = new Set(variants.map((v) => v.procedure));
  const features = new Set(variants.flatMap((v) => Object.keys(v.features)));
  const kitRows = pack.kits.filter((k) => kits.has(k.number));
  const parts = new Set(kitRows.flatMap((k) => k.contents.map((c) => c.part)));
  return {
    ...pack,
    engines: pack.engines.filter((e) => engines.has(e.code)),
    features: pack.features.filter((f) => features.has(f.id)),
    variants,
    layouts: pack.layouts.filter((l) => layouts.has(l.id)),
    parts: pack.parts.filter((p) => parts.has(p.number)),
    kits: kitRows,
    applications,
    procedures: pack.procedures.filter((p) => procedures.has(p.id)),
  };
}
