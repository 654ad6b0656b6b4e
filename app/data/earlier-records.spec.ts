import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { deleteDB, type IDBPDatabase, openDB } from 'idb';
import { provideNzIconsTesting } from 'ng-zorro-antd/icon/testing';
import { failedOf, settled } from '@core/answer/answers';
import type { Pack } from '@core/catalogue/pack';
import { packId } from '@core/catalogue/version';
import type { Fact } from '@core/facts/fact';
import { closeDesk, paint, wake } from '../testing/demo-desk';
import { CASE_PAGES } from '../testing/pages';
import { Database } from './database';
import { Drafts, FACT_LINE } from './drafts';
import { FactRepository } from './fact-repository';
import first from './fixtures/records-first.json';
import later from './fixtures/records-later.json';
import whole from './fixtures/records-whole-pack.json';
import { putPack } from '../records/pack-records';
import { DATABASE, ofCase } from '../records/records';

type Kept = { pack: Pack; facts: Fact[] };
/** One make of this program: how it laid its records out, and what lay in them. */
type Make = {
  name: string;
  version: number;
  kept: Kept;
  layOut: (db: IDBPDatabase) => void;
  drafts: 'small' | 'text' | 'timed';
};

const byId = (db: IDBPDatabase) =>
  db.createObjectStore('facts', { keyPath: 'id' }).createIndex('case', 'case');
const common = (db: IDBPDatabase) => {
  db.createObjectStore('packs', { keyPath: 'id' });
  db.createObjectStore('packRows');
  db.createObjectStore('settings');
};
const second = (db: IDBPDatabase) => {
  db.createObjectStore('extracts', { keyPath: 'case' });
  db.createObjectStore('drafts');
};
const third = (db: IDBPDatabase) => {
  db.createObjectStore('heads', { keyPath: 'id' });
  db.createObjectStore('files', { keyPath: 'sha256' });
};
const MAKES: readonly Make[] = [
  {
    name: 'the first, whole packs',
    version: 1,
    kept: whole as unknown as Kept,
    drafts: 'small',
    layOut: (db) => {
      byId(db);
      db.createObjectStore('packs');
      db.createObjectStore('settings');
    },
  },
  {
    name: 'one',
    version: 1,
    kept: first as unknown as Kept,
    drafts: 'small',
    layOut: (db) => [byId(db), common(db)],
  },
  {
    name: 'two',
    version: 2,
    kept: first as unknown as Kept,
    drafts: 'text',
    layOut: (db) => [byId(db), common(db), second(db)],
  },
  {
    name: 'three, facts by id',
    version: 3,
    kept: later as unknown as Kept,
    drafts: 'timed',
    layOut: (db) => [byId(db), common(db), second(db), third(db)],
  },
  {
    name: 'three, facts by case',
    version: 3,
    kept: later as unknown as Kept,
    drafts: 'timed',
    layOut: (db) => {
      db.createObjectStore('facts', { keyPath: ['case', 'id'] }).createIndex('id', 'id', { unique: true });
      common(db);
      second(db);
      third(db);
    },
  },
];

/** Leaves records in the browser as that make left them, with text half-typed. */
async function leave(make: Make): Promise<void> {
  localStorage.clear();
  await deleteDB(DATABASE);
  const { pack, facts } = make.kept;
  const db = await openDB(DATABASE, make.version, { upgrade: (d) => make.layOut(d) });
  for (const f of facts) await db.put('facts', f);
  if (!db.objectStoreNames.contains('packRows')) await db.put('packs', pack, packId(pack));
  else {
    const writes: Promise<unknown>[] = [];
    putPack(
      {
        packs: (v) => writes.push(db.put('packs', v)),
        rows: (v, k) => writes.push(db.put('packRows', v, k)),
      },
      pack,
      {},
    );
    await Promise.all(writes);
  }
  await db.put('settings', true, 'opened');
  const at = '2026-11-25T08:00:00.000Z';
  const typed: [string, string][] = [
    ['demo-2041:complaint', 'It rattles when'],
    ['demo-2041:fact-line', '12'],
  ];
  for (const [id, text] of typed) {
    if (make.drafts === 'small') localStorage.setItem(`hs-draft:${id}`, text);
    else if (make.drafts === 'text') await db.put('drafts', text, id);
    else await db.put('drafts', { text, at }, id.replace('complaint', '|complaint'));
  }
  db.close();
}

