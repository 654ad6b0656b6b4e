import { AGES, type LedgerColumn, type LedgerRow, type LedgerTotals } from '@core/answer/ledger';
import type { LedgerGroup, RowGroup } from '@core/answer/ledger-view';
import { CAUSES } from '@core/cause/cause-data';
import { MINOR } from '@core/claim/costs';
import { KINDS } from '@core/facts/kinds';
import { type Notation, writtenDay } from '@core/facts/read-value';
import { formatMonth } from '@core/quantity/dates';
import { oncePer } from '@core/quantity/keep';
import { counted } from '../language/plural';
import { noCauseWords } from './answers';
import { moneyWords } from './money';
import { waitsWords } from './waits';

export const LEDGER_WORDS: Record<LedgerColumn, string> = {
  tag: 'Case',
  opened: 'Opened',
  who: 'Caller',
  engine: 'Engine',
  kit: 'Kit',
  claim: 'Claim',
  waits: 'Stands',
  decision: 'Decision',
  cause: 'Cause',
  asked: 'Asked',
  ours: 'We bear',
  days: 'Days',
};

/** Decisions as their tiles say them, by key. */
const decisions = oncePer((kinds: typeof KINDS): ReadonlyMap<string, string> => {
  const decision = (kinds.get('claim')?.observables ?? []).find(
    (o): o is { key: string; type: { options: { key: string; wording: string }[] } } =>
      typeof o === 'object' && o !== null && 'key' in o && o.key === 'claim.decision',
  );
  return new Map(decision?.type.options.map((x) => [x.key, x.wording]));
});
export const decisionWords = (key: string): string =>
  key === '' ? 'not decided' : (decisions(KINDS).get(key) ?? key);

export function causeWords(key: string): string {
  if (key === 'none' || key === 'undecidable') return noCauseWords(key);
  return CAUSES.causes.find((c) => c.key === key)?.wording ?? key;
}

/** A row as it stands on the screen, column by column. */
export function cellWords(r: LedgerRow, column: LedgerColumn, notation: Notation, today: string): string {
  switch (column) {
    case 'opened':
      return r.opened === '' ? '' : writtenDay(r.opened, notation);
    case 'waits':
      return waitsWords(r, today);
    case 'decision':
      return r.decision === '' ? '' : decisionWords(r.decision);
    case 'cause':
      return r.cause === '' ? '' : causeWords(r.cause);
    case 'asked':
      return r.asked === 0 ? '' : moneyWords(r.asked);
    case 'ours':
      return r.ours === undefined ? '' : moneyWords(r.ours);
    case 'days':
      return String(r.days);
    default:
      return r[column];
  }
}

/** The same for a file: days by ISO, money as numbers of the main unit. */
export function cellValue(r: LedgerRow, column: LedgerColumn, today: string): string | number {
  switch (column) {
    case 'opened':
      return r.opened;
    case 'asked':
      return r.asked / MINOR;
    case 'ours':
      return r.ours === undefined ? '' : r.ours / MINOR;
    case 'days':
      return r.days;
    default:
      return cellWords(r, column, { dateOrder: 'ymd', units: {} }, today);
  }
}

export const totalsWords = (t: LedgerTotals): string =>
  `${counted(t.cases, 'case', 'cases')}, ${t.open} open · asked ${moneyWords(t.asked)} · we bear ${moneyWords(t.ours)}`;

/** How old open cases are, as bars are called. */
export const AGE_WORDS: readonly string[] = [
  ...AGES.map((limit, i) => (i === 0 ? `up to ${limit} d` : `${(AGES[i - 1] ?? 0) + 1} to ${limit} d`)),
  `over ${AGES.at(-1)} d`,
];

export const GROUP_WORDS: Record<LedgerGroup, string> = {
  waits: 'what they wait for',
  decision: 'decision',
  cause: 'cause',
  engine: 'engine',
  kit: 'kit',
  shop: 'workshop',
  month: 'month opened',
};

/** What the rows of a group have in common. */
export function groupName(by: LedgerGroup, g: RowGroup, today: string): string {
  if (by === 'decision') return decisionWords(g.key);
  if (g.key === '') return by === 'cause' ? 'no cause decided' : `no ${by === 'shop' ? 'workshop' : by} told`;
  if (by === 'cause') return causeWords(g.key);
  if (by === 'month') return formatMonth(`${g.key}-01`);
  const [first] = g.rows;
  // As it was written: what groups them is in small letters.
  if (by === 'shop' && first) return (first.who.split(',').at(-1) ?? '').trim();
  if (by === 'waits' && first) return waitsWords({ waits: first.waits }, today);
  return g.key;
}
