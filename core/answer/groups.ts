import { KINDS } from '@core/facts/kinds';
import type { Observable, Registry, Station } from '@core/facts/observable';
import { GROUPS } from '@core/facts/registry';
import { applies, type Possible } from './applies';
import type { NamedThing } from './things';

/** What a station shows together: of one returned part, or of one group of the data. `about`: the part, none for the first. */
export type FieldGroup = {
  name: string;
  kind: string;
  about?: string;
  fields: Observable[];
  lastOfKind: boolean;
};

/**
 * The fields of a station in the order of the data: observables with a group under its name, all others under the kind of
 * part that they are of, in the order of the kinds, once for every such part of the case. Only what can be observed on a drive that is still possible.
 */
export function groupsOf(
  registry: Registry,
  station: Station,
  drive: Possible,
  things: readonly NamedThing[],
): FieldGroup[] {
  const shown = [...registry.values()].filter((o) => o.station === station && !o.hidden && applies(o, drive));
  const named = GROUPS.filter((g) => g.station === station).map((g) => ({
    name: g.wording,
    kind: g.key,
    fields: shown.filter((o) => o.group === g.key),
    lastOfKind: false,
  }));
  const rest = shown.filter((o) => o.group === undefined);
  const order = [...KINDS.keys()];
  const kinds = [...new Set(rest.map((o) => o.part))].sort((a, b) => order.indexOf(a) - order.indexOf(b));
  const parts = kinds.flatMap((kind): FieldGroup[] => {
    const fields = rest.filter((o) => o.part === kind);
    const wording = KINDS.get(kind)?.wording ?? kind;
    const own = things.filter((t) => t.kind === kind);
    const first = own.find((t) => t.id === kind)?.name ?? '';
    const further = KINDS.get(kind)?.part ? own.filter((t) => t.id !== kind) : [];
    return [
      {
        name: first === '' ? wording : `${wording}, ${first}`,
        kind,
        fields,
        lastOfKind: further.length === 0,
      },
      ...further.map((t, i) => ({
        name: `${wording}, ${t.name}`,
        kind,
        about: t.id,
        fields,
        lastOfKind: i === further.length - 1,
      })),
    ];
  });
  return [...named, ...parts].filter((g) => g.fields.length > 0);
}

/** True when a group is of a returned part, of which there may be several. */
export const isPart = (g: FieldGroup): boolean => KINDS.get(g.kind)?.part === true;
