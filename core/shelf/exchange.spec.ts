import { factOf } from '@core/facts/facts.fixture';
import { type Entry, entryHash, type Heads, nextEntry, readEntry } from './entry';
import { exchange, putThere } from './exchange';
import { FolderShelf } from './folder-shelf';
import { type Outcome, PlainDesk, PlainFolder, PlainShelf, runCourse, seeded } from './many-desks.fixture';

/** All desks have the same facts, and these are all that were ever filed. */
function expectTogether(o: Outcome, where: string): void {
  expect(new Set(o.digests))
    .withContext(where)
    .toEqual(new Set([o.filed]));
  expect(o.counts.every((n) => n === o.facts))
    .withContext(where)
    .toBeTrue();
}
const desk = (log: string, ...facts: Parameters<typeof factOf>[]): PlainDesk => {
  const d = new PlainDesk(log);
  for (const f of facts.map((a) => factOf(...a))) d.facts.set(f.id, f);
  return d;
};
const done = { came: 0, went: 0, lost: false };

describe('an entry of a shelf', () => {
  const entry = nextEntry('log-a', undefined, [factOf('vehicle.distance', 48_200)]);

  it('is read as it was made, and refused with any change of any part', () => {
    expect(readEntry(JSON.parse(JSON.stringify(entry)))).toEqual({ ok: true, value: entry });
    const [fact] = entry.facts;
    const changed: Entry[] = [
      { ...entry, log: 'log-b' },
      { ...entry, seq: 2 },
      { ...entry, prev: 'f'.repeat(64) },
      { ...entry, facts: [{ ...fact!, value: 48_201 }] },
      { ...entry, facts: [fact!, factOf('vehicle.distance', 1)] },
    ];
    for (const e of changed)
      expect(readEntry(e)).toEqual({ ok: false, error: { code: 'altered', log: e.log, seq: e.seq } });
  });

  it('never holds a return for practice, nor what is no fact', () => {
    for (const facts of [[factOf('x', 1, { case: 'practice-1' })], [{ ...factOf('x', 1), id: '' }], []]) {
      const open = { ...entry, facts };
      const read = readEntry({ ...open, hash: entryHash(open) });
      expect(read.ok ? 'read' : read.error.code).toBe('wrong');
    }
  });
});

