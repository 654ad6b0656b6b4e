import { strToU8, Zip, ZipDeflate, ZipPassThrough } from 'fflate';
import type { IDBPDatabase } from 'idb';
import { BACKUP, type BackupList, backupList } from '@core/claim/backup';
import { deskFileFrame } from '@core/claim/desk-file';
import { bundlePath } from '@core/claim/bundle';
import type { Fact } from '@core/facts/fact';
import { readBatch } from '../records/all-cases';
import type { Damaged } from '../records/damaged';
import { getPack } from '../records/pack-records';
import { type Records, SETTING } from '../records/records';
import type { JobChannel } from '../threads/worker-client';
import type { BackupAsk, BackupProgress } from './backup.protocol';

/** So much text in one desk file: one that is far below what is read back at once. */
const DESK_TEXT = 16 * 1024 * 1024;

/** Everything of this browser as one zip, written piece by piece, so that photographs need not fit into memory together. @param deskText signs after which a desk file ends */
export async function saveBackup(
  db: IDBPDatabase<Records>,
  { at, drafts }: BackupAsk,
  line: JobChannel<BackupProgress>,
  deskText = DESK_TEXT,
): Promise<{ blob: Blob; list: BackupList }> {
  const counts = await Promise.all(
    (['heads', 'packs', 'extracts', 'files'] as const).map((store) => db.count(store)),
  );
  const of = counts.reduce((a, b) => a + b, 0);
  let done = 0;
  const step = (n = 1) => {
    if (line.cancelled()) throw new Error('stopped');
    done += n;
    line.progress({ done: Math.min(done, of), of });
  };
  const { zip, blob } = zipInPieces();

  const damaged: Damaged[] = [];
  const desks = deskFiles(zip, at, drafts, deskText);
  let [cases, facts] = [0, 0];
  let after: string | undefined;
  for (;;) {
    const { groups, last } = await readBatch(db, after, damaged);
    if (last === undefined) break;
    for (const own of groups.values()) {
      if (own.length === 0) continue;
      desks.add(own);
      cases++;
      facts += own.length;
    }
    step(groups.size);
    after = last;
  }

  const packs: string[] = [];
  for (const id of await db.getAllKeys('packs')) {
    const pack = await getPack(db, id);
    if (pack) addText(zip, `${BACKUP.packs}${packs.push(id)}.json`, JSON.stringify(pack));
    step();
  }
  const extracts: string[] = [];
  for (const id of await db.getAllKeys('extracts')) {
    const record = await db.get('extracts', id);
    if (record) addText(zip, `${BACKUP.extracts}${extracts.push(id)}.json`, JSON.stringify(record.pack));
    step();
  }
  const files: BackupList['files'] = [];
  for (const hash of await db.getAllKeys('files')) {
    const record = await db.get('files', hash);
    if (record) {
      const { sha256, name, type } = record;
      files.push({ sha256, name, type });
      // photographs are packed already
      const entry = new ZipPassThrough(
        `${BACKUP.files}${bundlePath({ hash: sha256, name }).split('/')[1] ?? ''}`,
      );
      zip.add(entry);
      entry.push(new Uint8Array(await record.blob.arrayBuffer()), true);
    }
    step();
  }
  const settings: Record<string, unknown> = {};
  for (const key of Object.values(SETTING)) {
    const value: unknown = await db.get('settings', key);
    if (value !== undefined) settings[key] = value;
  }
  const list = backupList({
    at,
    cases,
    facts,
    desks: desks.end(),
    damaged: damaged.length,
    packs,
    extracts,
    files,
    settings,
  });
  addText(zip, BACKUP.list, JSON.stringify(list));
  zip.end();
  return { blob: blob(), list };
}

function addText(zip: Zip, name: string, text: string): void {
  const entry = new ZipDeflate(name, { level: 6 });
  zip.add(entry);
  entry.push(strToU8(text), true);
}

/** Writes whole cases into desk files, the first with half-typed text; its end tells how many there are. */
function deskFiles(zip: Zip, at: string, drafts: Record<string, string>, most: number) {
  let count = 0;
  let size = 0;
  let open: { entry: ZipDeflate; foot: string } | undefined;
  const begin = () => {
    const [head, foot] = deskFileFrame(at, count === 0 ? drafts : {});
    const entry = new ZipDeflate(`${BACKUP.desks}${++count}.json`, { level: 6 });
    zip.add(entry);
    entry.push(strToU8(head));
    size = 0;
    return { entry, foot };
  };
  const close = () => {
    open?.entry.push(strToU8(open.foot), true);
    open = undefined;
  };
  return {
    add(facts: readonly Fact[]) {
      open ??= begin();
      const rows = facts.map((f) => JSON.stringify(f)).join(',\n');
      open.entry.push(strToU8(size === 0 ? rows : `,\n${rows}`));
      size += rows.length;
      if (size > most) close();
    },
    end(): number {
      if (count === 0) open = begin();
      close();
      return count;
    },
  };
}

/** A zip whose pieces leave the script's memory as they are made. */
function zipInPieces(): { zip: Zip; blob: () => Blob } {
  const pieces: Blob[] = [];
  let fault: Error | undefined;
  const zip = new Zip((error, chunk) => {
    if (error) fault ??= error;
    else pieces.push(new Blob([new Uint8Array(chunk)]));
  });
  return {
    zip,
    blob: () => {
      if (fault) throw fault;
      return new Blob(pieces, { type: 'application/zip' });
    },
  };
}
