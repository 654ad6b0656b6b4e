import { dayOf, daysBetween, type Day } from '@core/quantity/dates';
import { lastPer, oncePerName } from '@core/quantity/keep';
import { nth } from '@core/quantity/must';
import type { Books, CaseSummary } from './case-summary';
import { saysAll } from './find-summaries';

/** Columns of the ledger, in their order on paper. */
export const LEDGER_COLUMNS = [
  'tag',
  'opened',
  'who',
  'engine',
  'waits',
  'decision',
  'asked',
  'ours',
  'days',
  'claim',
  'kit',
  'cause',
] as const;
export type LedgerColumn = (typeof LEDGER_COLUMNS)[number];

/** A case in the ledger. Money in minor units; `days` since it was opened, and until its last fact once it is settled. */
export type LedgerRow = Readonly<
  Record<'id' | 'tag' | 'opened' | 'who' | 'engine' | 'kit' | 'claim' | 'decision' | 'cause', string> & {
    kind: CaseSummary['kind'];
    waits: CaseSummary['waits'];
    asked: number;
    ours: number | undefined;
    days: number;
    open: boolean;
  }
>;

export type LedgerQuery = {
  /** Words that all stand in the case. */
  typed: string;
  /** Only rows that say just this in a column; a missing one allows all. */
  only: Partial<Record<'kind' | 'waits' | 'decision' | 'engine' | 'kit' | 'cause', string>>;
  sort: { by: LedgerColumn; down: boolean };
};

/** Ages of open cases, days: up to each of these, and more. */
export const AGES = [7, 14, 30] as const;
export type LedgerTotals = {
  cases: number;
  open: number;
  asked: number;
  ours: number;
  /** By decision, '' for none, with what was asked for and what we bear. */
  decisions: Map<string, { cases: number; asked: number; ours: number }>;
  causes: Map<string, number>;
  /** Open cases by age, one more than there are limits. */
  ages: number[];
};

const NO_BOOKS: Books = { claim: '', kit: '', decision: '', cause: '', asked: 0 };
const SETTLED: ReadonlySet<CaseSummary['waits']> = new Set(['sealed', 'told']);

function rowOf(s: CaseSummary, today: Day): LedgerRow {
  const { claim, kit, decision, cause, asked, ours } = s.books ?? NO_BOOKS;
  const open = !SETTLED.has(s.waits);
  const opened = s.opened === '' ? '' : dayOf(s.opened);
  const until = open || s.touched === '' ? today : dayOf(s.touched);
  return {
    id: s.id,
    tag: s.tag,
    opened,
    who: s.who,
    engine: s.engine,
    kit,
    claim,
    kind: s.kind,
    waits: s.waits,
    decision,
    cause,
    asked,
    ours,
    days: opened === '' ? 0 : Math.max(0, daysBetween(opened, until)),
    open,
  };
}

type Sort = LedgerQuery['sort'];
/** A row with what it is found by. */
type Found = Readonly<{ row: LedgerRow; summary: CaseSummary }>;

const kept = lastPer<object, { today: Day; rows: readonly Found[] }>();
/** Rows of all cases as they stand on the rack, made once for a rack and a day. */
const rowsOf = (summaries: readonly CaseSummary[], today: Day): readonly Found[] =>
  kept(
    summaries,
    (k) => k.today === today,
    () => ({ today, rows: summaries.map((summary) => ({ row: rowOf(summary, today), summary })) }),
  ).rows;

const ranked = oncePerName<readonly Found[], Ranks>();
const ranksOf = (rows: readonly Found[], by: LedgerColumn): Ranks =>
  ranked(rows, by, () => toRanks(rows.map(({ row }) => sortKey(row[by]))));

/** Readies the order of a column, so that its heading answers at once: a second press only turns it round. */
export function readyOrder(summaries: readonly CaseSummary[], by: LedgerColumn, today: Day): void {
  ranksOf(rowsOf(summaries, today), by);
}

const ordered = lastPer<object, { sort: Sort; all: readonly Found[] }>();
/** All rows in an order, worked out once for it: what is typed next only leaves some out. */
const inOrder = (rows: readonly Found[], sort: Sort): readonly Found[] =>
  ordered(
    rows,
    (k) => k.sort.by === sort.by && k.sort.down === sort.down,
    () => ({ sort, all: orderOf(ranksOf(rows, sort.by), sort.down).map((i) => nth(rows, i)) }),
  ).all;

/** The rows that a query leaves, in its order; of equal ones the newest first, as they stand on the rack. */
export function ledgerRows(
  summaries: readonly CaseSummary[],
  { typed, only, sort }: LedgerQuery,
  today: Day,
): LedgerRow[] {
  const wanted = Object.entries(only) as [keyof LedgerQuery['only'], string][];
  const says = saysAll(typed);
  const left: LedgerRow[] = [];
  for (const { row, summary } of inOrder(rowsOf(summaries, today), sort))
    if (wanted.every(([column, value]) => row[column] === value) && says(summary)) left.push(row);
  return left;
}

/** Texts by their small letters, figures by size; undefined for what is not there. */
const sortKey = (v: string | number | undefined): string | number | undefined =>
  typeof v !== 'string' ? v : v === '' ? undefined : /^\d+$/.test(v) ? Number(v) : v.toLowerCase();

/** Rank of each row, and how many ranks there are: what is not there has none and is given that number. */
type Ranks = Readonly<{ of: Float64Array; count: number }>;

/** Keys as ranks, figures before texts: figures are put in order many times quicker than texts. */
function toRanks(keys: readonly (string | number | undefined)[]): Ranks {
  const known = new Set(keys);
  const figures = Float64Array.from([...known].filter((k) => typeof k === 'number')).sort();
  const texts = [...known].filter((k) => typeof k === 'string').sort();
  const ranks = new Map([...figures, ...texts].map((k, i): [string | number, number] => [k, i]));
  const count = ranks.size;
  return { of: Float64Array.from(keys, (k) => (k === undefined ? count : (ranks.get(k) ?? count))), count };
}

/** Places in the order of their ranks, turned round where it goes down; what has none comes last either way, equal ones as they stood. */
function orderOf({ of, count }: Ranks, down: boolean): number[] {
  const placed = of
    .map((rank, i) => (rank === count || !down ? rank : count - 1 - rank) * of.length + i)
    .sort();
  return Array.from(placed, (p) => p % of.length);
}

/** What rows come to: counted, money exact in minor units. */
export function ledgerTotals(rows: readonly LedgerRow[]): LedgerTotals {
  const out: LedgerTotals = {
    cases: rows.length,
    open: 0,
    asked: 0,
    ours: 0,
    decisions: new Map(),
    causes: new Map(),
    ages: [...AGES, 0].map(() => 0),
  };
  for (const r of rows) {
    let of = out.decisions.get(r.decision);
    if (!of) out.decisions.set(r.decision, (of = { cases: 0, asked: 0, ours: 0 }));
    of.cases++;
    of.asked += r.asked;
    of.ours += r.ours ?? 0;
    if (r.cause !== '') out.causes.set(r.cause, (out.causes.get(r.cause) ?? 0) + 1);
    out.asked += r.asked;
    out.ours += r.ours ?? 0;
    if (!r.open) continue;
    out.open++;
    const at = AGES.findIndex((limit) => r.days <= limit);
    const age = at < 0 ? AGES.length : at;
    out.ages[age] = (out.ages[age] ?? 0) + 1;
  }
  return out;
}
