import fc from 'fast-check';
import { readContextOf } from '@core/answer/read-context';
import { registryFor, worldOf } from '@core/answer/world';
import { catalogueOf } from '@core/catalogue/find-records';
import { LONGEST_NOTE } from '@core/facts/fact';
import { plainText } from '@core/facts/value';
import { demoPack } from '../../demo/catalogue';
import { type Cell, guessForm, headingAt, namesClaims } from './claims-form';
import { type ClaimsForm, type KeptForm } from './kept-form';
import { claimsReader, factsOfRow, readsAs } from './claims-table';

const catalogue = catalogueOf(demoPack());
const registry = registryFor(worldOf(catalogue));
const ctx = readContextOf(undefined, catalogue, { dateOrder: 'dmy', units: {} }, '2026-11-25');
const HOUSE = { dateOrder: 'dmy', distance: 'km' } as const;
const reads = readsAs(registry, ctx);

const guess = (rows: Cell[][], kept: KeptForm[] = []) =>
  guessForm(rows, headingAt(rows, registry), registry, kept, HOUSE, reads);
function read(rows: Cell[][], form?: ClaimsForm) {
  const at = headingAt(rows, registry);
  const own = form ?? guess(rows).form;
  const reader = claimsReader(at, own, registry, ctx);
  reader.push(rows);
  const facts = (no: number) =>
    factsOfRow(rows[no - 1]!, no, 't.csv', rows[at]!.map(String), own, registry, ctx);
  return { ...reader, form: own, facts };
}
const valueOf = (facts: ReturnType<ReturnType<typeof read>['facts']>, key: string) =>
  facts.find((f) => f.key === key)?.value;

