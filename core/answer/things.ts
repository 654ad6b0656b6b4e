import { must } from '@core/quantity/must';
import { KINDS } from '@core/facts/kinds';
import type { InstallationFault } from '@core/claim/faults';
import {
  bankThing,
  faultThing,
  kindOfId,
  nameOfId,
  oldThing,
  type Thing,
  wheelThing,
} from '@core/facts/thing';
import { stepThing } from '@core/fitting/fitted';
import type { SheetStep } from '@core/fitting/sheet';
import { isMarked } from '@core/drive/judge-marks';
import type { Possible } from './applies';

/** A thing by the words that tell it from others of its kind: "left", "right upper"; none for a first one without a place. */
export type NamedThing = { id: string; kind: string; name: string };

/**
 * Everything that facts can be about by name: the parts of the case, the marked wheels and the banks of the possible drives, the
 * installation faults of the house, steps of its fitting sheet, and an old part of every kind to compare with the new one.
 */
export function namedThings(
  parts: readonly Thing[],
  drive: Pick<Possible, 'designs'>,
  faults: readonly InstallationFault[],
  steps: readonly Pick<SheetStep, 'id' | 'number'>[] = [],
): NamedThing[] {
  const found = new Map<string, NamedThing>();
  const put = (id: string, kind: string, name: string) => {
    if (!found.has(id)) found.set(id, { id, kind, name });
  };
  const count = new Map<string, number>();
  for (const p of parts) {
    const n = (count.get(p.kind) ?? 0) + 1;
    count.set(p.kind, n);
    put(p.id, p.kind, p.place ?? p.number ?? (p.first ? '' : `no. ${n}`));
  }
  for (const k of KINDS.values()) if (k.part) put(oldThing(k.kind), 'old', k.kind);
  for (const f of faults) put(faultThing(f.code), 'fault', f.code);
  for (const s of steps) put(stepThing(s.id), 'step', `step ${s.number}`);
  for (const { layout } of drive.designs.flat()) {
    for (const w of layout.wheels) if (isMarked(w)) put(wheelThing(w.id), 'wheel', w.name.toLowerCase());
    for (const b of layout.banks ?? []) put(bankThing(b.id), 'bank', b.name.toLowerCase());
  }
  return [...found.values()];
}

/** A thing as a person reads it behind an observable: "right upper", "tensioner, left"; '' where nothing needs telling apart. */
export function thingWords(things: readonly NamedThing[], id: string | undefined): string {
  if (id === undefined) return '';
  const kind = things.find((t) => t.id === id)?.kind ?? kindOfId(id);
  const name = things.find((t) => t.id === id)?.name ?? nameOfId(id);
  if (kind === 'old') return `old ${name}`;
  if (kind === undefined || !KINDS.get(kind)?.part) return name;
  const wording = must(KINDS.get(kind)).wording.toLowerCase();
  return name === '' || name === kind ? wording : `${wording}, ${name}`;
}
