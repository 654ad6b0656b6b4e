import { must } from '@core/quantity/must';
import { catalogueLimit, type CatalogueLimit, newParts } from '@core/examination/catalogue-limit';
import { type InspectionAnswer, inspectionsOf, type PossibleInspection } from '@core/examination/examination';
import { EXAMINATIONS } from '@core/examination/examination-data';
import type { Catalogue } from '@core/catalogue/find-records';
import type { Kit, Part } from '@core/catalogue/pack';
import { KINDS, sentKey } from '@core/facts/kinds';
import { optionsOf, type Registry } from '@core/facts/observable';
import { factsOf, filedObservables, has, listOf, measuredOf, placedOf, textOf } from '@core/facts/read';
import type { State } from '@core/facts/state';
import { THING } from '@core/facts/thing';
import type { NamedThing } from './things';

/** Did it come? Not said while nobody filed what was in the box; `here` of what is no part of a box. */
type Came = 'sent' | 'not_sent' | 'not_said' | 'here';

export type LimitedInspection = InspectionAnswer & { limit?: CatalogueLimit; abnormal: boolean };
/** One thing on the bench, with its inspections in the order of the work. */
export type ExaminedThing = {
  kind: string;
  /** Which one; none for the first of its kind. */
  about: string | undefined;
  wording: string;
  came: Came;
  inspections: LimitedInspection[];
  done: number;
  /** Inspections that show something that a cause has to explain. */
  abnormal: number;
  /** The new part that it is drawn and held against; none where several differ, or the catalogue has none. */
  part: Part | undefined;
  /** What cannot be claimed without it; only where it did not come. */
  without?: string;
};
export type Examined = {
  things: ExaminedThing[];
  /** Kinds that could have come too, and are not asked for unless they do. */
  others: string[];
};

/** True when something of this kind came, or anything was filed of it; of the box itself when anything came. */
function isHere(kind: string, state: State): boolean {
  const sent = listOf(state, 'parts.sent');
  return (
    (KINDS.get(kind)?.box === true && sent.length > 0) ||
    sent.includes(sentKey(kind)) ||
    (EXAMINATIONS.get(kind)?.inspections ?? []).some(({ key }) => filedObservables(state).has(key))
  );
}

/** True when looks at a kind are asked for: of what is rare, and of the box itself, only once it is here. */
export function isAsked(kind: string, state: State, named: readonly NamedThing[]): boolean {
  const { rare, box } = KINDS.get(kind) ?? {};
  if (!rare && !box) return true;
  return named.some((t) => t.kind === kind && t.id !== kind) || isHere(kind, state);
}

/** What came and its box first; what is asked of the engine and the kit is looked at last. */
const ON_THE_BENCH = (() => {
  const all = [...KINDS.values()];
  const first = all.findIndex((k) => k.box);
  return [...all.slice(first), ...all.slice(0, first)];
})();

/** The box as things: what came, what did not and what that forbids to claim, and how far each has been looked at. */
export function examined(
  state: State,
  registry: Registry,
  possibleToInspect: ReadonlyMap<string, readonly PossibleInspection[]>,
  named: readonly NamedThing[],
  cat: Catalogue,
  kit: Kit | undefined,
): Examined {
  const boxParts = new Set(optionsOf(must(registry.get('parts.sent'))).map((o) => o.key));
  const boxFiled = has(state, 'parts.sent');
  const out: Examined = { things: [], others: [] };
  for (const { kind, wording, part, rare } of ON_THE_BENCH) {
    const possible = possibleToInspect.get(kind) ?? [];
    if (possible.length === 0) continue;
    const further = part ? named.filter((t) => t.kind === kind && t.id !== kind).map((t) => t.id) : [];
    if (!isAsked(kind, state, named)) {
      if (rare) out.others.push(kind);
      continue;
    }
    const inBox = boxParts.has(sentKey(kind));
    const sent = listOf(state, 'parts.sent').includes(sentKey(kind));
    for (const about of [undefined, ...further]) {
      const inspections = inspectionsOf(possible, state, about);
      const parts = newParts(cat, kit, kind, textOf(state, THING.number, about ?? kind));
      const limited = inspections.map((l): LimitedInspection => {
        const of = l.inspection.limit;
        const reading =
          of === undefined || l.status !== 'done'
            ? undefined
            : measuredOf(state, registry, l.inspection.key, about);
        const limit = of && catalogueLimit(parts, of, reading);
        return {
          ...l,
          abnormal: l.status === 'done' && isAbnormal(state, l, about),
          ...(limit ? { limit } : {}),
        };
      });
      const done = limited.filter((l) => l.status === 'done').length;
      const came: Came = !inBox
        ? 'here'
        : sent || about !== undefined
          ? 'sent'
          : !boxFiled
            ? 'not_said'
            : done > 0
              ? 'sent'
              : 'not_sent';
      const { without } = must(EXAMINATIONS.get(kind));
      const name = named.find((t) => t.id === (about ?? kind))?.name ?? '';
      out.things.push({
        kind,
        about,
        wording: name === '' ? wording : `${wording}, ${name}`,
        came,
        inspections: limited,
        part: parts.length === 1 ? parts[0] : undefined,
        done,
        abnormal: limited.filter((l) => l.abnormal).length,
        ...(came === 'not_sent' && without !== undefined ? { without } : {}),
      });
    }
  }
  return out;
}

function isAbnormal(state: State, l: InspectionAnswer, about: string | undefined): boolean {
  const isBad = (v: unknown) => optionsOf(l.observable).some((x) => x.abnormal && x.key === v);
  if (l.observable.place) return placedOf(state, l.observable.key, about).some((p) => isBad(p.value));
  return factsOf(state, l.observable.key, about).some((f) =>
    (Array.isArray(f.value) ? [...f.value] : [f.value]).some(isBad),
  );
}
