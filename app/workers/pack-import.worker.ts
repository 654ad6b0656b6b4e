import { diffPacks, rowDifferences } from '@core/catalogue/pack-changes';
import type { Pack } from '@core/catalogue/pack';
import { packDigest } from '@core/catalogue/pack-digest';
import type { IssueReason } from '@core/catalogue/pack-issue';
import { packId, newerFirst } from '@core/catalogue/version';
import { openRecords } from '../records/open-records';
import { getPack, writePack } from '../records/pack-records';
import { serveJobs } from '../threads/worker-client';
import type { ImportPreview, ImportProgress, PackJobs } from './pack-import.protocol';
import type { TableTrouble } from './claims.protocol';
import type { NamedAs } from '@core/catalogue/tables';
import { type FilesReading, readPackFiles } from './read-pack-files';
import { LIMITS, unpack, type UnpackError } from './unpack';
import { readTablesOfWorkbook, type WorkbookSheet } from './workbook';

let waiting: Pack | undefined;

async function newest(name: string | undefined): Promise<Pack | undefined> {
  const db = await openRecords();
  const heads = (await db.getAll('packs')).filter((r) => name === undefined || r.head.name === name);
  heads.sort((a, b) => newerFirst(a.head, b.head));
  const pack = heads[0] ? await getPack(db, heads[0].id) : undefined;
  db.close();
  return pack;
}

const WORKBOOK = /\.xlsx$/i;
/** Rows that are shown of what differs. */
const SHOWN = 200;

/** Sizes are looked at before anything is read, and while it is unpacked. */
async function readFiles(
  files: File[],
  base: Pack | undefined,
  as: NamedAs,
  progress: (p: ImportProgress) => void,
): Promise<FilesReading> {
  const large = files.find((f) => f.size > LIMITS.fileBytes);
  if (large)
    return refused({ code: 'file_too_large', name: large.name, bytes: large.size, most: LIMITS.fileBytes });
  const bytesOf = async (f: File) => ({ name: f.name, bytes: new Uint8Array(await f.arrayBuffer()) });
  const unpacked = unpack(await Promise.all(files.filter((f) => !WORKBOOK.test(f.name)).map(bytesOf)));
  if (!unpacked.ok) return refused(unpacked.error);
  const sheets: WorkbookSheet[] = [];
  for (const f of files.filter((x) => WORKBOOK.test(x.name))) {
    const read = await readTablesOfWorkbook(f.name, (await bytesOf(f)).bytes);
    if (!read.ok) return refused(read.error);
    sheets.push(...read.value);
  }
  return readPackFiles({ texts: unpacked.value, sheets }, base, progress, as);
}

/** Why a file was not read at all. */
function refused(e: UnpackError | TableTrouble): FilesReading {
  const reason: IssueReason =
    e.code === 'file_too_large' || e.code === 'unpacks_too_large'
      ? { code: 'too_large', mostMb: Math.round(e.most / 1e6) }
      : e.code === 'too_many_entries'
        ? { code: 'too_many_files', most: e.most }
        : { code: 'bad_shape', detail: `${'detail' in e ? e.detail : e.code}. Ask for the file again.` };
  return { issues: [{ table: 'pack', row: 1, column: 'name' in e ? e.name : '', reason }], unread: [] };
}

async function read(
  { files, as }: { files: File[]; as: NamedAs },
  progress: (p: ImportProgress) => void,
): Promise<ImportPreview> {
  const base = await newest(undefined);
  const reading = await readFiles(files, base, as, progress);
  const { pack, issues, unread } = reading;
  waiting = pack;
  const before = pack ? await newest(pack.name) : base;
  const db = await openRecords();
  const same = pack ? await getPack(db, packId(pack)) : undefined;
  db.close();
  const versionTaken = pack !== undefined && same !== undefined && packDigest(same) !== packDigest(pack);
  if (versionTaken) waiting = undefined;
  return {
    id: pack ? packId(pack) : '',
    name: pack?.name ?? '',
    version: pack?.version ?? '',
    issued: pack?.issued ?? '',
    source: pack?.source ?? '',
    diff: pack ? diffPacks(before, pack) : [],
    rows: pack ? rowDifferences(before, pack, SHOWN) : [],
    unread,
    against: before ? packId(before) : undefined,
    issues: issues.slice(0, 1000),
    issueCount: issues.length,
    versionTaken,
  };
}

async function take(): Promise<string> {
  if (!waiting) throw new Error('nothing was read that could be taken in');
  const db = await openRecords();
  await writePack(db, waiting);
  db.close();
  const id = packId(waiting);
  waiting = undefined;
  return id;
}

serveJobs<PackJobs>({ read: (ask, line) => read(ask, line.progress), take }, self);
