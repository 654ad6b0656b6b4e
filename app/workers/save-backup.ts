import { strToU8, Zip, ZipDeflate, ZipPassThrough } from 'fflate';
import type { IDBPDatabase } from 'idb';
import { BACKUP, type BackupList, backupList } from '@core/claim/backup';
import { deskFileFrame } from '@core/claim/desk-file';
import { bundlePath } from '@core/claim/bundle';
import { readBatch } from '../records/all-cases';
import { getPack } from '../records/pack-records';
import type { Records } from '../records/records';
import type { JobChannel } from '../threads/worker-client';
import type { BackupAsk, BackupProgress } from './backup.protocol';

/** Settings that go along; the key that signs cannot leave the browser, and marks of this browser mean nothing elsewhere. */
const KEPT_SETTINGS = ['house', 'knownKeys', 'knowledge-changes'];

/** Everything of this browser as one zip, written piece by piece, so that photographs need not fit into memory together. */
export async function saveBackup(
  db: IDBPDatabase<Records>,
  { at, drafts }: BackupAsk,
  line: JobChannel<BackupProgress>,
): Promise<{ blob: Blob; list: BackupList }> {
  const [packs, extracts, hashes] = await Promise.all([
    db.getAllKeys('packs'),
    db.getAllKeys('extracts'),
    db.getAllKeys('files'),
  ]);
  const heads = await db.count('heads');
  const of = heads + packs.length + extracts.length + hashes.length;
  let done = 0;
  const step = (n = 1) => {
    if (line.cancelled()) throw new Error('stopped');
    done += n;
    line.progress({ done: Math.min(done, of), of });
  };
  const { zip, blob } = zipInPieces();

  const [head, foot] = deskFileFrame(at, drafts);
  const desk = new ZipDeflate(BACKUP.desk, { level: 6 });
  zip.add(desk);
  desk.push(strToU8(head));
  let [cases, facts] = [0, 0];
  let after: string | undefined;
  for (;;) {
    const { groups, last } = await readBatch(db, after, []);
    if (last === undefined) break;
    for (const own of groups.values()) {
      if (own.length === 0) continue;
      const rows = own.map((f) => JSON.stringify(f)).join(',\n');
      desk.push(strToU8(facts === 0 ? rows : `,\n${rows}`));
      cases++;
      facts += own.length;
    }
    step(groups.size);
    after = last;
  }
  desk.push(strToU8(foot), true);

  for (const [i, id] of packs.entries()) {
    addText(zip, `${BACKUP.packs}${i + 1}.json`, JSON.stringify(await getPack(db, id)));
    step();
  }
  for (const [i, id] of extracts.entries()) {
    addText(zip, `${BACKUP.extracts}${i + 1}.json`, JSON.stringify((await db.get('extracts', id))?.pack));
    step();
  }
  const files: BackupList['files'] = [];
  for (const hash of hashes) {
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
  for (const key of KEPT_SETTINGS) {
    const value: unknown = await db.get('settings', key);
    if (value !== undefined) settings[key] = value;
  }
  const list = backupList({
    at,
    cases,
    facts,
    packs: packs.map(String),
    extracts: extracts.map(String),
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
