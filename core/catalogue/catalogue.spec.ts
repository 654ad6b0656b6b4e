import fc from 'fast-check';
import Papa from 'papaparse';
import { demoPack } from '../../demo/catalogue';
import { largePack } from '../../demo/large-catalogue';
import { readPackFiles, readTableText } from '../../app/workers/read-pack-files';
import { diffPacks } from './pack-changes';
import { nextDue, roundDown } from './interval';
import { type Pack, PackSchema } from './pack';
import { TABLES, type TableName } from './pack-issue';
import { packFromTables, PackHeadSchema, readPackJson } from './read-pack';
import { buildSearch, search, searchBuilder } from './search';
import { tableCells } from './tables';
import { checkPack, supersessionChain } from './check-pack';
import { compareVersions, newerFirst, nextVersion } from './version';
import { catalogueOf, stagesFor } from './find-records';

const pack = demoPack();
const csv = (t: TableName, p: Pack = pack) => Papa.unparse(tableCells(t, p[t]));
const head = JSON.stringify(
  Object.fromEntries(Object.keys(PackHeadSchema.shape).map((k) => [k, pack[k as keyof Pack]])),
);
const files = (p: Pack = pack, changed: Partial<Record<TableName, string>> = {}) => [
  { name: 'pack.json', text: head },
  ...TABLES.map((t) => ({ name: `${t}.csv`, text: changed[t] ?? csv(t, p) })),
];
const quiet = () => undefined;
const faults = (read: ReturnType<typeof readPackFiles>) =>
  read.issues.map((i) => `${i.table} ${i.row} ${i.column} ${i.reason.code}`);

