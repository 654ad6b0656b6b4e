import { type Catalogue, stagesFor } from '@core/catalogue/find-records';
import { type CauseData, causesFor } from '@core/cause/cause-data';
import { driveHas } from '@core/drive/drive-has';
import type { PracticeDrive } from './draw-return';

/** A kind of drive by one design that has it, and what such drives have. */
export type KindOfDrive = { id: string; has: string[] };

/** Every kind of drive of a catalogue, each once, by the first design that is such. */
export function kindsOfDrive(cat: Catalogue): KindOfDrive[] {
  const out = new Map<string, KindOfDrive>();
  for (const v of cat.pack.variants) {
    const stages = v.layout === undefined ? [] : stagesFor(cat, v.layout);
    if (stages.length === 0) continue;
    const has = [...driveHas(stages)].sort();
    const key = has.join(' ');
    if (!out.has(key)) out.set(key, { id: v.id, has });
  }
  return [...out.values()];
}

/** The causes of each kind of drive, as common as they are among returns. */
export const drivesOf = (data: CauseData, kinds: readonly KindOfDrive[]): PracticeDrive[] =>
  kinds.map(({ id, has }) => ({ id, data: causesFor(data, new Set(has), 'return') }));
