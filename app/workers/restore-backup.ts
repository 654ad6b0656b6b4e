import { strFromU8 } from 'fflate';
import type { IDBPDatabase } from 'idb';
import { checkPack } from '@core/catalogue/check-pack';
import { type Pack, PackSchema } from '@core/catalogue/pack';
import { packId } from '@core/catalogue/version';
import { BACKUP, type BackupList, readBackupList } from '@core/claim/backup';
import { readDeskFile } from '@core/claim/desk-file';
import { type Result, err, ok } from '@core/quantity/result';
import { hashOf } from '../records/hash';
import { writePack } from '../records/pack-records';
import type { FileRecord, Records } from '../records/records';
import type { JobChannel } from '../threads/worker-client';
import type { BackupCame, BackupProgress, RestoreError } from './backup.protocol';
import { takeDesk } from './take-desk';
import { LIMITS, type NamedBytes, unzip } from './unpack';

/** A backup may be as large as what a browser holds at once; beyond it is taken in by its parts. */
const BACKUP_LIMITS = {
  ...LIMITS,
  fileBytes: 1024 * 1024 * 1024,
  entries: 100_000,
  unpackedBytes: 1024 * 1024 * 1024,
};

async function opened(name: string, blob: Blob): Promise<Result<NamedBytes[], RestoreError>> {
  return unzip(name, new Uint8Array(await blob.arrayBuffer()), BACKUP_LIMITS);
}

function listIn(entries: readonly NamedBytes[]): Result<BackupList, RestoreError> {
  const list = entries.find((e) => e.name === BACKUP.list);
  return list ? readBackupList(strFromU8(list.bytes)) : err({ code: 'no_list' });
}

/** What a backup holds. */
export async function lookAtBackup(name: string, blob: Blob): Promise<Result<BackupList, RestoreError>> {
  const entries = await opened(name, blob);
  return entries.ok ? listIn(entries.value) : entries;
}

/**
 * Takes a backup in. All of it is read before anything is written; catalogues and files come first, each as it is named by
 * its content, then the cases of each desk file in one write, merged with what is here. What cannot be taken is left and told;
 * nothing that is here is removed. Taken in again, it goes on where it was stopped.
 */
export async function restoreBackup(
  db: IDBPDatabase<Records>,
  name: string,
  blob: Blob,
  line: JobChannel<BackupProgress>,
): Promise<Result<BackupCame, RestoreError>> {
  const entries = await opened(name, blob);
  if (!entries.ok) return entries;
  const list = listIn(entries.value);
  if (!list.ok) return list;
  const byName = new Map(entries.value.map((e) => [e.name, e]));
  const desks = desksIn(byName, list.value.desks);
  if (!desks.ok) return desks;
  const packs = packsIn(byName, BACKUP.packs, list.value.packs);
  const parts = packsIn(byName, BACKUP.extracts, list.value.extracts);
  const { files, badFiles } = await filesIn(entries.value, list.value.files);
  if (line.cancelled()) return err({ code: 'cut' });

  const known = new Set((await db.getAllKeys('packs')).map(String));
  const fresh = [...packs.good.values()].filter((p) => !known.has(packId(p)));
  for (const pack of fresh) await writePack(db, pack);
  const tx = db.transaction(['files', 'extracts'], 'readwrite', { durability: 'strict' });
  for (const f of files) void tx.objectStore('files').put(f);
  for (const [id, pack] of parts.good) void tx.objectStore('extracts').put({ case: id, pack });
  await tx.done;

  const came: BackupCame = {
    cases: [],
    left: [],
    drafts: {},
    packs: fresh.map((p) => packId(p)),
    extracts: [...parts.good.keys()],
    files: files.length,
    badFiles,
    badPacks: [...packs.bad, ...parts.bad],
    refused: [],
  };
  for (const desk of desks.value) {
    const before = came.cases.length;
    const taken = await takeDesk(db, desk, {
      progress: ({ done }) => line.progress({ done: before + done, of: list.value.cases }),
      cancelled: line.cancelled,
    });
    if (!taken.ok) {
      came.refused.push(taken.error);
      if (taken.error.code === 'cut') break;
      continue;
    }
    came.cases.push(...taken.value.cases);
    came.left.push(...taken.value.left);
    came.drafts = { ...came.drafts, ...taken.value.drafts };
  }
  const [first] = came.refused;
  return first && came.cases.length === 0 ? err(first) : ok(came);
}

/** The desk files, each read once to see that it is one: nothing is written while one of them is not. */
function desksIn(byName: ReadonlyMap<string, NamedBytes>, count: number): Result<Blob[], RestoreError> {
  const out: Blob[] = [];
  for (let i = 1; i <= count; i++) {
    const name = `${BACKUP.desks}${i}.json`;
    const entry = byName.get(name);
    const read = entry && readDeskFile(strFromU8(entry.bytes));
    if (!entry || !read?.ok)
      return err({ code: 'bad_desk', name, why: read && !read.ok ? read.error : undefined });
    out.push(new Blob([new Uint8Array(entry.bytes)]));
  }
  return ok(out);
}

/** Catalogues by the names that the list gives them, each checked as one that is imported. */
function packsIn(
  byName: ReadonlyMap<string, NamedBytes>,
  folder: string,
  names: readonly string[],
): { good: Map<string, Pack>; bad: string[] } {
  const good = new Map<string, Pack>();
  const bad: string[] = [];
  for (const [i, name] of names.entries()) {
    const entry = byName.get(`${folder}${i + 1}.json`);
    const read = entry && PackSchema.safeParse(parsed(strFromU8(entry.bytes)));
    if (read?.success && checkPack(read.data).length === 0) good.set(name, read.data);
    else bad.push(name);
  }
  return { good, bad };
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}

/** Files whose content is what their name says. */
async function filesIn(
  entries: readonly NamedBytes[],
  listed: BackupList['files'],
): Promise<{ files: FileRecord[]; badFiles: string[] }> {
  const byHash = new Map(
    entries.flatMap((e): [string, NamedBytes][] => {
      const m = /^files\/([0-9a-f]{64})(\.|$)/.exec(e.name);
      return m ? [[m[1] ?? '', e]] : [];
    }),
  );
  const files: FileRecord[] = [];
  const badFiles: string[] = [];
  for (const { sha256, name, type } of listed) {
    const found = byHash.get(sha256);
    const bytes = found && new Uint8Array(found.bytes);
    if (bytes && (await hashOf(bytes)) === sha256)
      files.push({ sha256, name, type, blob: new Blob([bytes], { type }) });
    else badFiles.push(name);
  }
  return { files, badFiles };
}
