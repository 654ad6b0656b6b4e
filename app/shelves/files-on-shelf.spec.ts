import { deleteDB, type IDBPDatabase } from 'idb';
import type { Fact } from '@core/facts/fact';
import { factOf } from '@core/facts/facts.fixture';
import { ok } from '@core/quantity/result';
import type { Database } from '../data/database';
import type { FactRepository } from '../data/fact-repository';
import { openRecords } from '../records/open-records';
import { DATABASE, type Records } from '../records/records';
import { FilesOnShelf } from './files-on-shelf';
import type { HttpShelf } from './http-shelf';

const [A, B, C, D] = ['a', 'b', 'c', 'd'].map((c) => c.repeat(64)) as [string, string, string, string];
const pointing = (caseId: string, ...hashes: string[]): Fact =>
  factOf('x', 1, {
    case: caseId,
    files: hashes.map((hash) => ({ hash, name: 'p.png', type: 'image/png', bytes: 1 })),
  });

describe('files and a shelf', () => {
  let db: IDBPDatabase<Records>;
  let facts: Fact[];
  let onShelf: Set<string>;
  let http: HttpShelf;
  let files: FilesOnShelf;
  beforeEach(async () => {
    await deleteDB(DATABASE);
    db = await openRecords();
    [facts, onShelf] = [[], new Set()];
    const repository = {
      allFacts: () => new ReadableStream<Fact[]>({ start: (c) => (c.enqueue(facts), c.close()) }),
      fileOf: (hash: string) => db.get('files', hash),
    };
    http = {
      missingFiles: (hashes: readonly string[]) => Promise.resolve(ok(hashes.filter((h) => !onShelf.has(h)))),
      putFile: (hash: string) => Promise.resolve(ok((onShelf.add(hash), true as const))),
    } as unknown as HttpShelf;
    const database = {
      open: () => Promise.resolve(db),
      read: <T>(job: (d: IDBPDatabase<Records>) => Promise<T>) => job(db),
    };
    files = new FilesOnShelf(
      repository as unknown as FactRepository,
      database as unknown as Database,
      () => new Set(['kept']),
    );
    for (const sha256 of [A, B, C, D])
      await db.put('files', { sha256, name: 'p.png', type: 'image/png', blob: new Blob(['x']) });
  });
  afterEach(async () => {
    db.close();
    await deleteDB(DATABASE);
  });

  it('go there from shared cases alone: none of a case that stays here, of the demo, or that no case points to', async () => {
    facts = [pointing('one', A), pointing('kept', B), pointing('demo-1', C)];
    await files.exchange({ http });
    expect([...onShelf]).toEqual([A]);
  });

  it('are let go where nothing here points to them any more and the shelf has them', async () => {
    facts = [pointing('kept', B)];
    onShelf = new Set([A, B]);
    expect(await files.letGo(http, [A, B, C])).toBe(1);
    expect((await db.getAllKeys('files')).sort()).toEqual([B, C, D]);
  });
});
