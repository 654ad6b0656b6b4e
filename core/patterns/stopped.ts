import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { lotKey } from './population';

const Act = {
  at: z.iso.datetime({ offset: true }),
  by: z.string().max(120),
  reason: z.string().min(1).max(600),
};
/** A lot that was stopped, and by whom and why; released again likewise. Entries are only added. */
export const StoppedSchema = z.array(
  z.strictObject({
    kit: z.string().min(1).max(40),
    lot: z.string().min(1).max(40),
    does: z.enum(['stop', 'release']),
    ...Act,
  }),
);
export type StoppedEntry = z.infer<typeof StoppedSchema>[number];

/** Lots that stand stopped, each by its last entry, the newest first. */
export function standingStops(entries: readonly StoppedEntry[]): StoppedEntry[] {
  const last = new Map<string, StoppedEntry>();
  for (const e of [...entries].sort((a, b) => (a.at < b.at ? -1 : 1))) last.set(lotKey(e.kit, e.lot), e);
  return [...last.values()].filter((e) => e.does === 'stop').sort((a, b) => (a.at < b.at ? 1 : -1));
}

/** The stop that a kit's lot is under; none for a lot that is not known. */
export const stopOf = (
  entries: readonly StoppedEntry[],
  kit: string | undefined,
  lot: string | undefined,
): StoppedEntry | undefined =>
  kit && lot ? standingStops(entries).find((e) => lotKey(e.kit, e.lot) === lotKey(kit, lot)) : undefined;
