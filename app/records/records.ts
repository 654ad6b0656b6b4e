import type { DBSchema } from 'idb';
import type { CaseSummary } from '@core/answer/case-summary';
import type { Pack } from '@core/catalogue/pack';
import type { Fact } from '@core/facts/fact';

/** Tables of a pack, in the order in which they are written. */
export const PACK_TABLES = [
  'engines',
  'features',
  'variants',
  'layouts',
  'parts',
  'kits',
  'applications',
  'jobs',
  'intervals',
  'cross',
  'procedures',
] as const;

/** Make of the schema of packs: one more whenever it refuses what it read before. */
export const PACK_SHAPE = 1;

/** A pack without its rows, and where those lie. */
export type PackRecord = {
  id: string;
  head: Omit<Pack, (typeof PACK_TABLES)[number]>;
  chunks: { table: (typeof PACK_TABLES)[number]; key: string }[];
  /** SHA-256 of the whole pack, where a thread computed it. */
  digest?: string;
  /** Make of the schema that it was read with; one of an earlier make is read again before it answers. */
  shape?: number;
};

/** A photograph, capture or document, once per content. */
export type FileRecord = { sha256: string; name: string; type: string; blob: Blob };

export interface Records extends DBSchema {
  /** By case and id: the facts of a case lie beside each other. */
  facts: { key: [string, string]; value: Fact; indexes: { id: string } };
  /** What the rack shows of each case: made from facts after they are written, and made anew at will. */
  heads: { key: string; value: CaseSummary };
  /** Cases whose summary is behind their facts, with how many facts they had: written with the facts, gone with the summary. */
  behind: { key: string; value: number };
  /** Files that facts point to, by the SHA-256 of their content. */
  files: { key: string; value: FileRecord };
  /** Heads of packs by name and version; their rows lie in packRows, in chunks. */
  packs: { key: string; value: PackRecord };
  packRows: { key: string; value: unknown[] };
  /** The part of a catalogue that came with a case file, by case. It answers that case alone and is never the catalogue. */
  extracts: { key: string; value: { case: string; pack: Pack } };
  /** Facts that are known to stand on the shelf which this browser is joined to. */
  shelved: { key: [string, string]; value: { case: string; id: string } };
  /** Cases whose facts lie on the shelf alone, with how many they were: here is only their summary. */
  elsewhere: { key: string; value: { id: string; facts: number } };
  /** Half-typed text by case and field. */
  drafts: { key: string; value: { text: string; at: string } };
  settings: { key: string; value: unknown };
}
/** Names of settings that go along with a backup: how the desk writes and judges, its own numbers, keys of other desks. */
export const SETTING = {
  desk: 'house',
  ownNumbers: 'knowledge-changes',
  knownKeys: 'knownKeys',
  sold: 'sold',
  stopped: 'stopped lots',
  bulletins: 'bulletins',
} as const;
export const DATABASE = 'hollow-sprocket';
export const VERSION = 6;

/** Everything of one case. */
export const ofCase = (id: string): IDBKeyRange => IDBKeyRange.bound([id], [id, []]);

type SummaryStore = {
  get(key: string): Promise<CaseSummary | undefined>;
  put(value: CaseSummary): Promise<unknown>;
};
type Marks = {
  get(key: string): Promise<number | undefined>;
  delete(key: string): Promise<unknown>;
};
/**
 * Puts summaries, each made from so many facts, and takes away the mark of those that are not behind any more. Where more was
 * filed since, whoever did it keeps the summary; what is kept of such cases comes back.
 */
export async function putSummaries(
  heads: SummaryStore,
  behind: Marks,
  made: readonly { summary: CaseSummary; facts: number }[],
): Promise<CaseSummary[]> {
  const newer: CaseSummary[] = [];
  for (const { summary, facts } of made) {
    const mark = await behind.get(summary.id);
    if (mark !== undefined && mark > facts) {
      const kept = await heads.get(summary.id);
      if (kept) newer.push(kept);
      continue;
    }
    void heads.put(summary).catch(ignored);
    if (mark !== undefined) void behind.delete(summary.id).catch(ignored);
  }
  return newer;
}
/** The transaction as a whole tells what failed. */
const ignored = () => undefined;
