import type { Rebuilt } from './rebuild-summaries';
import type { RejudgeAnswer, RejudgeAsk } from './rejudge-all';
import type { Cell } from '@core/intake/claims-form';
import type {
  ClaimCellsAnswer,
  ClaimsAnswer,
  ClaimsAsk,
  OpenClaimsAnswer,
  OpenClaimsAsk,
} from './claims.protocol';
import type { MailboxAnswer, MailboxAsk } from './read-mailbox.protocol';
import type { WordsAnswer, WordsAsk } from './words-all';

/** What the page asks of the thread that works on all cases at once. */
export type DeskJobs = {
  /** Makes the summaries of these cases anew, else of all; progress: cases done. */
  rebuild: { input: readonly string[] | undefined; progress: number; output: Rebuilt };
  /** Judges every case under two bodies of knowledge; progress: cases done. */
  rejudge: { input: RejudgeAsk; progress: number; output: RejudgeAnswer };
  /** Reads every kept message with other words of the house; progress: messages done. */
  words: { input: WordsAsk; progress: number; output: WordsAnswer };
  /** Reads every message of a mailbox; progress: percent of them. */
  mailbox: { input: MailboxAsk; progress: number; output: MailboxAnswer };
  /** Reads a table of claims. */
  claims: { input: ClaimsAsk; progress: number; output: ClaimsAnswer };
  /** Opens rows of such a table as cases; progress: cases opened. */
  openClaims: { input: OpenClaimsAsk; progress: number; output: OpenClaimsAnswer };
  /** The cells of some of its rows, as they came. */
  claimCells: { input: ClaimsAsk & { rows: number[] }; progress: number; output: ClaimCellsAnswer };
  /** Writes tables as a workbook, a sheet each. */
  workbook: { input: { sheet: string; rows: Cell[][] }[]; progress: number; output: Blob };
};