describe('desks and a shelf', () => {
  it('bring what is new both ways; what is known moves no more', async () => {
    const shelf = new PlainShelf();
    const [a, b] = [desk('log-a', ['x', 1], ['x', 2]), desk('log-b', ['x', 3])];
    expect(await exchange(a, shelf)).toEqual({ ok: true, value: { ...done, went: 2 } });
    expect(await exchange(b, shelf)).toEqual({ ok: true, value: { came: 2, went: 1, lost: false } });
    expect(await exchange(a, shelf)).toEqual({ ok: true, value: { ...done, came: 1 } });
    expect(await exchange(b, shelf)).toEqual({ ok: true, value: done });
    expect([...a.facts.keys()].sort()).toEqual([...b.facts.keys()].sort());
  });

  it('a desk that listens puts there without asking, and asks where its log was cut', async () => {
    const shelf = new PlainShelf();
    const a = desk('log-a', ['x', 1]);
    await exchange(a, shelf);
    const file = (n: number) => {
      const f = factOf('x', n);
      a.facts.set(f.id, f);
    };
    let asked = 0;
    const counted = {
      since: (at: Heads) => (asked++, shelf.since(at)),
      append: (e: Entry) => shelf.append(e),
      missing: (ids: readonly string[]) => shelf.missing(ids),
    };
    file(2);
    expect(await putThere(a, counted)).toEqual({ ok: true, value: { ...done, went: 1 } });
    expect(asked).toBe(0);
    shelf.logs.clear();
    file(3);
    expect(await putThere(a, counted)).toEqual({ ok: true, value: { ...done, went: 3, lost: true } });
    expect(asked).toBeGreaterThan(0);
  });

  it('where others file without an end, what waits here goes all the same', async () => {
    const shelf = new PlainShelf();
    const [a, b] = [desk('log-a', ['x', 1]), desk('log-b')];
    await exchange(desk('log-c', ['x', 2]), shelf);
    let more = 0;
    const busy = {
      since: async (at: Heads) => {
        const came = await shelf.since(at);
        const f = factOf('y', ++more);
        b.facts.set(f.id, f);
        if (more < 50) await exchange(b, shelf);
        return came;
      },
      append: (e: Entry) => shelf.append(e),
      missing: (ids: readonly string[]) => shelf.missing(ids),
    };
    const went = await exchange(a, busy);
    expect(went.ok && went.value.went).toBe(1);
    expect(more).toBeLessThan(5);
  });

  it('two desks with the same facts put them there once', async () => {
    const shelf = new PlainShelf();
    const same = [factOf('x', 1), factOf('x', 2)];
    for (const log of ['log-a', 'log-b']) {
      const d = new PlainDesk(log);
      for (const f of same) d.facts.set(f.id, f);
      await exchange(d, shelf);
    }
    expect([...shelf.logs.keys()]).toEqual(['log-a']);
  });

  it('an answer that was lost leaves no second copy: the desk finds its own entry there', async () => {
    const shelf = new PlainShelf();
    const a = desk('log-a', ['x', 1]);
    const deaf = { ...through(shelf), append: async (e: Entry) => (await shelf.append(e), away) };
    expect((await exchange(a, deaf)).ok).toBeFalse();
    expect(await exchange(a, shelf)).toEqual({ ok: true, value: { ...done, came: 1 } });
    expect(shelf.logs.get('log-a')?.length).toBe(1);
  });

  it('goes on where another window of the same desk was quicker', async () => {
    const shelf = new PlainShelf();
    const [here, there] = [desk('log-a', ['x', 1]), desk('log-a', ['x', 2])];
    let raced = false;
    const race = {
      ...through(shelf),
      append: async (e: Entry) => {
        if (!raced) await exchange(there, shelf);
        raced = true;
        return shelf.append(e);
      },
    };
    expect(await exchange(here, race)).toEqual({ ok: true, value: { came: 1, went: 1, lost: false } });
    expect(here.facts.size).toBe(2);
  });

  it('a shelf that was put back to yesterday gets today again, from whoever has it, and nothing twice', async () => {
    const shelf = new PlainShelf();
    const [a, b] = [desk('log-a', ['x', 1]), desk('log-b')];
    await exchange(a, shelf);
    const yesterday = new Map(shelf.logs);
    a.facts.set('late', factOf('x', 2, { id: 'late' }));
    await exchange(a, shelf);
    await exchange(b, shelf);
    await exchange(desk('log-e', ['x', 3], ['x', 4]), shelf);
    await exchange(b, shelf);
    for (const [log, all] of yesterday) shelf.logs.set(log, all);
    // the desk that filed it never comes again
    expect(await exchange(b, shelf)).toEqual({ ok: true, value: { came: 1, went: 1, lost: true } });
    const ids = [...shelf.logs.values()].flat().flatMap((e) => e.facts.map((f) => f.id));
    expect(new Set(ids).size).toBe(ids.length);
    const c = desk('log-d');
    await exchange(c, shelf);
    expect([...c.facts.keys()].sort()).toEqual([...b.facts.keys()].sort());
  });

  it('a log with another past is read from its beginning', async () => {
    const [shelf, other] = [new PlainShelf(), new PlainShelf()];
    const a = desk('log-a', ['x', 1]);
    const b = desk('log-b');
    await exchange(a, shelf);
    await exchange(b, shelf);
    const twin = desk('log-a', ['x', 7]);
    await exchange(twin, other);
    twin.facts.set('z', factOf('x', 8, { id: 'z' }));
    await exchange(twin, other);
    shelf.logs.set('log-a', other.logs.get('log-a') ?? []);
    await exchange(b, shelf);
    expect(b.facts.size).toBe(3);
    await exchange(a, shelf);
    await exchange(twin, shelf);
    expect([...twin.facts.keys()].sort()).toEqual([...b.facts.keys()].sort());
    expect(a.facts.size).toBe(3);
  });

  it('over a bad network, with crashes between any two writes and clocks wrong by days, all come to the same', async () => {
    let crashes = 0;
    for (let seed = 1; seed <= 30; seed++) {
      const o = await runCourse({ seed, desks: 5, facts: 150 }, new PlainShelf());
      expectTogether(o, `seed ${seed}`);
      crashes += o.crashes;
    }
    expect(crashes).toBeGreaterThan(30);
  });

  it('a shelf that is emptied, or put back to an earlier day, again and again, loses nothing', async () => {
    let mishaps = 0;
    for (let seed = 100; seed < 130; seed++) {
      const shelf = new PlainShelf();
      const random = seeded(seed);
      let before = new Map(shelf.logs);
      const mishap = () => {
        const now = new Map(shelf.logs);
        shelf.logs = random() < 0.4 ? new Map<string, Entry[]>() : before;
        before = now;
      };
      const o = await runCourse({ seed, desks: 4, facts: 150, mishap }, shelf);
      expectTogether(o, `seed ${seed}`);
      mishaps += o.mishaps;
    }
    expect(mishaps).toBeGreaterThan(30);
  });
});