describe('a table of claims', () => {
  it('is known by its headings, also below a title, and by what stands under them', () => {
    const rows = [
      ['Warranty claims, November', '', '', ''],
      ['Claim ID', 'Parts', 'Garage', 'Seen by'],
      ['C-1', '80,50', 'Tarn', 'x'],
      ['C-2', '90,00', 'Pell', 'y'],
    ];
    expect(headingAt(rows, registry)).toBe(1);
    expect(guess(rows).form.columns).toEqual(['claim.number', 'claim.cost_part', 'call.who', '']);
    const named = [rows[1]!, ['C-1', 'belt', 'Tarn', ''], ['C-2', 'tensioner', 'Pell', '']];
    expect(guess(named).form.columns[1]).toBe('parts.sent');
    expect(namesClaims(['Kit', 'Claim no.'], registry)).toBeTrue();
    expect(namesClaims(['Kit', 'Symptom'], registry)).toBeFalse();
  });

  it('is read as the last one with the same headings, but for what is known no more', () => {
    const rows = [
      ['Nr', 'What'],
      ['7', 'rattles'],
    ];
    const form: ClaimsForm = {
      columns: ['claim.number', 'complaint'],
      dateOrder: 'mdy',
      decimal: ',',
      distance: 'mi',
    };
    const kept = [{ head: ['Nr', 'What'], form }];
    expect(guess(rows, kept)).toEqual({ form, kept: true, orderAssumed: false });
    expect(guess(rows, [{ head: ['Nr'], form }]).kept).toBeFalse();
    const gone = [{ head: ['Nr', 'What'], form: { ...form, columns: ['claim.number', 'gone.key'] } }];
    expect(guess(rows, gone).form.columns).toEqual(['claim.number', '']);
  });

  it('tells by itself in which order its days stand, and says where it is only assumed', () => {
    fc.assert(
      fc.property(
        fc.array(fc.date({ min: new Date('2019-01-01'), max: new Date('2026-10-31'), noInvalidDate: true }), {
          minLength: 1,
          maxLength: 30,
        }),
        fc.boolean(),
        (dates, monthFirst) => {
          const days = dates.map((d) => d.toISOString().slice(0, 10));
          const written = days.map((day) => {
            const [y, m, d] = day.split('-');
            return monthFirst ? `${m}/${d}/${y}` : `${d}.${m}.${y}`;
          });
          const rows = [['Claim number', 'Failure date'], ...written.map((w, i) => [`C-${i}`, w])];
          const got = guess(rows);
          const told = days.some((d) => Number(d.slice(8)) > 12);
          expect(got.orderAssumed).toBe(!told);
          if (!told) return;
          const all = read(rows);
          expect(all.rows.every((r) => r.problems === undefined)).toBeTrue();
          expect(days.map((_, i) => valueOf(all.facts(i + 2), 'case.date'))).toEqual(days);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('reads amounts to the cent in either way of writing them, and refuses what may be two amounts', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 9_999_999 }), { minLength: 2, maxLength: 20 }),
        fc.boolean(),
        fc.boolean(),
        (cents, comma, grouped) => {
          const written = cents.map((c) => {
            const whole = grouped
              ? String(Math.floor(c / 100)).replace(/\B(?=(\d{3})+$)/g, comma ? '.' : ',')
              : String(Math.floor(c / 100));
            return `${whole}${comma ? ',' : '.'}${String(c % 100).padStart(2, '0')}`;
          });
          const all = read([['Claim number', 'Labour'], ...written.map((w, i) => [`C-${i}`, w])]);
          expect(all.form.decimal).toBe(comma ? ',' : '.');
          cents.forEach((c, i) =>
            expect(valueOf(all.facts(i + 2), 'claim.cost_labour')).toBeCloseTo(c / 100, 9),
          );
        },
      ),
      { numRuns: 60 },
    );
    const open = read([
      ['Claim number', 'Labour', 'Km at failure'],
      ['C-1', '1.234', '45.000'],
      ['C-2', 1.234, 45000],
    ]);
    expect(open.form.decimal).toBe('');
    expect(open.rows[0]!.problems).toEqual([{ column: 1, why: { code: 'either_sign', typed: '1.234' } }]);
    // a number of a workbook has no sign that could be misread
    expect(valueOf(open.facts(3), 'claim.cost_labour')).toBe(1.234);
    expect([2, 3].map((n) => valueOf(open.facts(n), 'vehicle.odometer'))).toEqual([45000, 45000]);
    const wrong = read([
      ['Claim number', 'Labour'],
      ['C-1', '12,50'],
      ['C-2', '7.5'],
      ['C-3', '1,50'],
    ]);
    expect(wrong.rows.map((r) => r.problems?.[0]?.why.code)).toEqual([undefined, 'wrong_sign', undefined]);
  });

  it('counts miles where its headings say so, and takes no amount of other money', () => {
    const miles = read([
      ['Claim number', 'Miles at failure', 'Odometer at failure miles', 'km'],
      ['C-1', '', '', ''],
    ]);
    expect(miles.form.distance).toBe('km');
    const rows: Cell[][] = [
      ['Claim number', 'Distance at failure', 'Labour', 'Currency'],
      ['C-1', '1000', '80', 'XB'],
      ['C-2', 1000, '80', 'ac'],
    ];
    const form: ClaimsForm = { ...guess(rows).form, distance: 'mi' };
    const all = read(rows, form);
    expect(all.rows[0]!.problems?.map((p) => [p.column, p.why.code])).toEqual([[2, 'other_currency']]);
    expect(all.rows[1]!.problems).toBeUndefined();
    for (const no of [2, 3])
      expect(valueOf(all.facts(no), 'vehicle.odometer') as number).toBeCloseTo(1609.344, 6);
    expect(valueOf(all.facts(2), 'claim.cost_labour')).toBeUndefined();
  });

  it('stops rows without a claim and those whose claim stands above, and keeps their numbers over empty lines', () => {
    const { rows, says } = read([
      ['Claim number', 'Kit', 'Complaint'],
      ['', '', ''],
      ['c-9', 'MF-K121-1', 'rattles\nwhen cold'],
      ['', 'MF-K121-1', 'squeals'],
      ['C-9', 'ZZ-1', 'again'],
    ]);
    expect(rows.map((r) => [r.no, r.stopped?.code])).toEqual([
      [3, undefined],
      [4, 'no_claim'],
      [5, 'twice'],
    ]);
    expect(rows[2]!.stopped).toEqual({ code: 'twice', first: 3 });
    expect(rows[2]!.problems?.map((p) => p.column)).toEqual([1]);
    expect(says.join('').split('\n').length).toBe(rows.length + 1);
  });

  it('loses nothing of a row: every cell is a fact or stands in the note, and no cell is both', () => {
    const head = [
      'Claim number',
      'Kit',
      'Fitted on',
      'Km at failure',
      'Labour',
      'Invoice',
      'Own column',
      'Complaint',
    ];
    const odd = fc.oneof(
      fc.constantFrom(
        '',
        'MF-K121-1',
        '14.03.2025',
        '31.02.2025',
        '45 000 km',
        '-5',
        'yes',
        '12,50',
        '1.234',
        'ja',
        '2025-03-14T10:00:00',
      ),
      fc.string({ maxLength: 12 }).map((s) => s.trim()),
      fc.integer({ min: -10, max: 999_999 }),
    );
    fc.assert(
      fc.property(fc.array(odd, { minLength: 7, maxLength: 7 }), (cells) => {
        const row: Cell[] = ['C-1', ...cells];
        const form: ClaimsForm = {
          columns: [
            'claim.number',
            'kit.number',
            'kit.fitted',
            'vehicle.odometer',
            'claim.cost_labour',
            'claim.invoice',
            '',
            'complaint',
          ],
          dateOrder: 'dmy',
          decimal: ',',
          distance: 'km',
        };
        const all = read([head, row], form);
        const facts = all.facts(2);
        const note = facts.find((f) => f.key === 'claim.number')?.note ?? '';
        form.columns.forEach((key, i) => {
          if (row[i] === '' || i === 0) return;
          const filed = key !== '' && facts.some((f) => f.key === key);
          const noted = note.split('\n').includes(`${head[i]}: ${String(row[i])}`);
          expect([filed, noted]).toEqual([!noted, !filed]);
          // what the look at all rows tells is what becomes of each
          if (key !== '') expect(all.rows[0]!.problems?.some((p) => p.column === i) ?? false).toBe(noted);
        });
        expect(plainText(valueOf(facts, 'case.kind') ?? '')).toBe('claim');
      }),
      { numRuns: 300 },
    );
  });

  it('says in the note what has no room in it', () => {
    const long = 'x'.repeat(6000);
    const { facts } = read([
      ['Claim number', 'Own column'],
      ['C-1', long],
    ]);
    const note = facts(2).find((f) => f.key === 'claim.number')?.note ?? '';
    expect(note.length).toBeLessThanOrEqual(LONGEST_NOTE);
    const kept = (/x+/.exec(note) ?? [''])[0].length;
    const [, left = '0'] = /\n(\d+) /.exec(note) ?? [];
    expect(kept + Number(left)).toBe(long.length);
  });
});