describe('catalogue pack', () => {
  it('has the breadth that the demo promises', () => {
    expect(pack.engines.length).toBeGreaterThanOrEqual(14);
    expect(pack.kits.length).toBeGreaterThanOrEqual(40);
    expect(pack.parts.length).toBeGreaterThanOrEqual(150);
    for (const e of pack.engines)
      expect(pack.variants.some((v) => v.engine === e.code))
        .withContext(e.code)
        .toBeTrue();
    for (const v of pack.variants)
      expect(pack.applications.some((a) => a.variant === v.id))
        .withContext(v.id)
        .toBeTrue();
  });

  it('has in every kit the belts and chains that are as long as the paths of its drive', () => {
    const cat = catalogueOf(pack);
    for (const a of pack.applications) {
      const variant = cat.variants.get(a.variant)!;
      const parts = cat.kits.get(a.kit)!.contents.map((c) => cat.parts.get(c.part)!);
      const counts = (kind: string, key: string) =>
        parts.filter((p) => p.kind === kind).map((p) => p.attributes[key]);
      const stages = stagesFor(cat, variant.layout!);
      expect(stages.length).toBeGreaterThan(0);
      for (const { layout } of stages)
        expect(layout.kind === 'belt' ? counts('belt', 'teeth') : counts('chain', 'links'))
          .withContext(`${a.kit} ${layout.id}`)
          .toContain(layout.count);
    }
  });

  it('goes out as CSV and JSON and comes back the same', () => {
    expect(readPackFiles({ texts: files() }, undefined, quiet).pack).toEqual(pack);
    expect(readPackJson(JSON.stringify(pack)).pack).toEqual(pack);
    expect(diffPacks(pack, pack).every((d) => d.added + d.changed + d.removed === 0)).toBeTrue();
  });

  it('names each planted fault with its line and column, and gives no pack', () => {
    const bad = readPackFiles(
      {
        texts: files(pack, {
          parts: csv('parts')
            .replace(
              'MF-TB117-22,belt,Timing belt 117 teeth,teeth=117',
              'MF-TB117-22,belt,Timing belt 117 teeth,teeth=-117',
            )
            .replace('outsideMm=58;boltM=10;tab=right', 'outsideMm=2.3in;boltM=10;tab=right'),
          kits: csv('kits')
            .replace('MF-GR48*1', 'MF-GR49*1')
            .replace(
              'MF-K121-1,Belt kit 121 teeth,2,,current,',
              'MF-K121-1,Belt kit 121 teeth,2,,current,MF-K121-0',
            ),
          variants: csv('variants')
            .replace('2019-05-01', '2019-13-01')
            .replace('cover-screws=five;guide-roller=steel', 'cover-screws=six;guide-roller=steel'),
          engines: `${csv('engines')}\r\nTE16-CORM,Tessarine,Twice,,yes`,
        }),
      },
      undefined,
      quiet,
    );
    expect(bad.pack).toBeUndefined();
    const found = faults(bad);
    expect(found).toContain('parts 2 attributes not_positive');
    expect(found).toContain('parts 7 attributes wrong_unit');
    expect(found).toContain('variants 3 built_from not_a_day');
    expect(found).toContain('variants 2 features value_not_of_feature');
    expect(found).toContain('engines 18 code duplicate');
    expect(found).toContain('kits 2 contents dangling');
    expect(found.filter((f) => f.endsWith('supersession_loop')).length).toBe(1);
  });

  it('refuses windows that end before they begin and designs that nothing tells apart', () => {
    const twin = { ...pack, variants: [...pack.variants, { ...pack.variants[0]!, id: 'TE16-CORM/X' }] };
    expect(readPackJson(JSON.stringify(twin)).issues.map((i) => i.reason.code)).toEqual(['windows_overlap']);
    const backwards = {
      ...pack,
      variants: pack.variants.map((v, i) =>
        i === 0 ? { ...v, built: { from: '2020-01-01', to: '2019-01-01', slackDays: 0 } } : v,
      ),
    };
    expect(readPackJson(JSON.stringify(backwards)).issues.map((i) => i.reason.code)).toContain(
      'window_impossible',
    );
    expect(readPackJson('{"format":').issues.length).toBe(1);
  });

  it('is refused where a plan leaves out by what nobody can observe or answer so; one that is here keeps answering', () => {
    const excludes = [
      { key: 'no.such', is: ['x'], why: '' },
      { key: 'kit.renewed', is: ['some_old', 'no_such'], why: '' },
    ];
    const kits = pack.kits.map((k, i) => (i === 2 ? { ...k, terms: { ...k.terms, excludes } } : k));
    const strange = { ...pack, kits };
    const told = (reading: {
      issues: readonly { row: number; column: string; reason: { code: string } }[];
    }) => reading.issues.map((i) => [i.row, i.column, i.reason.code]);
    const want = (row: number) => [
      [row, 'terms_excludes', 'no_observable'],
      [row, 'terms_excludes', 'no_such_answer'],
    ];
    expect(told(readPackJson(JSON.stringify(strange)))).toEqual(want(3));
    // in a table the heading is the first line
    expect(told(readPackFiles({ texts: files(strange) }, undefined, quiet))).toEqual(want(4));
    expect(checkPack(strange)).toEqual([]);
  });

  it('takes single tables onto what is here, as the next version', () => {
    const text = csv('cross').replace('ALD 121.A', 'ALD 121.Z');
    const read = readPackFiles({ texts: [{ name: 'cross.csv', text }] }, pack, quiet);
    expect(read.pack?.version).toBe('2026.3.1');
    expect(nextVersion('2026.3.1')).toBe('2026.3.2');
    expect(diffPacks(pack, read.pack!).find((d) => d.table === 'cross')).toEqual(
      jasmine.objectContaining({ added: 1, removed: 1, changed: 0 }),
    );
    expect(packFromTables(undefined, {}, undefined).issues.length).toBe(1);
  });

  it('keeps true line numbers where a cell holds a line break, and reports columns by name', () => {
    const reader = readTableText('cross', 'number,names\n"A\nB",K1\n,K2\n');
    expect(reader.issues).toEqual([{ row: 4, column: 'number', reason: { code: 'empty' } }]);
    const header = readTableText('cross', 'number,nmes\nA,K1\n');
    expect(header.issues.map((i) => i.reason.code)).toEqual(['unknown_column', 'missing_column', 'empty']);
  });

  it('is checked in time that grows with its size, not with its square', () => {
    const base = pack.variants[0]!;
    const many = <T>(n: number, make: (i: number) => T) => Array.from({ length: n }, (_, i) => make(i));
    const like = { ...pack, variants: many(6000, (i) => ({ ...base, id: `V${i}` })) };
    const chain = {
      ...pack,
      parts: [
        ...pack.parts,
        ...many(3000, (i) => ({
          ...pack.parts[0]!,
          number: `S${i}`,
          supersededBy: i < 2999 ? `S${i + 1}` : undefined,
        })),
      ],
    };
    const told = {
      ...pack,
      variants: many(6000, (i) => ({ ...base, id: `V${i}`, features: { [base.id]: [`${i}`] } })),
    };
    // steps are counted by the rows that are looked at: a proxy that a machine's mood cannot move
    let looks = 0;
    const counted = <P extends typeof pack>(p: P): P => ({
      ...p,
      variants: p.variants.map(
        (v) =>
          new Proxy(v, { get: (t, k, r) => (k === 'markets' && looks++, Reflect.get(t, k, r) as unknown) }),
      ),
      parts: p.parts.map(
        (x) =>
          new Proxy(x, {
            get: (t, k, r) => (k === 'supersededBy' && looks++, Reflect.get(t, k, r) as unknown),
          }),
      ),
    });
    const looked = (p: typeof pack) => {
      looks = 0;
      const issues = checkPack(counted(p));
      return { looks, twins: issues.filter((i) => i.reason.code === 'windows_overlap').length };
    };
    expect(looked(like).twins).toBe(5999);
    for (const p of [like, told, chain]) expect(looked(p).looks).toBeLessThan(100_000);
    expect(looked(told).twins).toBe(0);
  });

  it('orders versions as versions, everywhere by one rule', () => {
    const sorted = ['2026.3', '2026.3.1', '2026.3.9', '2026.3.10', '2026.4', '2026.10', '2027.1b', '2027.1c'];
    fc.assert(
      fc.property(fc.shuffledSubarray(sorted, { minLength: sorted.length }), (mixed) =>
        expect([...mixed].sort(compareVersions)).toEqual(sorted),
      ),
    );
    const packs = sorted.map((version) => ({ issued: '2026-09-01', version }));
    expect([...packs].sort(newerFirst).map((p) => p.version)).toEqual([...sorted].reverse());
    expect(
      newerFirst({ issued: '2026-09-02', version: '1' }, { issued: '2026-09-01', version: '9' }),
    ).toBeLessThan(0);
  });

  it('follows supersession to its end and sees a circle', () => {
    const rows = new Map([
      ['a', { supersededBy: 'b' }],
      ['b', { supersededBy: 'c' }],
      ['c', {}],
      ['x', { supersededBy: 'y' }],
      ['y', { supersededBy: 'x' }],
    ]);
    expect(supersessionChain(rows, 'a')).toEqual({ chain: ['a', 'b', 'c'], loop: false });
    expect(supersessionChain(rows, 'x')).toEqual({ chain: ['x', 'y', 'x'], loop: true });
  });

  it('that is generated for measuring is valid by the same schema', () => {
    expect(PackSchema.safeParse(largePack(40, 400)).success).toBeTrue();
    expect(
      readPackJson(JSON.stringify(largePack(40, 400))).issues.filter(
        (i) => i.reason.code !== 'windows_overlap',
      ),
    ).toEqual([]);
  });
});

