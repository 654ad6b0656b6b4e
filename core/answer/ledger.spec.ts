import fc from 'fast-check';
import { followUpsOf } from './follow-ups';
import type { CaseSummary } from './case-summary';
import { twinsOf } from './twins';
import { groupRows, LEDGER_GROUPS, ledgerLines } from './ledger-view';
import { LEDGER_COLUMNS, ledgerRows, ledgerTotals, type LedgerQuery } from './ledger';

const TODAY = '2026-11-25';
const ALL: LedgerQuery = { typed: '', only: {}, sort: { by: 'tag', down: true } };
let n = 0;
const summary = (
  more: Partial<CaseSummary> & { asked?: number; ours?: number; decision?: string; cause?: string } = {},
): CaseSummary => {
  const { asked = 0, ours, decision = '', cause = '', ...rest } = more;
  return {
    id: `c${++n}`,
    tag: String(2000 + n),
    engine: 'TE16-CORM',
    who: 'Ada',
    kind: 'claim',
    waits: 'settle',
    opened: '2026-11-01T08:00:00.000Z',
    touched: '2026-11-05T08:00:00.000Z',
    text: `ada ${n}`,
    world: '',
    books: { claim: '', kit: '', decision, cause, asked, ...(ours === undefined ? {} : { ours }) },
    ...rest,
  };
};
const some = fc.array(
  fc.record({
    asked: fc.integer({ min: 0, max: 1_000_000 }),
    ours: fc.option(fc.integer({ min: 0, max: 1_000_000 }), { nil: undefined }),
    decision: fc.constantFrom('', 'accept', 'decline', 'part'),
    cause: fc.constantFrom('', 'worn', 'set_wrong_way'),
    waits: fc.constantFrom('settle' as const, 'sealed' as const, 'call' as const),
    who: fc.constantFrom('', 'Ada', 'bo', 'Cy 10', 'cy 9'),
    opened: fc.integer({ min: 1, max: 25 }).map((d) => `2026-11-${String(d).padStart(2, '0')}T08:00:00.000Z`),
  }),
  { maxLength: 30 },
);

describe('claims that stand twice', () => {
  it('are found however their number is parted, never the case itself, and none where there is no number', () => {
    const of = (claim: string) => summary({ books: { claim, kit: '', decision: '', cause: '', asked: 0 } });
    const all = [of('C-20272'), of('c 20272'), of('C20273'), of(''), of('')];
    const tags = (at: number) => twinsOf(all, all[at]!.id, all[at]!.books!.claim).map((s) => s.id);
    expect(tags(0)).toEqual([all[1]!.id]);
    expect(tags(1)).toEqual([all[0]!.id]);
    expect(tags(2)).toEqual([]);
    expect(tags(3)).toEqual([]);
  });
});

