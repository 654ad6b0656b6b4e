import { expose } from 'comlink';
import { canonical } from '@core/facts/canonical';
import { diffPacks } from '@core/catalogue/diff-packs';
import { type Pack, packId } from '@core/catalogue/pack';
import { openRecords } from '../data/records';
import { getPack, writePack } from '../data/pack-records';
import type { ImportPreview, ImportProgress, PackImport } from './pack-import.protocol';
import { expand, readPackFiles } from './read-pack-files';

let waiting: Pack | undefined;

async function newest(name: string | undefined): Promise<Pack | undefined> {
  const db = await openRecords();
  const heads = (await db.getAll('packs')).filter((r) => name === undefined || r.head.name === name);
  heads.sort((a, b) =>
    a.head.issued < b.head.issued || (a.head.issued === b.head.issued && a.head.version < b.head.version)
      ? 1
      : -1,
  );
  const pack = heads[0] ? await getPack(db, heads[0].id) : undefined;
  db.close();
  return pack;
}

const api: PackImport = {
  async read(files: File[], progress: (p: ImportProgress) => void): Promise<ImportPreview> {
    const bytes = await Promise.all(
      files.map(async (f) => ({ name: f.name, bytes: new Uint8Array(await f.arrayBuffer()) })),
    );
    const base = await newest(undefined);
    const reading = readPackFiles(expand(bytes), base, progress);
    const { pack, issues } = reading;
    waiting = pack;
    const before = pack ? await newest(pack.name) : base;
    const db = await openRecords();
    const same = pack ? await getPack(db, packId(pack)) : undefined;
    db.close();
    const versionTaken = pack !== undefined && same !== undefined && canonical(same) !== canonical(pack);
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
  },
  async take(): Promise<string> {
    if (!waiting) throw new Error('nothing was read that could be taken in');
    const db = await openRecords();
    await writePack(db, waiting);
    db.close();
    const id = packId(waiting);
    waiting = undefined;
    return id;
  },
};
expose(api);
