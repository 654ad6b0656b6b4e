import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { LEDGER_COLUMNS, type LedgerRow, type LedgerTotals, ledgerTotals } from './ledger';
import { isQuoted } from './to-do';
import { workshopOf } from './workshop';

/** What rows can be gathered by. */
export const LEDGER_GROUPS = ['waits', 'decision', 'cause', 'engine', 'kit', 'shop', 'month'] as const;
export type LedgerGroup = (typeof LEDGER_GROUPS)[number];

/** How somebody looks at the ledger: kept under a name, and looked at again. */
const LedgerViewSchema = z.strictObject({
  typed: z.string().max(200),
  only: z.partialRecord(z.enum(['kind', 'waits', 'decision', 'engine', 'kit', 'cause']), z.string().max(200)),
  sort: z.strictObject({ by: z.enum(LEDGER_COLUMNS), down: z.boolean() }),
  /** Columns that are shown; the case itself always is. */
  columns: z.array(z.enum(LEDGER_COLUMNS)).min(1).max(LEDGER_COLUMNS.length),
  group: z.enum(['', ...LEDGER_GROUPS]),
});
export type LedgerView = z.infer<typeof LedgerViewSchema>;
export const KeptViewSchema = z.strictObject({ name: z.string().min(1).max(60), view: LedgerViewSchema });
/** Views that are kept. */
export const MOST_VIEWS = 30;

/** As the ledger is opened: every case, the newest first, every column. */
export const WHOLE_LEDGER: LedgerView = {
  typed: '',
  only: {},
  sort: { by: 'tag', down: true },
  columns: [...LEDGER_COLUMNS],
  group: '',
};

export type RowGroup = { key: string; rows: LedgerRow[]; totals: LedgerTotals };

const keyOf = (r: LedgerRow, by: LedgerGroup): string => {
  switch (by) {
    case 'shop':
      return isQuoted(r.who) ? '' : workshopOf(r.who);
    case 'month':
      return r.opened.slice(0, 7);
    default:
      return r[by];
  }
};

/**
 * Rows gathered by what they have in common, each in the order in which it came. Where rows are in the order of money or of
 * days, groups are in the order of what theirs come to; else of what they have in common, months newest first. What lacks it is
 * last.
 */
export function groupRows(rows: readonly LedgerRow[], by: LedgerGroup, sort: LedgerView['sort']): RowGroup[] {
  const found = new Map<string, LedgerRow[]>();
  for (const r of rows) {
    const key = keyOf(r, by);
    const own = found.get(key);
    if (own) own.push(r);
    else found.set(key, [r]);
  }
  const groups = [...found].map(([key, own]) => ({ key, rows: own, totals: ledgerTotals(own) }));
  const worth = worthOf(sort.by);
  const inOrder = (a: RowGroup, b: RowGroup): number => {
    if ((a.key === '') !== (b.key === '')) return a.key === '' ? 1 : -1;
    const apart = worth ? (worth(a) - worth(b)) * (sort.down ? -1 : 1) : 0;
    if (apart !== 0) return apart;
    return (a.key < b.key ? -1 : a.key > b.key ? 1 : 0) * (by === 'month' ? -1 : 1);
  };
  return groups.sort(inOrder);
}

function worthOf(by: LedgerView['sort']['by']): ((g: RowGroup) => number) | undefined {
  if (by === 'asked') return (g) => g.totals.asked;
  if (by === 'ours') return (g) => g.totals.ours;
  if (by === 'days') return (g) => g.rows.reduce((sum, r) => sum + r.days, 0);
  return undefined;
}

/** The head of a group, with its rows folded away or not. */
export type GroupHead = { is: 'group'; id: string; group: RowGroup; open: boolean };
/** A line of the ledger. Rows are lines as they are: twenty thousand of them are not wrapped at every key. */
export type LedgerLine = LedgerRow | GroupHead;
export const isHead = (line: LedgerLine): line is GroupHead => 'is' in line;

/** @param open keys of groups whose rows are shown */
export const ledgerLines = (groups: readonly RowGroup[], open: ReadonlySet<string>): LedgerLine[] =>
  groups.flatMap((group): LedgerLine[] => {
    const shown = open.has(group.key);
    const head: GroupHead = { is: 'group', id: `group:${group.key}`, group, open: shown };
    return shown ? [head, ...group.rows] : [head];
  });
