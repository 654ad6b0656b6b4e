import type { Observable } from '@core/facts/observable';
import { CLAIM_NUMBER, columnName } from '@core/intake/claims-form';
import { type ClaimsForm } from '@core/intake/kept-form';
import type { CellError, CellProblem, RowState, Stopped } from '@core/intake/claims-table';
import { formatNumber } from '@core/quantity/format-quantity';
import { counted } from '../language/plural';
import type { TableTrouble } from '../workers/claims.protocol';
import { readSentence } from './reading';

/** What a column of a claims table can be, as it is picked. */
export const columnWords = (o: Observable): string =>
  o.type.kind === 'number' && o.type.dimension === 'money' ? `${o.wording}, AC` : o.wording;
export const CURRENCY_WORDS = 'Currency of the amounts';
export const NOT_READ = 'kept as a note';

export const ORDER_WORDS: Record<ClaimsForm['dateOrder'], string> = {
  dmy: 'day.month.year',
  mdy: 'month/day/year',
  ymd: 'year-month-day',
};
export const DECIMAL_WORDS: Record<ClaimsForm['decimal'], string> = {
  '.': 'point: 1,234.50',
  ',': 'comma: 1.234,50',
  '': 'not told by the table',
};

/** Why a cell was not read, behind the heading of its column. */
export const cellTrouble = (p: CellProblem, head: readonly string[]): string =>
  `${columnName(head, p.column)}: ${cellSentence(p.why)}`;

function cellSentence(e: CellError): string {
  switch (e.code) {
    case 'either_sign':
      return `“${e.typed}” may be thousands or a fraction. Choose the decimal sign of this table.`;
    case 'wrong_sign':
      return `“${e.typed}” is not written with a decimal ${e.sign === '.' ? 'point' : 'comma'}, as this table is said to be.`;
    case 'other_currency':
      return `the amount is in ${e.typed}; this desk counts in ${e.own}. Put it in ${e.own} into the table.`;
    default:
      return readSentence(e);
  }
}

export function stoppedWords(s: Stopped): string {
  return s.code === 'no_claim'
    ? 'No claim number in this row.'
    : `The same claim as in row ${s.first}: one case is opened, from that row.`;
}

export const STATE_WORDS: Record<RowState, string> = {
  ready: 'ready',
  gaps: 'with gaps',
  stopped: 'not to be opened',
  here: 'here already',
};

/** What a table holds, in a sentence. */
export function claimsWords(counts: Record<RowState, number>): string {
  const all = Object.values(counts).reduce((a, b) => a + b, 0);
  const parts = (['ready', 'gaps', 'stopped', 'here'] as const).flatMap((s) =>
    counts[s] > 0 ? [`${formatNumber(counts[s], 0)} ${STATE_WORDS[s]}`] : [],
  );
  return `${counted(all, 'row', 'rows')}: ${parts.join(', ')}`;
}

/** Whether the table says which claim each row is of. */
export const namesNoClaim = (form: ClaimsForm): boolean => !form.columns.includes(CLAIM_NUMBER);

/** Why a table was not read. */
export function tableSentence(e: TableTrouble): string {
  const mb = (n: number) => `${Math.ceil(n / 1e6)} MB`;
  switch (e.code) {
    case 'file_too_large':
      return `${e.name} has ${mb(e.bytes)}; ${mb(e.most)} are read at most. Save a part of it as a file of its own.`;
    case 'too_many_entries':
      return `${e.name} is no workbook that is read here: it holds more than ${e.most} parts.`;
    case 'unpacks_too_large':
      return `${e.name} unpacks to more than ${mb(e.most)}. Save the sheet with the claims as CSV.`;
    case 'broken_zip':
    case 'broken_workbook':
      return `${e.name} is no whole workbook (${e.detail}). Save it again, or save the sheet as CSV.`;
    case 'no_rows':
      return `${e.name} has no rows. The sheet with the claims needs a heading and a row for each claim.`;
    case 'too_many_rows':
      return `${e.name} has ${formatNumber(e.rows, 0)} rows; ${formatNumber(e.most, 0)} are read at most. Save a part of it as a file of its own.`;
    case 'no_catalogue':
      return 'There is no catalogue here yet, so kits and engines of the table mean nothing. Bring a catalogue in first.';
    case 'broken_off':
      return `Reading ended before it was done (${e.detail || 'no reason told'}). Choose the file again.`;
  }
}
