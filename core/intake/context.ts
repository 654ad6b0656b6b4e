import { stemOf } from '@core/quantity/stem';
import { oncePer } from '@core/quantity/keep';
import { type Catalogue, foldCode, stagesFor } from '@core/catalogue/find-records';
import type { Engine, Variant } from '@core/catalogue/pack';
import { isMarked } from '@core/drive/judge-marks';
import type { Observable, Registry } from '@core/facts/observable';
import type { Notation } from '@core/facts/read-value';
import { wheelThing } from '@core/facts/thing';
import type { Day } from '@core/quantity/dates';
import type { Taught } from './lexicon';

/** What reading a text needs to know: the catalogue, what can be observed, the day, and what the case says already. */
export type IntakeContext = {
  catalogue: Catalogue;
  registry: Registry;
  notation: Notation;
  today: Day;
  /** Engine of the case, when it is known before the text is read. */
  engine?: string | undefined;
  /** Distance now of the case, km: differences are taken from it. */
  odometerKm?: number | undefined;
  /** Steps of an engine's fitting sheets, where they are at hand. */
  steps?: ((engine: string) => readonly NamedStep[]) | undefined;
  /** Words that this house taught the reader. */
  taught?: Taught | undefined;
};

/** A step of a fitting sheet as a message may speak of it. */
export type NamedStep = {
  id: string;
  text: string;
  fastener?: string | undefined;
  /** Its fastener holds the tensioner. */ tensioner?: boolean;
};

/** Standard uncertainty that the usual gauge of an observable gives; undefined where it is no measured number. */
export const usualSpread = (o: Observable | undefined): number | undefined =>
  o?.type.kind === 'number' ? o.type.u : undefined;

type CodeEntry = { kind: 'engine' | 'kit' | 'part' | 'cross'; code: string; means: string };
export type VehicleEntry = { name: string; stems: string[]; model: string[]; engines: Set<string> };
type Known = {
  codes: ReadonlyMap<string, CodeEntry>;
  longest: number;
  families: ReadonlyMap<string, readonly Engine[]>;
  vehicles: readonly VehicleEntry[];
};

/** Codes, families and vehicles of a catalogue by their folded names, made once. */
export const knownOf = oncePer((cat: Catalogue): Known => {
  const codes = new Map<string, CodeEntry>();
  const put = (kind: CodeEntry['kind'], code: string, means: string) => {
    const folded = foldCode(code);
    if (folded.length >= 5 && !codes.has(folded)) codes.set(folded, { kind, code, means });
  };
  const families = new Map<string, Engine[]>();
  const vehicles = new Map<string, VehicleEntry>();
  for (const e of cat.pack.engines) {
    put('engine', e.code, e.code);
    const family = e.family.toLowerCase();
    families.set(family, [...(families.get(family) ?? []), e]);
    // The letters of a code are said alone, too, where they are no other engine's.
    const letters = /[A-Z]{4,}$/i.exec(e.code)?.[0].toLowerCase();
    if (letters !== undefined && letters !== family)
      families.set(letters, [...(families.get(letters) ?? []), e]);
    for (const name of e.vehicles) {
      const words = name.toLowerCase().split(/\s+/).map(stemOf);
      const maker = e.maker.toLowerCase().split(/\s+/).length;
      const own = name.toLowerCase().startsWith(e.maker.toLowerCase());
      const entry = vehicles.get(name) ?? {
        name,
        stems: words,
        model: own ? words.slice(maker) : words,
        engines: new Set<string>(),
      };
      entry.engines.add(e.code);
      vehicles.set(name, entry);
    }
  }
  for (const k of cat.pack.kits) put('kit', k.number, k.number);
  for (const p of cat.pack.parts) put('part', p.number, p.number);
  for (const c of cat.pack.cross) put('cross', c.number, c.names);
  let longest = 0;
  for (const code of codes.keys()) longest = Math.max(longest, code.length);
  return {
    codes,
    longest,
    families,
    vehicles: [...vehicles.values()].sort((a, b) => b.stems.length - a.stems.length),
  };
});

/** What an engine's designs are driven by, where all of them are by one; undefined where that is open. */
export function drivenBy(ctx: IntakeContext, engine: string | undefined): 'belt' | 'chain' | undefined {
  const kinds = new Set(
    (engine === undefined ? [] : (ctx.catalogue.variantsOf.get(engine) ?? [])).flatMap((v) =>
      v.layout === undefined ? [] : stagesFor(ctx.catalogue, v.layout).map((s) => s.layout.kind),
    ),
  );
  return kinds.size === 1 ? [...kinds][0] : undefined;
}

export type MarkedWheel = { id: string; words: string[] };
/** Marked wheels of an engine's designs, and of every drive of the catalogue while the engine is open. */
export function wheelsWithMarks(cat: Catalogue, engine: string | undefined): MarkedWheel[] {
  const layouts =
    engine === undefined
      ? cat.pack.layouts
      : (cat.variantsOf.get(engine) ?? []).flatMap((v) =>
          v.layout === undefined ? [] : stagesFor(cat, v.layout).map((s) => s.layout),
        );
  const out = new Map<string, MarkedWheel>();
  for (const w of layouts.flatMap((l) => l.wheels))
    if (isMarked(w)) out.set(w.id, { id: wheelThing(w.id), words: w.name.toLowerCase().split(/[\s,]+/) });
  return [...out.values()];
}

/** Features that tell an engine's designs apart; every feature while the engine is open. */
export function featuresOf(ctx: IntakeContext, engine: string | undefined): Observable[] {
  const variants: readonly Variant[] =
    engine === undefined ? ctx.catalogue.pack.variants : (ctx.catalogue.variantsOf.get(engine) ?? []);
  const ids = new Set(variants.flatMap((v) => Object.keys(v.features)));
  return [...ids].flatMap((id) => ctx.registry.get(`feature.${id}`) ?? []);
}
