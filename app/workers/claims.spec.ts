import { TestBed } from '@angular/core/testing';
import { factsOf } from '@core/facts/read';
import { reduce } from '@core/facts/state';
import { textOf } from '@core/facts/read';
import { closeDesk, openDesk } from '../testing/demo-desk';
import { Database } from '../data/database';
import { ofCase } from '../records/records';
import { claimCells, openClaims, readClaimsTable } from './claims';
import type { ClaimsAsk } from './claims.protocol';
import { partingOf } from './read-table';
import { writeTablesAsWorkbook } from './workbook';

const QUIET = { progress: () => undefined, cancelled: () => false };
const HEAD = ['Claim number', 'Kit', 'Fitting date', 'Km at failure', 'Labour', 'Order'];
const ROWS = [
  ['C-700001', 'MF-K121-1', '2025-03-14', 104_350, 1050.5, '=1+2'],
  ['C-700002', 'ZZ-9', '2025-05-01', 12_000, 80, ''],
  ['C-700003', 'MF-K121-1', '2025-06-30', 45_000, 90.25, ''],
];
const ask = (blob: Blob, name = 't.csv'): ClaimsAsk => ({
  name,
  blob,
  kept: [],
  notation: { dateOrder: 'dmy', units: {} },
  today: '2026-11-25',
});
const csv = (rows: readonly (readonly (string | number)[])[]) =>
  new Blob([rows.map((r) => r.join(';')).join('\r\n')]);

describe('a claims table in its thread', () => {
  beforeEach(() => openDesk());
  afterEach(closeDesk);
  const db = () => TestBed.inject(Database).open();
  const came = async (blob: Blob, name?: string) => {
    const read = await readClaimsTable(await db(), ask(blob, name));
    if (!read.ok) throw new Error(read.error.code);
    return read.value;
  };
  const openAll = async (
    rows: number[],
    line: { progress: (n: number) => void; cancelled: () => boolean } = QUIET,
    blob = csv([HEAD, ...ROWS]),
  ) => {
    const { guess } = await came(blob);
    return openClaims(
      await db(),
      {
        ...ask(blob),
        form: guess.form,
        rows,
        by: 'T',
        at: '2026-11-25T10:00:00.000Z',
        tag: 3001,
        mark: '-4F',
      },
      line,
    );
  };

  it('says the same as a workbook as it says as a text, a formula in it staying text', async () => {
    const book = await came(
      await writeTablesAsWorkbook([{ sheet: 'Claims', rows: [HEAD, ...ROWS] }]),
      't.xlsx',
    );
    const text = await came(csv([HEAD, ...ROWS]));
    expect(book.rows).toEqual(text.rows);
    expect(book.guess.form.columns).toEqual(text.guess.form.columns);
    expect(book.examples.at(-1)).toEqual(['=1+2']);
    expect(book.columns[1]).toEqual({ read: 2, refused: 1 });
  });

  it('becomes cases with what each row says, once however often it comes', async () => {
    const opened = await openAll([2, 3, 4]);
    expect(opened.ok && opened.value.opened.map(([no]) => no)).toEqual([2, 3, 4]);
    const [, second] = opened.ok ? opened.value.opened : [];
    const state = reduce(await (await db()).getAll('facts', ofCase(second![1])));
    expect(textOf(state, 'claim.number')).toBe('C-700002');
    expect(textOf(state, 'case.tag')).toBe('3002-4F');
    expect(factsOf(state, 'kit.number')).toEqual([]);
    expect(factsOf(state, 'claim.number')[0]?.note).toContain('Kit: ZZ-9');
    const heads = (await (await db()).getAll('heads')).filter((h) => h.books?.claim.startsWith('C-70000'));
    expect(heads.map((h) => h.books?.asked).sort()).toEqual([105050, 8000, 9025]);
    expect((await came(csv([HEAD, ...ROWS]))).here.map(([no]) => no)).toEqual([2, 3, 4]);
    const again = await openAll([2, 3, 4]);
    expect(again.ok && again.value.opened).toEqual([]);
  });

  it('keeps every case whole that was open when it was stopped', async () => {
    const many = csv([
      HEAD,
      ...Array.from({ length: 45 }, (_, i) => [`C-8${i + 1000}`, 'MF-K121-1', '', i, '', '']),
    ]);
    let done = 0;
    const cut = await openAll(
      Array.from({ length: 45 }, (_, i) => i + 2),
      { progress: (n) => (done = n), cancelled: () => done > 0 },
      many,
    );
    expect(cut.ok && cut.value.opened.length).toBe(done);
    expect(done).toBeGreaterThan(0);
    expect(done).toBeLessThan(45);
    const own = (await (await db()).getAll('heads')).filter((h) => h.books?.claim.startsWith('C-81'));
    expect(own.length).toBe(done);
    for (const h of own) expect((await (await db()).getAll('facts', ofCase(h.id))).length).toBeGreaterThan(4);
  });

  it('gives rows back as they came, and says what is no table', async () => {
    const cells = await claimCells(await db(), { ...ask(csv([HEAD, ...ROWS])), rows: [3] });
    expect(cells.ok && cells.value.rows).toEqual([
      { no: 3, cells: ['C-700002', 'ZZ-9', '2025-05-01', '12000', '80', ''] },
    ]);
    const why = async (blob: Blob) => {
      const read = await readClaimsTable(await db(), ask(blob));
      return read.ok ? '' : read.error.code;
    };
    expect(await why(new Blob(['\n\n']))).toBe('no_rows');
    expect(await why(new Blob([Uint8Array.from([0x50, 0x4b, 3, 4, 9, 9])]))).toBe('broken_zip');
    const plain = await writeTablesAsWorkbook([{ sheet: 'a', rows: [HEAD] }]);
    expect(await why(plain.slice(0, plain.size / 2))).toBe('broken_zip');
  });

  it('parts cells by what parts most lines alike, whatever commas stand in them', () => {
    expect(partingOf('Export, of May\na;b;c\n1,5;2,5;x, y\n3;4,25;z')).toBe(';');
    expect(partingOf('a,b,c\n1,2,"x;y;z"\n3,4,"p;q;r"')).toBe(',');
    expect(partingOf('a\tb\n1,5\t2,5\n1,5\t2')).toBe('\t');
    expect(partingOf('alone')).toBe(',');
  });
});
