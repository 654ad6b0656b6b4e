import { must, num } from '@core/quantity/must';
import { own } from '@core/quantity/own';
import { supersessionChain } from '@core/catalogue/check-pack';
import { type Catalogue, stagesFor } from '@core/catalogue/find-records';
import type { Kit, Variant } from '@core/catalogue/pack';
import type { Exclusion, Identification } from './identify';

export type Condition = { feature: string; values: readonly string[] };
export type Refusal =
  | { code: 'other_engine'; engines: string[] }
  | { code: 'variant_excluded'; variant: Variant; by: readonly Exclusion[] }
  | { code: 'part_differs'; part: string; attribute: string; kit: number | string; drive: number | string };

/** `replacedBy`: the end of its supersession chain, when it has one. */
export type KitMatch = { replacedBy?: string | undefined } & KitVerdict;
type KitVerdict =
  | { kit: Kit; verdict: 'fits'; because: readonly Exclusion[]; variants: Variant[] }
  | { kit: Kit; verdict: 'fits_if'; variants: Variant[]; conditions: Condition[] }
  | { kit: Kit; verdict: 'no'; refusals: Refusal[] };

/**
 * Three-valued answer for every kit that belongs to the engine or was named: it fits when it serves every variant
 * that is still possible, fits if when it serves some, and does not when it serves none.
 */
export function matchKits(cat: Catalogue, engine: string, id: Identification, named?: string): KitMatch[] {
  const numbers = new Set<string>();
  for (const s of id.standings) for (const k of cat.kitsOf.get(s.variant.id) ?? []) numbers.add(k);
  if (named !== undefined && cat.kits.has(named)) numbers.add(named);
  const order = { fits: 0, fits_if: 1, no: 2 };
  return [...numbers]
    .map((n) => ({ ...matchKit(cat, engine, id, must(cat.kits.get(n))), replacedBy: successor(cat, n) }))
    .sort(
      (a, b) =>
        order[a.verdict] - order[b.verdict] ||
        Number(a.kit.status === 'discontinued') - Number(b.kit.status === 'discontinued') ||
        (a.kit.number < b.kit.number ? -1 : 1),
    );
}

function successor(cat: Catalogue, number: string): string | undefined {
  const { chain, loop } = supersessionChain(cat.kits, number);
  return loop || chain.length < 2 ? undefined : chain.at(-1);
}

function matchKit(cat: Catalogue, engine: string, id: Identification, kit: Kit): KitVerdict {
  const serves = new Set(cat.variantsOfKit.get(kit.number) ?? []);
  const variants = id.possible.filter((v) => serves.has(v.id));
  if (variants.length > 0 && variants.length === id.possible.length) {
    const because = id.standings.filter((s) => !serves.has(s.variant.id)).flatMap((s) => s.excludedBy);
    return { kit, verdict: 'fits', because, variants };
  }
  if (variants.length > 0)
    return { kit, verdict: 'fits_if', variants, conditions: conditions(cat, variants, id.possible) };
  return { kit, verdict: 'no', refusals: refusals(cat, engine, id, kit, serves) };
}

/** Teeth of every belt of a drive, the one at the crank first. */
function stageCounts(cat: Catalogue, id: string): number[] {
  return stagesFor(cat, id)
    .filter((s) => s.layout.kind === 'belt')
    .map((s) => s.layout.count);
}

/** Features whose values tell the kit's variants from the other possible ones. */
function conditions(cat: Catalogue, mine: readonly Variant[], possible: readonly Variant[]): Condition[] {
  const others = possible.filter((v) => !mine.includes(v));
  const out: Condition[] = [];
  for (const f of cat.features.values()) {
    const values = new Set(mine.flatMap((v) => own(v.features, f.id) ?? f.options.map((o) => o.key)));
    const theirs = new Set(others.flatMap((v) => own(v.features, f.id) ?? f.options.map((o) => o.key)));
    const mineOnly = [...values].filter((x) => !theirs.has(x));
    if (mineOnly.length > 0) out.push({ feature: f.id, values: mineOnly });
  }
  return out;
}

function refusals(
  cat: Catalogue,
  engine: string,
  id: Identification,
  kit: Kit,
  serves: ReadonlySet<string>,
): Refusal[] {
  const out: Refusal[] = [];
  const mine = id.standings.filter((s) => serves.has(s.variant.id));
  for (const s of mine) out.push({ code: 'variant_excluded', variant: s.variant, by: s.excludedBy });
  if (mine.length === 0) {
    const engines = new Set(
      [...serves].map((v) => cat.variants.get(v)?.engine).filter((e) => e !== undefined && e !== engine),
    );
    out.push({ code: 'other_engine', engines: [...engines] as string[] });
  }
  const sole = id.possible.length === 1 ? id.possible[0] : undefined;
  const layout = sole?.layout === undefined ? undefined : cat.layouts.get(sole.layout);
  const counts = layout ? stageCounts(cat, layout.id) : [];
  for (const c of counts.length > 0 ? kit.contents : []) {
    const part = cat.parts.get(c.part);
    const teeth = part?.kind === 'belt' ? part.attributes['teeth'] : undefined;
    if (part && typeof teeth === 'number' && !counts.includes(teeth)) {
      out.push({
        code: 'part_differs',
        part: part.number,
        attribute: 'teeth',
        kit: teeth,
        drive: num(counts, 0),
      });
    }
  }
  return out;
}