describe('find', () => {
  const index = buildSearch(pack);
  const keys = (typed: string) => search(index, typed).map((h) => h.key);

  it('finds by code, maker, vehicle, kit, part and other numbers, with look-alike letters', () => {
    expect(keys('te16')[0]).toBe('TE16-CORM');
    expect(keys('TE l6 C0RM')[0]).toBe('TE16-CORM');
    expect(keys('orchard')).toContain('QU22-DRAY');
    expect(keys('quillon dray')).toEqual(['QU22-DRAY']);
    expect(keys('mf k121 1')[0]).toBe('MF-K121-1');
    expect(keys('ald121a')[0]).toBe('ALD 121.A');
    expect(keys('TE16-CROM')).toContain('TE16-CORM');
    expect(keys('zzzzqqqq')).toEqual([]);
  });

  it('finds every code by any of its beginnings', () => {
    fc.assert(
      fc.property(fc.constantFrom(...pack.engines), fc.nat(6), (e, n) => {
        expect(search(index, e.code.slice(0, 4 + n), 500).map((h) => h.key)).toContain(e.code);
      }),
    );
  });
});

describe('interval', () => {
  const interval = { km: 120000, months: 96 };
  const fitted = { day: '2024-03-15', km: 80000 };

  it('says what comes first, what is left and by how much it is overdue', () => {
    const time = nextDue(interval, fitted, { day: '2026-11-24', km: 100000 }, 10000);
    expect(time).toEqual(
      jasmine.objectContaining({ dueKm: 200000, dueDay: '2032-03-15', leftKm: 100000, first: 'time' }),
    );
    const far = nextDue(interval, fitted, { day: '2026-11-24', km: 150000 }, 50000);
    // 50,000 km left at 50,000 a year: one year
    expect(far).toEqual(
      jasmine.objectContaining({ first: 'distance', distanceDay: '2027-11-24', firstDay: '2027-11-24' }),
    );
    const late = nextDue(interval, fitted, { day: '2033-03-15', km: 204000 });
    expect(late.leftKm).toBe(-4000);
    expect(late.leftDays).toBe(-365);
    expect(nextDue(interval, fitted, { day: '2026-11-24' }).first).toBe('time');
  });

  it('rounds a label down, never up', () => {
    fc.assert(
      fc.property(fc.nat(900000), fc.constantFrom(500, 1000, 5000), (km, step) =>
        expect(roundDown(km, step)).toBeLessThanOrEqual(km),
      ),
    );
    expect(roundDown(199999, 1000)).toBe(199000);
  });
});

