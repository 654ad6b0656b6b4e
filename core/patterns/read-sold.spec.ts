import type { Return } from './population';
import { clashes, guessSold, readSold } from './read-sold';

const TODAY = '2026-12-01';
const table = (...rows: (string | number)[][]) => [
  ['Kit', 'Lot', 'Month', 'Market', 'Quantity', 'Made on'],
  ...rows,
];
const read = (...rows: (string | number)[][]) => readSold(table(...rows), TODAY, 'dmy');

describe('a table of what was sold', () => {
  it('is read by its headings, in whatever order and with whatever signs for thousands', () => {
    const other = readSold(
      [
        ['Units', 'Batch number', 'Country', 'Kit number', 'Shipped'],
        ['1.200', 'L1', 'north', 'MF-K1', '03/2026'],
        ['1 200', 'L2', 'north', 'MF-K1', 'Apr 2026'],
        ["1'200", 'L3', '', 'MF-K1', '17.05.2026'],
        [1200, 'L4', '', 'MF-K1', '2026-06-30'],
        ['1200,00', 'L5', '', 'MF-K1', '2026-07'],
      ],
      TODAY,
      'dmy',
    );
    expect(other.faults).toEqual([]);
    expect(other.rows.map((r) => [r.lot, r.month, r.sold])).toEqual([
      ['L1', '2026-03', 1200],
      ['L2', '2026-04', 1200],
      ['L3', '2026-05', 1200],
      ['L4', '2026-06', 1200],
      ['L5', '2026-07', 1200],
    ]);
    expect(guessSold(['a', 'b'])).toEqual({});
    expect(readSold([['Kit', 'Lot']], TODAY, 'dmy').lacking).toEqual(['month', 'sold']);
    // a form that was kept goes before the headings
    expect(guessSold(['Kit', 'Lot'], { kit: 1, lot: 0 })).toEqual({ kit: 1, lot: 0 });
    expect(guessSold(['Kit', 'Lot'], { kit: 7 })).toEqual({ kit: 0, lot: 1 });
  });

  it('names each row that cannot be taken with its reason, and takes none in part', () => {
    const { rows, faults } = read(
      ['K', 'A', '2026-01', 'n', '100', ''],
      ['K', 'A', '2026-01', 'N', '50', ''],
      ['', 'A', '2026-01', 'n', '1', ''],
      ['K', 'A', '2026-13', 'n', '1', ''],
      ['K', 'A', 'soon', 'n', '1', ''],
      ['K', 'A', '2026-02', 'n', '-5', ''],
      ['K', 'A', '2026-02', 'n', '1,5', ''],
      ['K', 'A', '2026-02', 'n', 'many', ''],
      ['K', 'A', '2026-02', 'n', '7', '2026-03-04'],
      ['K', 'A', '2026-02', 'n', '7', '31.02.2026'],
      ['K', 'A', '2027-02', 'n', '7', ''],
      ['', '', '', '', '', ''],
      ['K', 'A', '2026-02', 'n', '7', '2026-02-28'],
    );
    expect(faults.map((f) => [f.row, f.code])).toEqual([
      [3, 'twice'],
      [4, 'empty'],
      [5, 'bad_month'],
      [6, 'bad_month'],
      [7, 'negative'],
      [8, 'bad_count'],
      [9, 'bad_count'],
      [10, 'before_made'],
      [11, 'bad_day'],
      [12, 'later'],
    ]);
    expect(rows.map((r) => r.sold)).toEqual([100, 7]);
  });

  it('is held against what came back: more than were sold, and lots that nobody sold', () => {
    const { rows } = read(['K', 'A', '2026-01', '', '2', ''], ['K', 'B', '2026-01', '', '9', '']);
    const back = (tag: string, lot: string): Return => ({
      id: tag,
      tag,
      kit: 'k',
      lot,
      shop: '',
      fitted: '',
      failed: '',
      cause: '',
      faults: [],
      cost: 0,
    });
    expect(
      clashes(rows, [
        back('1', 'a'),
        back('2', 'A'),
        back('3', 'A'),
        back('4', 'B'),
        back('5', 'C'),
        back('6', ''),
      ]),
    ).toEqual([
      { code: 'more_back', kit: 'K', lot: 'A', sold: 2, back: 3 },
      { code: 'unknown_lot', kit: 'k', lot: 'C', tags: ['5'] },
    ]);
  });
});
