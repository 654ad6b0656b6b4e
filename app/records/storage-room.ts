/** Share of the browser's store beyond which every further file is told. */
const SCARCE = 0.8;
export type Room = { kind: 'enough' } | { kind: 'scarce' | 'none'; freeMb: number };

/** Whether the browser's store has room for so many more bytes; enough where the browser does not say. */
export async function roomFor(bytes: number, storage: Pick<StorageManager, 'estimate'>): Promise<Room> {
  const { usage, quota } = await storage.estimate();
  if (usage === undefined || quota === undefined || quota === 0) return { kind: 'enough' };
  const freeMb = Math.max(0, Math.floor((quota - usage) / 1e6));
  if (usage + bytes > quota) return { kind: 'none', freeMb };
  return usage + bytes > SCARCE * quota ? { kind: 'scarce', freeMb } : { kind: 'enough' };
}