describe('the ledger', () => {
  it('law: whatever is sorted, the same rows are there, in order, what is missing last both ways', () => {
    fc.assert(
      fc.property(some, fc.constantFrom(...LEDGER_COLUMNS), fc.boolean(), (list, by, down) => {
        const summaries = list.map((x) => summary(x as Parameters<typeof summary>[0]));
        const rows = ledgerRows(summaries, { ...ALL, sort: { by, down } }, TODAY);
        expect(rows.map((r) => r.id).sort()).toEqual(summaries.map((s) => s.id).sort());
        const keys = rows.map((r) => r[by]);
        const missing = keys.findIndex((k) => k === undefined || k === '');
        const there = missing < 0 ? keys : keys.slice(0, missing);
        expect(keys.slice(there.length).every((k) => k === undefined || k === '')).toBeTrue();
        const plain = there.map((k) =>
          typeof k === 'string' && !/^\d+$/.test(k) ? k.toLowerCase() : Number(k),
        );
        expect(plain).toEqual([...plain].sort((a, b) => (a < b ? -1 : a > b ? 1 : 0) * (down ? -1 : 1)));
      }),
      { seed: 28, numRuns: 200 },
    );
  });

  it('law: totals are what a second count of the rows gives, and decisions and ages leave none out', () => {
    fc.assert(
      fc.property(some, (list) => {
        const summaries = list.map((x) => summary(x as Parameters<typeof summary>[0]));
        const t = ledgerTotals(ledgerRows(summaries, ALL, TODAY));
        const sum = (of: (s: CaseSummary) => number) => summaries.reduce((a, s) => a + of(s), 0);
        expect([t.cases, t.asked, t.ours]).toEqual([
          summaries.length,
          sum((s) => s.books!.asked),
          sum((s) => s.books!.ours ?? 0),
        ]);
        const by = [...t.decisions.values()];
        expect(by.reduce((a, d) => a + d.cases, 0)).toBe(t.cases);
        expect(by.reduce((a, d) => a + d.asked, 0)).toBe(t.asked);
        expect(t.ages.reduce((a, b) => a + b, 0)).toBe(t.open);
        expect(t.open).toBe(summaries.filter((s) => s.waits !== 'sealed').length);
      }),
      { seed: 29, numRuns: 100 },
    );
  });

  it('filters by words and by columns together, and a settled case grows no older', () => {
    const [a, b, c] = [
      summary({ decision: 'decline', text: 'rope walk' }),
      summary({ decision: 'decline', text: 'mire street' }),
      summary({ decision: 'accept', text: 'rope', waits: 'sealed' }),
    ];
    const ids = (q: Partial<LedgerQuery>) => ledgerRows([a, b, c], { ...ALL, ...q }, TODAY).map((r) => r.id);
    expect(ids({ typed: 'rope' })).toEqual([c.id, a.id]);
    expect(ids({ typed: 'rope', only: { decision: 'decline' } })).toEqual([a.id]);
    expect(ids({ only: { decision: 'decline', waits: 'sealed' } })).toEqual([]);
    const days = new Map(ledgerRows([a, c], ALL, TODAY).map((r) => [r.id, r.days]));
    expect([days.get(a.id), days.get(c.id)]).toEqual([24, 4]);
    // from the rack of an earlier make, which kept no books
    const old: CaseSummary = { ...a };
    delete old.books;
    expect(ledgerRows([old], ALL, TODAY)[0]).toEqual(
      jasmine.objectContaining({ asked: 0, ours: undefined, decision: '' }),
    );
  });

  it('law: groups hold every row once, in its order, and come to what all rows come to', () => {
    fc.assert(
      fc.property(
        some,
        fc.constantFrom(...LEDGER_GROUPS),
        fc.constantFrom(...LEDGER_COLUMNS),
        fc.boolean(),
        (list, by, on, down) => {
          const summaries = list.map((x) => summary(x as Parameters<typeof summary>[0]));
          const sort = { by: on, down };
          const rows = ledgerRows(summaries, { ...ALL, sort }, TODAY);
          const groups = groupRows(rows, by, sort);
          expect(groups.flatMap((g) => g.rows.map((r) => r.id)).sort()).toEqual(rows.map((r) => r.id).sort());
          expect(new Set(groups.map((g) => g.key)).size).toBe(groups.length);
          for (const g of groups) {
            const places = g.rows.map((r) => rows.indexOf(r));
            expect(places).toEqual([...places].sort((a, b) => a - b));
          }
          expect(groups.reduce((sum, g) => sum + g.totals.asked, 0)).toBe(ledgerTotals(rows).asked);
          // what lacks it is last; else by money where rows are
          const told = groups.filter((g) => g.key !== '');
          expect(groups.slice(0, told.length)).toEqual(told);
          if (on === 'asked') {
            const sums = told.map((g) => g.totals.asked);
            expect(sums).toEqual([...sums].sort((a, b) => (down ? b - a : a - b)));
          } else if (on === 'tag') {
            const keys = told.map((g) => g.key);
            const up = [...keys].sort();
            expect(keys).toEqual(by === 'month' ? up.reverse() : up);
          }
          const open = new Set(told.slice(0, 1).map((g) => g.key));
          expect(ledgerLines(groups, open).length).toBe(groups.length + (told[0]?.rows.length ?? 0));
        },
      ),
      { seed: 30, numRuns: 200 },
    );
  });

  it('gathers callers by their workshop however it is written, and messages that nobody read by none', () => {
    const rows = ledgerRows(
      [
        summary({ who: 'Ada, Mire Street' }),
        summary({ who: 'Bo, mire street' }),
        summary({ who: '“which kit, pls”' }),
      ],
      ALL,
      TODAY,
    );
    expect(groupRows(rows, 'shop', ALL.sort).map((g) => [g.key, g.rows.length])).toEqual([
      ['mire street', 2],
      ['', 1],
    ]);
  });

  it('is followed up by each promised call and each open claim, on the day that the house promised', () => {
    const all = [
      summary({ back: '2026-11-27' }),
      summary({ waits: 'sealed' }),
      summary({ kind: 'question', waits: 'call' }),
    ];
    const due = followUpsOf(ledgerRows(all, ALL, TODAY), all, 14);
    expect(due.map((d) => [d.id, d.kind, d.day])).toEqual([
      [all[0]!.id, 'call', '2026-11-27'],
      [all[0]!.id, 'answer', '2026-11-15'],
    ]);
  });
});
