import { catalogueLimit, type CatalogueLimit, newParts } from '@core/bench/catalogue-limit';
import { type LookAnswer, looksAt } from '@core/bench/examination';
import { EXAMINATIONS } from '@core/bench/examination-data';
import type { Catalogue } from '@core/catalogue/find-records';
import type { Kit, Part } from '@core/catalogue/pack';
import { KINDS } from '@core/facts/kinds';
import { optionsOf, type Registry } from '@core/facts/observable';
import { factsOf, has, listOf, measuredOf, placedOf, textOf } from '@core/facts/read';
import type { State } from '@core/facts/state';
import { THING } from '@core/facts/thing';
import { applies, type Possible } from './applies';
import type { NamedThing } from './things';

/** Did it come? Not said while nobody filed what was in the box; `here` of what is no part of a box. */
export type Came = 'sent' | 'not_sent' | 'not_said' | 'here';

export type LimitedLook = LookAnswer & { limit?: CatalogueLimit; abnormal: boolean };
/** One thing on the bench, with its looks in the order of the work. */
export type ThingOnBench = {
  kind: string;
  /** Which one; none for the first of its kind. */
  about: string | undefined;
  wording: string;
  came: Came;
  looks: LimitedLook[];
  done: number;
  /** Looks that show something that a cause has to explain. */
  abnormal: number;
  /** The new part that it is drawn and held against; none where several differ, or the catalogue has none. */
  part: Part | undefined;
  /** What cannot be claimed without it; only where it did not come. */
  without?: string;
};
export type Examined = {
  things: ThingOnBench[];
  /** Kinds that could have come too, and are not asked for unless they do. */
  others: string[];
};

/** True when a part of this kind is in the box, or something was filed of one; of the box itself when anything came. */
export function isHere(kind: string, state: State, registry: Registry): boolean {
  return (
    (KINDS.get(kind)?.box === true && listOf(state, 'parts.sent').length > 0) ||
    listOf(state, 'parts.sent').includes(KINDS.get(kind)?.sentAs ?? kind) ||
    (EXAMINATIONS.get(kind)?.looks ?? []).some(({ key }) => {
      const o = registry.get(key);
      return o !== undefined && (o.place ? placedOf(state, key).length > 0 : has(state, key));
    })
  );
}

/** The box as things: what came, what did not and what that forbids to claim, and how far each has been looked at. */
export function examined(
  state: State,
  registry: Registry,
  possible: Possible,
  named: readonly NamedThing[],
  cat: Catalogue,
  kit: Kit | undefined,
): Examined {
  const boxParts = new Set(optionsOf(registry.get('parts.sent')!).map((o) => o.key));
  const boxFiled = has(state, 'parts.sent');
  const out: Examined = { things: [], others: [] };
  for (const { kind, wording, part, rare, box, sentAs } of KINDS.values()) {
    const exam = EXAMINATIONS.get(kind);
    if (!exam) continue;
    const further = part ? named.filter((t) => t.kind === kind && t.id !== kind).map((t) => t.id) : [];
    if ((rare ?? box) && further.length === 0 && !isHere(kind, state, registry)) {
      if (rare && exam.looks.some(({ key }) => couldBe(registry, key, possible))) out.others.push(kind);
      continue;
    }
    const inBox = boxParts.has(sentAs ?? kind);
    const sent = listOf(state, 'parts.sent').includes(sentAs ?? kind);
    for (const about of [undefined, ...further]) {
      const looks = looksAt(exam.looks, registry, state, (o) => applies(o, possible), about);
      if (looks.length === 0) continue;
      const parts = newParts(cat, kit, kind, textOf(state, THING.number, about ?? kind));
      const limited = looks.map((l): LimitedLook => {
        const of = l.look.limit;
        const reading = of === undefined ? undefined : measuredOf(state, registry, l.look.key, about);
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
      const name = named.find((t) => t.id === (about ?? kind))?.name ?? '';
      out.things.push({
        kind,
        about,
        wording: name === '' ? wording : `${wording}, ${name}`,
        came,
        looks: limited,
        part: parts.length === 1 ? parts[0] : undefined,
        done,
        abnormal: limited.filter((l) => l.abnormal).length,
        ...(came === 'not_sent' && exam.without !== undefined ? { without: exam.without } : {}),
      });
    }
  }
  return out;
}

const couldBe = (registry: Registry, key: string, possible: Possible): boolean => {
  const o = registry.get(key);
  return o !== undefined && applies(o, possible);
};

function isAbnormal(state: State, l: LookAnswer, about: string | undefined): boolean {
  const bad = new Set(
    optionsOf(l.observable)
      .filter((x) => x.abnormal)
      .map((x) => x.key),
  );
  if (bad.size === 0) return false;
  if (l.observable.place)
    return placedOf(state, l.observable.key, about).some((p) => bad.has(String(p.value)));
  return factsOf(state, l.observable.key, about).some((f) =>
    Array.isArray(f.value) ? f.value.some((v) => bad.has(String(v))) : bad.has(String(f.value)),
  );
}
