import { deleteDB, type IDBPDatabase } from 'idb';
import type { Fact } from '@core/facts/fact';
import { factOf } from '@core/facts/facts.fixture';
import { exchange } from '@core/shelf/exchange';
import { PlainShelf } from '@core/shelf/many-desks.fixture';
import { openRecords } from '../records/open-records';
import { DATABASE, ofCase, type Records } from '../records/records';
import { FarRecords } from './far-records';
import { SHELF_MEMORY, ShelfRecords } from './shelf-records';

describe('the records of a browser as a desk’s side of a shelf', () => {
  let db: IDBPDatabase<Records>;
  let shelf: PlainShelf;
  let kept: Set<string>;
  let grown: string[];
  let aside: string[];
  let outdated: string[];
  let went: string[];
  beforeEach(async () => {
    await deleteDB(DATABASE);
    db = await openRecords();
    shelf = new PlainShelf();
    [kept, grown, aside, outdated, went] = [new Set(), [], [], [], []];
  });
  afterEach(async () => {
    db.close();
    await deleteDB(DATABASE);
  });

  const joined = async (log: string): Promise<ShelfRecords> => {
    const records = new ShelfRecords(
      () => Promise.resolve(db),
      {
        grown: (cases) => void grown.push(...cases),
        aside: (d) => void aside.push(d.id),
        outdated: (cases) => void outdated.push(...cases),
        went: (cases) => void went.push(...cases),
      },
      () => kept,
    );
    await records.begin(log);
    return records;
  };
  const file = async (...facts: Fact[]) => {
    for (const f of facts) await db.put('facts', f);
  };
  const onShelf = () => [...shelf.logs.values()].flat().flatMap((e) => e.facts.map((f) => f.id));
  /** Another desk puts facts there. */
  const others = async (...facts: Fact[]) => {
    const { nextEntry, endOf } = await import('@core/shelf/entry');
    const end = shelf.logs.get('other')?.at(-1);
    await shelf.append(nextEntry('other', end && endOf(end), facts));
  };

  it('puts every case there but those of the demo and those that stay, and counts what is still to go', async () => {
    const desk = await joined('mine');
    kept.add('secret');
    await file(
      factOf('x', 1, { id: 'a1', case: 'a' }),
      factOf('x', 1, { id: 'd1', case: 'demo-2041' }),
      factOf('x', 1, { id: 's1', case: 'secret' }),
    );
    expect(await desk.count()).toBe(1);
    await exchange(desk, shelf);
    expect(onShelf()).toEqual(['a1']);
    expect(went).toEqual(['a']);
    expect(await desk.count()).toBe(0);
    await file(factOf('x', 2, { id: 'a2', case: 'a' }));
    desk.grew(['a']);
    expect(await desk.count()).toBe(1);
    kept.delete('secret');
    desk.grew(['secret']);
    await exchange(desk, shelf);
    expect(onShelf().sort()).toEqual(['a1', 'a2', 's1']);
  });

  it('takes in what others filed, marks its case as behind, and sends none of it back', async () => {
    const desk = await joined('mine');
    await others(factOf('x', 1, { id: 'o1', case: 'b' }), factOf('x', 2, { id: 'o2', case: 'b' }));
    await exchange(desk, shelf);
    expect((await db.getAll('facts', ofCase('b'))).map((f) => f.id)).toEqual(['o1', 'o2']);
    expect(await db.get('behind', 'b')).toBe(2);
    expect(grown).toEqual(['b']);
    expect(shelf.logs.has('mine')).toBeFalse();
  });

  it('a damaged record goes nowhere and holds nothing up', async () => {
    const desk = await joined('mine');
    await file(
      { ...factOf('x', 1, { id: 'bad', case: 'a' }), how: 'guessed' as never },
      factOf('x', 1, { id: 'good', case: 'a' }),
    );
    expect((await exchange(desk, shelf)).ok).toBeTrue();
    expect(onShelf()).toEqual(['good']);
    expect(await desk.count()).toBe(0);
  });

  it('an id that is another case’s here is told, and what stands stays', async () => {
    const desk = await joined('mine');
    await file(factOf('x', 1, { id: 'same', case: 'a' }));
    await others(factOf('x', 9, { id: 'same', case: 'b' }));
    await exchange(desk, shelf);
    expect(aside).toEqual(['same']);
    expect((await db.getAll('facts')).map((f) => [f.case, f.value])).toEqual([['a', 1]]);
  });

  it('of a case that is let go the summary stays; what comes of it is told and not kept in part, and it comes back whole', async () => {
    const desk = await joined('mine');
    const far = new FarRecords(() => Promise.resolve(db));
    const photo = { hash: 'f'.repeat(64), name: 'p.png', type: 'image/png', bytes: 1 };
    const one = factOf('x', 1, { id: 'a1', case: 'a', files: [photo] });
    const two = factOf('x', 2, { id: 'b1', case: 'b' });
    await file(one, two);
    expect((await far.letGo(['a'])).gone).toEqual([]);
    await exchange(desk, shelf);
    await file(factOf('x', 3, { id: 'b2', case: 'b' }));
    // what is not on the shelf whole stays
    expect(await far.letGo(['a', 'b'])).toEqual({ gone: ['a'], files: [photo.hash] });
    expect((await db.getAll('facts')).map((f) => f.id)).toEqual(['b1', 'b2']);
    expect(await far.factsOf('a')).toBe(1);
    await others(factOf('x', 4, { id: 'a2', case: 'a' }));
    desk.grew(['a', 'b']);
    await exchange(desk, shelf);
    expect(outdated).toEqual(['a']);
    expect(await db.count('facts', ofCase('a'))).toBe(0);
    expect(await desk.count()).toBe(0);
    await far.bring('a', [one, factOf('x', 4, { id: 'a2', case: 'a' })]);
    expect((await db.getAll('facts', ofCase('a'))).map((f) => f.id)).toEqual(['a1', 'a2']);
    expect(await far.factsOf('a')).toBeUndefined();
    expect(await exchange(desk, shelf)).toEqual({ ok: true, value: { came: 0, went: 0, lost: false } });
  });

  it('remembers beyond the window whose summaries wait: what went, until it is paid', async () => {
    const desk = await joined('mine');
    await file(factOf('x', 1, { id: 'a1', case: 'a' }), factOf('x', 1, { id: 'b1', case: 'b' }));
    expect(await desk.owed()).toEqual([]);
    await exchange(desk, shelf);
    expect(await desk.owed()).toEqual(['a', 'b']);
    await desk.paid(['a']);
    await others(factOf('x', 2, { id: 'c1', case: 'c' }));
    await exchange(desk, shelf);
    // the summary of what came is made by whoever filed it
    expect(await desk.owed()).toEqual(['b']);
    // a memory of before that kept no list
    const { log, positions, recheck } = await desk.memory();
    await db.put('settings', { log, positions, recheck }, SHELF_MEMORY);
    expect(await desk.owed()).toEqual(['a', 'b', 'c']);
    await desk.paid(['a', 'c']);
    expect(await desk.owed()).toEqual(['b']);
  });

  it('goes on where it was after the window is gone, and asks anew after the shelf was emptied', async () => {
    const first = await joined('mine');
    await file(factOf('x', 1, { id: 'a1', case: 'a' }));
    await exchange(first, shelf);
    const again = new ShelfRecords(
      () => Promise.resolve(db),
      { grown: () => undefined, aside: () => undefined, outdated: () => undefined, went: () => undefined },
      () => kept,
    );
    expect(await exchange(again, shelf)).toEqual({ ok: true, value: { came: 0, went: 0, lost: false } });
    shelf.logs.clear();
    expect(await exchange(again, shelf)).toEqual({ ok: true, value: { came: 0, went: 1, lost: true } });
    expect(onShelf()).toEqual(['a1']);
  });
});
