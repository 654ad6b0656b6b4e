import { supersessionChain } from './check-pack';
import { ancestorsOf, type Catalogue, stagesFor } from './find-records';
import type { Pack } from './pack';
import { isUse } from './procedure';

/** The part of a pack that the answers about one engine (and a named kit) need; name and version are kept. */
export function extractPack(cat: Catalogue, engine: string | undefined, kit: string | undefined): Pack {
  const { pack } = cat;
  const own = pack.variants.filter((v) => v.engine === engine);
  const kits = new Set(own.flatMap((v) => cat.kitsOf.get(v.id) ?? []));
  if (kit !== undefined) kits.add(kit);
  for (const k of kits) for (const next of supersessionChain(cat.kits, k).chain) kits.add(next);
  const applications = pack.applications.filter((a) => kits.has(a.kit));
  const variantIds = new Set([...own.map((v) => v.id), ...applications.map((a) => a.variant)]);
  const variants = pack.variants.filter((v) => variantIds.has(v.id));
  const engines = new Set(variants.map((v) => v.engine));
  if (engine !== undefined) engines.add(engine);
  const layouts = new Set(
    variants.flatMap((v) => (v.layout === undefined ? [] : stagesFor(cat, v.layout).map((s) => s.layout.id))),
  );
  const procedures = withBlocks(
    cat,
    variants.flatMap((v) => (v.procedure === undefined ? [] : [v.procedure])),
  );
  const jobs = pack.jobs.filter((j) => variantIds.has(j.variant));
  const features = new Set(variants.flatMap((v) => Object.keys(v.features)));
  const kitRows = pack.kits.filter((k) => kits.has(k.number));
  const parts = withKin(
    cat,
    new Set([
      ...kitRows.flatMap((k) => k.contents.map((c) => c.part)),
      ...jobs.flatMap((j) => (j.part === undefined ? [] : [j.part])),
    ]),
  );
  return {
    ...pack,
    engines: pack.engines.filter((e) => engines.has(e.code)),
    features: pack.features.filter((f) => features.has(f.id)),
    variants,
    layouts: pack.layouts.filter((l) => layouts.has(l.id)),
    parts: pack.parts.filter((p) => parts.has(p.number)),
    kits: kitRows,
    applications,
    jobs,
    intervals: pack.intervals.filter((i) => engines.has(i.engine)),
    cross: pack.cross.filter((c) => kits.has(c.names) || parts.has(c.names)),
    procedures: pack.procedures.filter((p) => procedures.has(p.id)),
  };
}

/** Procedures with the blocks that they use, however deep. */
function withBlocks(cat: Catalogue, ids: readonly string[]): Set<string> {
  const out = new Set<string>();
  const add = (id: string) => {
    if (out.has(id)) return;
    out.add(id);
    for (const s of cat.procedures.get(id)?.steps ?? []) if (isUse(s)) add(s.use);
  };
  ids.forEach(add);
  return out;
}

/** Parts with all that they replaced or are replaced by, so that a comparison says the same elsewhere. */
function withKin(cat: Catalogue, numbers: ReadonlySet<string>): Set<string> {
  const out = new Set<string>();
  for (const number of numbers) {
    const { chain } = supersessionChain(cat.parts, number);
    for (const next of chain) out.add(next);
    for (const p of ancestorsOf(cat, chain.at(-1) ?? number)) out.add(p.number);
  }
  return out;
}
