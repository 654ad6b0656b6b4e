import { diffPacks } from '@core/catalogue/pack-changes';
import type { Pack } from '@core/catalogue/pack';
import { packDigest } from '@core/catalogue/pack-digest';
import type { IssueReason } from '@core/catalogue/pack-issue';
import type { PackReading } from '@core/catalogue/read-pack';
import { err } from '@core/quantity/result';
import { packId, newerFirst } from '@core/catalogue/version';
import { openRecords } from '../records/open-records';
import { getPack, writePack } from '../records/pack-records';
import { serveJobs } from '../threads/worker-client';
import type { ImportPreview, ImportProgress, PackJobs } from './pack-import.protocol';
import { readPackFiles } from './read-pack-files';
import { LIMITS, unpack } from './unpack';

let waiting: Pack | undefined;

async function newest(name: string | undefined): Promise<Pack | undefined> {
  const db = await openRecords();
  const heads = (await db.getAll('packs')).filter((r) => name === undefined || r.head.name === name);
  heads.sort((a, b) => newerFirst(a.head, b.head));
  const pack = heads[0] ? await getPack(db, heads[0].id) : undefined;
  db.close();
  return pack;
}

/** Sizes are looked at before anything is read, and while it is unpacked. */
async function readFiles(
  files: File[],
  base: Pack | undefined,
  progress: (p: ImportProgress) => void,
): Promise<PackReading> {
  const large = files.find((f) => f.size > LIMITS.fileBytes);
  const unpacked = large
    ? err({ code: 'file_too_large' as const, name: large.name, bytes: large.size, most: LIMITS.fileBytes })
    : unpack(
        await Promise.all(
          files.map(async (f) => ({ name: f.name, bytes: new Uint8Array(await f.arrayBuffer()) })),
        ),
      );
  if (unpacked.ok) return readPackFiles(unpacked.value, base, progress);
  const e = unpacked.error;
  const reason: IssueReason =
    e.code === 'broken_zip'
      ? { code: 'bad_shape', detail: `${e.detail}. Ask for the file again.` }
      : e.code === 'too_many_entries'
        ? { code: 'too_many_files', most: e.most }
        : { code: 'too_large', mostMb: Math.round(e.most / 1e6) };
  return { issues: [{ table: 'pack', row: 1, column: e.name, reason }] };
}

async function read(files: File[], progress: (p: ImportProgress) => void): Promise<ImportPreview> {
  const base = await newest(undefined);
  const reading = await readFiles(files, base, progress);
  const { pack, issues } = reading;
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

serveJobs<PackJobs>({ read: (files, line) => read(files, line.progress), take }, self);
