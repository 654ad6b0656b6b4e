import type { Life, Looked, Signal } from '@core/patterns/look';
import type { Interval } from '@core/patterns/rates';
import type { SignalReading, ReadingKind } from '@core/patterns/readings';
import { PATTERN_LIMITS } from '@core/patterns/limits';
import type { Assumed, SoldRow } from '@core/patterns/population';
import type { StoppedEntry } from '@core/patterns/stopped';
import type { ToCome } from '@core/patterns/to-come';
import { SOLD_COLUMNS, type SoldClash, type SoldColumn, type SoldFault } from '@core/patterns/read-sold';
import { type DateForm, dayOf, formatDay } from '@core/quantity/dates';
import { formatNumber } from '@core/quantity/format-quantity';
import { list } from '../language/list';
import { counted } from '../language/plural';
import { percent } from './answers';
import { faultWording } from './fitting';
import { roughMoneyWords } from './money';

const n0 = (v: number): string => formatNumber(v, 0);
const n1 = (v: number): string => formatNumber(v, v < 10 ? 1 : 0);
const between = (i: Interval, of: (v: number) => string): string =>
  `${of(i.from)} to ${i.to === Infinity ? 'no bound' : of(i.to)}`;
export const intervalWords = (i: Interval, unit = ''): string => `${between(i, n1)}${unit}`;

/** A workshop's name as a letter writes it: cases know it in small letters. */
export const shopWords = (shop: string): string =>
  shop.replace(/(^|[\s-])\p{Ll}/gu, (start) => start.toUpperCase());

/** What stands out, in one sentence, with its interval. */
export function signalWords(s: Signal): string {
  if (s.kind === 'lot')
    return `Lot ${s.row.lot} of ${s.row.kit} comes back ${n1(s.row.ratio)} times as often as the kit’s other lots (${between(s.row.interval, n1)}).`;
  const { row } = s;
  const share = `${row.faults} of ${row.of} returns (${percent(row.share)}; elsewhere ${percent(row.otherShare)})`;
  return s.kind === 'shop'
    ? `${shopWords(row.shop ?? '')}: “${faultWording(row.code)}” on ${share}.`
    : `${row.kit ?? ''}, step “${row.step}”: “${faultWording(row.code)}” on ${share}, at ${counted(row.shops, 'workshop', 'workshops')}.`;
}

/** What the whole comes to: how much was looked at, and what stands out of it. */
export function patternsOpening(l: Looked): { says: string; next: string } {
  const of = `${n0(l.returns)} ${l.returns === 1 ? 'return' : 'returns'}${l.sold > 0 ? ` of ${n0(l.sold)} sold` : ''}`;
  if (l.returns === 0) return { says: 'Nothing came back that names its kit.', next: '' };
  const [first] = l.signals;
  return first
    ? {
        says: `${counted(l.signals.length, 'pattern stands', 'patterns stand')} out among ${of}.`,
        next: `Read ${l.signals.length === 1 ? 'it' : 'each'} three ways before anybody is told.`,
      }
    : {
        says: `Nothing stands out among ${of}.`,
        next:
          l.sold === 0
            ? 'Lots cannot be judged before it is known how many were sold.'
            : 'Lots, workshops and steps differ no more than chance brings.',
      };
}

export const SIGNAL_KIND: Record<Signal['kind'], string> = { lot: 'Lot', shop: 'Workshop', step: 'Step' };

/** A way to read a signal, and how its returns lie by it. */
export function signalReadingWords(r: SignalReading): { name: string; lies: string; parts: string } {
  const name = { lot: 'One lot', shop: 'One workshop', design: 'The design or its sheet' }[r.kind];
  const lies =
    r.name === ''
      ? 'None has more than its part.'
      : `${r.name}: ${counted(r.seen, 'return', 'returns')} of ${n0(r.of)}, ${n1(r.expected)} to be expected.`;
  return { name, lies, parts: PARTS[r.kind] };
}
/** What would part this reading from the other two. */
const PARTS: Record<ReadingKind, string> = {
  lot: 'Units of the same lot from other workshops, and the kept samples of the lot, tell it from the other two.',
  shop: 'Its returns of other kits and lots, and what others have with the same lot, tell it from the other two.',
  design:
    'The same step on other kits, and workshops that work by another sheet, tell it from the other two.',
};