function start(): Promise<unknown> {
  TestBed.configureTestingModule({
    providers: [
      provideZonelessChangeDetection(),
      provideRouter([{ path: '**', children: [] }]),
      provideNzIconsTesting(),
    ],
  });
  return wake();
}

describe('records of every make of before', () => {
  afterEach(closeDesk);

  for (const make of MAKES)
    it(`open at every station, word for word, with what was half-typed: ${make.name}`, async () => {
      await leave(make);
      const desk = (await start()) as Awaited<ReturnType<typeof wake>>;
      const drafts = TestBed.inject(Drafts);
      await drafts.load();
      expect(drafts.read('demo-2041', '|complaint')).toBe('It rattles when');
      expect(drafts.read('demo-2041', FACT_LINE)).toBe('12');
      const repository = TestBed.inject(FactRepository);
      const order = (a: Fact, b: Fact) => (a.id < b.id ? -1 : 1);
      for (const id of new Set(make.kept.facts.map((f) => f.case))) {
        const own = make.kept.facts.filter((f) => f.case === id);
        expect((await repository.factsOf(id)).sort(order))
          .withContext(id)
          .toEqual(own.sort(order));
        await desk.open(id);
        const view = desk.current()!;
        expect(view.failure).withContext(id).toBeUndefined();
        if (view.answers)
          expect(failedOf(settled(view.answers)))
            .withContext(id)
            .toEqual([]);
        // without its catalogue a case says so, above its pages
        if (!view.catalogue) continue;
        for (const page of CASE_PAGES)
          expect((await paint(page)).words.length)
            .withContext(`${id} ${page.name}`)
            .toBeGreaterThan(20);
      }
      // only a catalogue that answers would lack something of is set aside, and says what
      const aside = repository.damaged().map((d) => `${d.store} ${d.id}`);
      expect(aside).toEqual(
        make.drafts === 'small' && make.kept === (whole as unknown) ? ['packs Marrowfen 2026.3'] : [],
      );
      const db = await TestBed.inject(Database).open();
      expect([...db.objectStoreNames].filter((n) => String(n).startsWith('before'))).toEqual([]);
    });

  it('are as they were when carrying over was cut off, and go on at the next opening', async () => {
    for (const make of MAKES.slice(0, 4)) {
      await leave(make);
      const put = Object.getOwnPropertyDescriptor(IDBObjectStore.prototype, 'put')!;
      let puts = 0;
      Object.defineProperty(IDBObjectStore.prototype, 'put', {
        ...put,
        value(this: IDBObjectStore, ...args: Parameters<IDBObjectStore['put']>) {
          if (++puts === 7) throw new DOMException('cut off', 'AbortError');
          return (put.value as IDBObjectStore['put']).apply(this, args);
        },
      });
      TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
      const cut = await TestBed.inject(Database)
        .open()
        .then(
          (db) => (db.close(), 'opened'),
          () => 'cut off',
        );
      Object.defineProperty(IDBObjectStore.prototype, 'put', put);
      TestBed.resetTestingModule();
      expect(cut).withContext(make.name).toBe('cut off');
      const old = await openDB(DATABASE);
      expect(old.version).withContext(make.name).toBe(make.version);
      expect((await old.getAllKeys('facts')).length).toBe(make.kept.facts.length);
      old.close();
      await start();
      const db = await TestBed.inject(Database).open();
      expect((await db.getAllKeys('facts', ofCase('demo-2041'))).length).toBeGreaterThan(3);
      expect((await db.getAllKeys('facts')).length)
        .withContext(make.name)
        .toBe(make.kept.facts.length);
      db.close();
      TestBed.resetTestingModule();
    }
    await start();
  });
});
