import fc from 'fast-check';
import type { CaseSummary } from './case-summary';
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
});
