import type { CaseSummary } from '@core/answer/case-summary';
import type { Notation } from '@core/facts/read-value';
import type { Cell, FormGuess } from '@core/intake/claims-form';
import type { ClaimsForm, KeptForm } from '@core/intake/kept-form';
import type { ClaimRow } from '@core/intake/claims-table';
import type { Result } from '@core/quantity/result';
import type { UnpackError } from './unpack';

export type ClaimsAsk = {
  name: string;
  blob: Blob;
  /** How it is to be read, where somebody chose it. */
  form?: ClaimsForm;
  /** How tables were read before. */
  kept: KeptForm[];
  notation: Notation;
  today: string;
};
export type TableTrouble =
  | UnpackError
  | { code: 'broken_workbook'; name: string; detail: string }
  | { code: 'no_rows'; name: string }
  | { code: 'too_many_rows'; name: string; rows: number; most: number }
  | { code: 'no_catalogue' }
  /** The thread ended before it was done. */
  | { code: 'broken_off'; detail: string };
export type ClaimsCame = {
  head: string[];
  /** Of each column, what stands in its first rows. */
  examples: string[][];
  guess: FormGuess;
  rows: ClaimRow[];
  /** What each row says, a line a row. */
  says: string;
  /** Cells of each column that were read, and that could not be. */
  columns: { read: number; refused: number }[];
  /** Cases that have a claim of the table already, by the number of its row. */
  here: [number, string][];
};
export type ClaimsAnswer = Result<ClaimsCame, TableTrouble>;

export type OpenClaimsAsk = ClaimsAsk & {
  form: ClaimsForm;
  /** Numbers of the rows that are to be opened. */
  rows: number[];
  by: string;
  /** When they are opened. */
  at: string;
  /** Number of the first new case. */
  tag: number;
  /** Stands behind each number. */
  mark: string;
};
/** What was opened, row by row: also what was before somebody stopped it. */
export type OpenClaimsAnswer = Result<{ summaries: CaseSummary[]; opened: [number, string][] }, TableTrouble>;
/** The cells of some rows, as they came. */
export type ClaimCellsAnswer = Result<
  { head: string[]; rows: { no: number; cells: Cell[] }[] },
  TableTrouble
>;