describe('near codes', () => {
  /** Wagner & Fischer 1974, in full. */
  const editDistance = (a: string, b: string): number => {
    let row = Array.from({ length: b.length + 1 }, (_, j) => j);
    for (let i = 1; i <= a.length; i++) {
      const next = [i];
      for (let j = 1; j <= b.length; j++)
        next.push(Math.min(row[j]! + 1, next[j - 1]! + 1, row[j - 1]! + (a[i - 1] === b[j - 1] ? 0 : 1)));
      row = next;
    }
    return row[b.length]!;
  };

  it('are the same with the quick look at their letters as without it, by brute force', () => {
    const index = buildSearch(largePack(120, 200));
    const codes = index.entries.map((e) => e.code);
    fc.assert(
      fc.property(fc.nat(codes.length - 1), fc.nat(20), fc.constantFrom('7', 'Q', 'X', ''), (i, at, put) => {
        const typed = codes[i]!.slice(0, at) + put + codes[i]!.slice(at + 1);
        if (typed.length < 3) return;
        const found = search(index, typed, 400).map((h) => h.key);
        const near = index.entries.filter((e) => editDistance(e.code, typed) <= 2);
        const direct = index.entries.some((e) => e.code.includes(typed) || e.words.includes(` ${typed}`));
        if (!direct) expect(found.length).toBe(Math.min(400, near.length));
        expect(found.length).toBeGreaterThan(0);
      }),
      { numRuns: 60 },
    );
  });

  it('come whole when the search is built in turns', () => {
    const wide = largePack(2000, 300);
    const builder = searchBuilder(wide);
    let rests = 0;
    for (let step = builder.next(); ; step = builder.next()) {
      if (step.done) {
        expect(step.value).toEqual(buildSearch(wide));
        break;
      }
      rests++;
    }
    expect(rests).toBeGreaterThan(1);
  });
});

describe('a row that was refused', () => {
  it('is one fault, however many rows refer to it', () => {
    const variants = csv('variants').replace('2019-05-01', '2019-05-41');
    const read = readPackFiles({ texts: files(pack, { variants }) }, undefined, quiet);
    expect(faults(read)).toEqual(['variants 3 built_from not_a_day']);
    expect(read.pack).toBeUndefined();
    // a reference to what never was is still one
    const jobs = csv('jobs').replace('TE16-CORM/A', 'TE16-CORM/Z');
    expect(faults(readPackFiles({ texts: files(pack, { variants, jobs }) }, undefined, quiet)).length).toBe(
      2,
    );
  });
});
