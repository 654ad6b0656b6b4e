import { oncePerName } from '@core/quantity/keep';
import { must } from '@core/quantity/must';
import { distance } from 'fastest-levenshtein';
import type { Layout } from '@core/drive/layout';
import { type Stage, stagesOf } from '@core/drive/stages';
import type { Engine, Feature, JobItem, Kit, Pack, Part, Variant } from './pack';
import type { Procedure } from './procedure';

/** A pack with its look-ups made once. */
export type Catalogue = {
  readonly pack: Pack;
  readonly engines: ReadonlyMap<string, Engine>;
  readonly variants: ReadonlyMap<string, Variant>;
  readonly variantsOf: ReadonlyMap<string, readonly Variant[]>;
  readonly features: ReadonlyMap<string, Feature>;
  readonly layouts: ReadonlyMap<string, Layout>;
  readonly parts: ReadonlyMap<string, Part>;
  /** Parts that a part replaced by design, by its number. */
  readonly replacedBy: ReadonlyMap<string, readonly Part[]>;
  readonly kits: ReadonlyMap<string, Kit>;
  readonly kitsOf: ReadonlyMap<string, readonly string[]>;
  readonly variantsOfKit: ReadonlyMap<string, readonly string[]>;
  readonly procedures: ReadonlyMap<string, Procedure>;
  readonly jobsOf: ReadonlyMap<string, readonly JobItem[]>;
};

/** A checked pack with its look-ups, each made when it is first wanted: a large pack must not hold the screen up. */
export function catalogueOf(pack: Pack): Catalogue {
  const by = <T>(rows: readonly T[], key: (row: T) => string) => {
    const map = new Map<string, T>();
    for (const r of rows) map.set(key(r), r);
    return map;
  };
  return lazily({
    pack: () => pack,
    engines: () => by(pack.engines, (e) => e.code),
    variants: () => by(pack.variants, (v) => v.id),
    variantsOf: () =>
      group(
        pack.variants,
        (v) => v.engine,
        (v) => v,
      ),
    features: () => by(pack.features, (f) => f.id),
    layouts: () => by(pack.layouts, (l) => l.id),
    parts: () => by(pack.parts, (p) => p.number),
    replacedBy: () =>
      group(
        pack.parts.filter((p) => p.supersededBy !== undefined),
        (p) => must(p.supersededBy),
        (p) => p,
      ),
    kits: () => by(pack.kits, (k) => k.number),
    kitsOf: () =>
      group(
        pack.applications,
        (a) => a.variant,
        (a) => a.kit,
      ),
    variantsOfKit: () =>
      group(
        pack.applications,
        (a) => a.kit,
        (a) => a.variant,
      ),
    procedures: () => by(pack.procedures, (p) => p.id),
    jobsOf: () =>
      group(
        pack.jobs,
        (j) => j.variant,
        (j) => j,
      ),
  });
}

const stagesKept = oncePerName<Catalogue, readonly Stage[]>();
/** The stages of a variant's drive, the one at the crank first; none when the layout or a stage is not there. */
export function stagesFor(cat: Catalogue, layout: string): readonly Stage[] {
  return stagesKept(cat, layout, () => {
    const stages = stagesOf(cat.pack.layouts, layout);
    return stages.ok ? stages.value : [];
  });
}

/** An object whose properties are computed once, at their first reading. */
function lazily<T extends object>(make: { [K in keyof T]: () => T[K] }): T {
  const out = {} as T;
  for (const key of Object.keys(make) as (keyof T)[]) {
    Object.defineProperty(out, key, {
      configurable: true,
      enumerable: true,
      get() {
        const value = make[key]();
        Object.defineProperty(out, key, { value, enumerable: true });
        return value;
      },
    });
  }
  return out;
}

function group<T, V>(rows: readonly T[], key: (row: T) => string, value: (row: T) => V): Map<string, V[]> {
  const map = new Map<string, V[]>();
  for (const r of rows) {
    const list = map.get(key(r));
    if (list) list.push(value(r));
    else map.set(key(r), [value(r)]);
  }
  return map;
}

/** Parts that lead to this one by supersession, however far back, nearest first. A loop ends where it began. */
export function ancestorsOf(cat: Catalogue, number: string): Part[] {
  const out: Part[] = [];
  const seen = new Set([number]);
  const wanted = [number];
  for (let next = wanted.shift(); next !== undefined; next = wanted.shift()) {
    for (const p of cat.replacedBy.get(next) ?? []) {
      if (seen.has(p.number)) continue;
      seen.add(p.number);
      out.push(p);
      wanted.push(p.number);
    }
  }
  return out;
}

/** Upper case without spaces, dashes, dots; letters and digits that are mixed up in handwriting folded together. */
export function foldCode(code: string): string {
  return code
    .toUpperCase()
    .replace(/[^A-Z0-9]/g, '')
    .replace(/O/g, '0')
    .replace(/[IL]/g, '1')
    .replace(/S/g, '5')
    .replace(/B/g, '8')
    .replace(/Z/g, '2');
}

/** The record that a typed code means: exact when folded, else undefined. */
export function findCode(codes: Iterable<string>, typed: string): string | undefined {
  const t = foldCode(typed);
  for (const c of codes) if (foldCode(c) === t) return c;
  return undefined;
}

/** Codes nearest to the typed one by edit distance, nearest first. */
export function nearestCodes(codes: Iterable<string>, typed: string, limit = 3): string[] {
  const t = foldCode(typed);
  return [...codes]
    .map((c) => ({ c, d: distance(foldCode(c), t) }))
    .sort((a, b) => a.d - b.d || (a.c < b.c ? -1 : 1))
    .slice(0, limit)
    .map((x) => x.c);
}