/** A life in a few lines: shape and what it means, the time by which a tenth came back. */
export function lifeWords(l: Life): string[] {
  const { figures: f, refused } = l;
  if (!f) return [REFUSED[refused?.code ?? 'no_failures']];
  const shape = f.shape.likelihood;
  const means =
    shape.to < 1
      ? 'They fail early: a fault of making or fitting, less often as time goes on.'
      : shape.from > 1
        ? 'They wear out: more often as time goes on.'
        : 'They may as well fail by chance: whether it comes early or late is not settled.';
  const out = [
    means,
    `A tenth has come back after ${n1(f.b10.value)} months (${between(f.b10.likelihood, n1)}).`,
  ];
  if (f.b10.likelihood.to > 10 * f.b10.likelihood.from)
    out.push('That says little: too few failed against what still runs.');
  if (l.two)
    out.push(
      `Two populations are mixed: ${percent(l.two.share)} with a life about ${n0(l.two.early)} months, the others ${n0(l.two.late)}.`,
    );
  return out;
}
const REFUSED: Record<NonNullable<Life['refused']>['code'], string> = {
  no_failures: 'Nothing came back of it, so no life can be fitted.',
  all_tied: 'All came back at one age and nothing outlived it: any steep life fits, so none is told.',
  bad_time: 'A row has a time that is none.',
};

export const SOLD_COLUMN_WORDS: Record<SoldColumn, string> = {
  kit: 'Kit',
  lot: 'Lot',
  month: 'Month of sale',
  market: 'Market',
  sold: 'Number sold',
  made: 'Made on',
};
export const lackingWords = (columns: readonly SoldColumn[]): string =>
  `No column was found for: ${list(SOLD_COLUMNS.filter((c) => columns.includes(c)).map((c) => SOLD_COLUMN_WORDS[c].toLowerCase()))}. Say which it is.`;

/** Why a row cannot be taken. */
export function soldFaultWords(f: SoldFault): string {
  switch (f.code) {
    case 'empty':
      return `${SOLD_COLUMN_WORDS[f.column]} is empty.`;
    case 'bad_month':
      return `“${f.text}” is no month; write 2026-03 or 03/2026.`;
    case 'bad_day':
      return `“${f.text}” is no day.`;
    case 'bad_count':
      return `“${f.text}” is no whole number.`;
    case 'negative':
      return `${f.text} were sold: credits belong into a table of their own.`;
    case 'before_made':
      return `Sold in ${f.month}, before it was made on ${f.made}.`;
    case 'later':
      return `${f.month} is later than today.`;
    case 'twice':
      return `The same kit, lot, month and market as row ${f.first}.`;
  }
}
export const clashWords = (c: SoldClash): string =>
  c.code === 'more_back'
    ? `Lot ${c.lot} of ${c.kit}: ${c.back} came back of ${c.sold} sold.`
    : `Lot ${c.lot} of ${c.kit}, of which ${c.tags.length === 1 ? 'case' : 'cases'} ${list(c.tags.slice(0, 5))} came back, was not sold by this table.`;

/** What is still to come of a lot, with its interval and what it would cost. */
export const toComeWords = (c: ToCome): string =>
  `${n1(c.returns)} more to be expected within ${c.months} months (${between(c.interval, n1)}) of ${n0(c.running)} still running, by the life of the ${c.by}${c.cost === undefined ? '' : `; about ${roughMoneyWords(c.cost)}`}.`;

/** What the lot of a case came to, against the others of its kit. */
export const lotOfCaseWords = (
  lot: string,
  l: { returns: number; expected: number; ratio: number; interval: Interval },
): string =>
  `Lot ${lot}, without this case: ${n0(l.returns)} came back, ${n1(l.expected)} to be expected${Number.isFinite(l.ratio) ? `; ${n1(l.ratio)} times as often as the others (${between(l.interval, n1)})` : ''}.`;

/** That it weighs in the causes of its case, and by how much. */
export const lotWeighsWords = (lot: string, times: number, by: number): string =>
  `Lot ${lot} weighs in: it comes back at least ${n1(times)} times as often as the others of its kit, so what the supplier bears counts ${n1(by)} times as common here.`;

/** That a lot is stopped, since when, by whom and why. */
export const stopWords = (s: StoppedEntry, order: DateForm): string =>
  `Lot ${s.lot} of ${s.kit} is stopped since ${formatDay(dayOf(s.at), order)}, by ${s.by}: ${s.reason}`;

const ASSUMED_WORDS: Record<keyof Assumed, { name: string; unit: string }> = {
  shelfMonths: { name: 'The time on a shelf', unit: 'months' },
  kmPerMonth: { name: 'What a vehicle runs', unit: 'km a month' },
};
/** How far something that is taken for granted can be changed. */
export function assumedBounds(key: keyof Assumed): string {
  const { from, to } = PATTERN_LIMITS.assumed[key];
  const { name, unit } = ASSUMED_WORDS[key];
  return `${name} is ${n0(from)} to ${n0(to)} ${unit}.`;
}

/** How much was brought in of what was sold. */
export function soldWords(sold: readonly SoldRow[]): string {
  if (sold.length === 0) return 'Nothing yet: a row for each kit, lot and month, with how many were sold.';
  const units = sold.reduce((s, r) => s + r.sold, 0);
  return `${counted(sold.length, 'row', 'rows')}, ${n0(units)} units of ${counted(new Set(sold.map((r) => r.kit)).size, 'kit', 'kits')}.`;
}
