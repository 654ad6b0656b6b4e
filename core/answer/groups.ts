import { KINDS } from '@core/facts/kinds';
import type { Observable, Registry } from '@core/facts/observable';
import type { Station } from '@core/facts/stations';
import { GROUPS } from '@core/facts/registry';
import { applies, type Possible } from './applies';
import type { NamedThing } from './things';

/** Fields that a station shows together, under a name. */
export type FieldGroup = { name: string; fields: Observable[] };
/** Fields of one part; `about`: which, none for the first. `several`: there may be more of it; `last`: no more of it follow. */
export type PartGroup = FieldGroup & { kind: string; about?: string; several: boolean; last: boolean };

const isShown = (o: Observable, drive: Possible): boolean => !o.hidden && applies(o, drive);

/** The named groups of a station, in the order of the data; of each what can be observed on a drive that is still possible. */
export function groupsOf(
  registry: Registry,
  station: Station,
  drive: Possible,
): (FieldGroup & { key: string })[] {
  return GROUPS.filter((g) => g.station === station).map((g) => ({
    key: g.key,
    name: g.wording,
    fields: [...registry.values()].filter((o) => o.groups?.includes(g.key) && isShown(o, drive)),
  }));
}

/**
 * What can be observed of each part at a station, in the order of the kinds: once for the first of a kind, and once for every
 * further part of the case.
 */
export function groupsByPart(
  registry: Registry,
  station: Station,
  drive: Possible,
  things: readonly NamedThing[],
): PartGroup[] {
  const shown = [...registry.values()].filter(
    (o) => o.station === station && o.groups === undefined && isShown(o, drive),
  );
  return [...KINDS.values()].flatMap(({ kind, wording, part }): PartGroup[] => {
    const fields = shown.filter((o) => o.part === kind);
    if (fields.length === 0) return [];
    const own = things.filter((t) => t.kind === kind);
    const first = own.find((t) => t.id === kind)?.name ?? '';
    const further = part ? own.filter((t) => t.id !== kind) : [];
    const of = (name: string, i: number) => ({
      name: name === '' ? wording : `${wording}, ${name}`,
      kind,
      fields,
      several: part,
      last: i === further.length,
    });
    return [of(first, 0), ...further.map((t, i) => ({ ...of(t.name, i + 1), about: t.id }))];
  });
}