describe('a shelf in a folder', () => {
  it('is written as lines that anybody can read, one file after the other', async () => {
    const folder = new PlainFolder();
    const a = desk('log-a', ['x', 1]);
    const shelf = new FolderShelf(folder);
    await exchange(a, shelf);
    a.facts.set('long', factOf('note', 'n'.repeat(20_000), { id: 'long' }));
    for (let i = 0; i < 20; i++)
      a.facts.set(`long${i}`, factOf('note', 'n'.repeat(15_000), { id: `long${i}` }));
    await exchange(a, shelf, 5);
    a.facts.set('last', factOf('x', 2, { id: 'last' }));
    await exchange(a, shelf);
    expect([...folder.kept.keys()]).toEqual(['logs/log-a/00000001.jsonl', 'logs/log-a/00000006.jsonl']);
    const b = desk('log-c');
    await exchange(b, new FolderShelf(folder));
    expect(b.facts.size).toBe(a.facts.size);
  });

  it('of two that follow on one, the same counts wherever it is read', async () => {
    const [one, two] = [1, 2].map((v) => nextEntry('log-a', undefined, [factOf('x', v)]));
    const ends = await Promise.all(
      [
        [one, two],
        [two, one],
      ].map(async (order) => {
        const folder = new PlainFolder();
        order.forEach((e, i) => folder.put(`logs/log-a/${i}.jsonl`, JSON.stringify(e)));
        return new FolderShelf(folder).since({});
      }),
    );
    expect(ends[0]).toEqual(ends[1]);
  });

  it('waits for a line that is half there, and says where it is', async () => {
    const folder = new PlainFolder();
    const a = desk('log-a', ['x', 1]);
    await exchange(a, new FolderShelf(folder));
    const [path] = folder.kept.keys();
    a.facts.set('two', factOf('x', 2, { id: 'two' }));
    await exchange(a, new FolderShelf(folder));
    const whole = folder.kept.get(path!)!.text;
    folder.put(path!, whole.slice(0, -40));
    const b = desk('log-c');
    const theirs = new FolderShelf(folder);
    expect(await exchange(b, theirs)).toEqual({ ok: true, value: { ...done, came: 1 } });
    expect(theirs.faults()).toEqual([{ path: path!, line: 2, why: { code: 'no_json' } }]);
    folder.put(path!, whole);
    expect(await exchange(b, theirs)).toEqual({ ok: true, value: { ...done, came: 1 } });
    expect(theirs.faults()).toEqual([]);
  });

  it('a carrier that makes copies, cuts files, brings old ones and deletes them loses nothing', async () => {
    let mishaps = 0;
    for (let seed = 200; seed < 220; seed++) {
      const folder = new PlainFolder();
      const random = seeded(seed);
      const mishap = () => {
        const path = folder.any(random);
        const text = path && folder.kept.get(path)?.text;
        if (!path || !text) return;
        const dice = random();
        if (dice < 0.3)
          folder.put(path.replace(/\.jsonl$/, ` (copy of ${Math.floor(random() * 9)}).jsonl`), text);
        else if (dice < 0.6) folder.put(path, text.slice(0, Math.floor(random() * text.length)));
        else folder.kept.delete(path);
      };
      const o = await runCourse({ seed, desks: 4, facts: 100, mishap }, new FolderShelf(folder));
      expectTogether(o, `seed ${seed}`);
      mishaps += o.mishaps;
    }
    expect(mishaps).toBeGreaterThan(15);
  });
});

const away = { ok: false, error: { code: 'away', detail: '' } } as const;
const through = (shelf: PlainShelf) => ({
  since: (positions: Heads) => shelf.since(positions),
  missing: (ids: readonly string[]) => shelf.missing(ids),
});
