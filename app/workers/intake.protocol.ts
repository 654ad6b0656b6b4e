import type { BundleError } from '@core/claim/bundle';
import type { CaseFileError, ReadCase } from '@core/claim/case-file';
import type { DeskFileError } from '@core/claim/desk-file';
import type { MergeError } from '@core/facts/change';
import type { FactsError } from '@core/facts/consistent';
import type { Result } from '@core/quantity/result';
import type { Damaged } from '../records/damaged';
import type { FileRecord } from '../records/records';
import type { UnpackError } from './unpack';

/** A case that came in, read whole, with the files of its bundle. */
export type CaseCame = {
  read: ReadCase;
  files: FileRecord[];
  /** Files that its facts point to, whether they came along or not. */
  refs: number;
  /** Pictures that came with more than what draws them. */
  uncleaned: string[];
};
export type CaseCameError = CaseFileError | BundleError | UnpackError;

/** What came of a desk file: what is on the rack now, and what could not stand. */
export type DeskCame = {
  cases: string[];
  left: Damaged[];
  drafts: Readonly<Record<string, string>>;
};
/** `foreign`: a fact of it belongs to another case here; `cut`: it was stopped, and nothing was written. */
export type DeskCameError =
  | DeskFileError
  | { code: 'foreign'; id: string }
  | { code: 'no_merge'; case: string; why: MergeError | FactsError }
  | { code: 'cut' };

/** What the page asks of the thread that reads what came in. */
export type IntakeJobs = {
  case: { input: { name: string; blob: Blob }; progress: never; output: Result<CaseCame, CaseCameError> };
  /** All of it in one write, or nothing; progress: cases read, of so many. */
  desk: { input: Blob; progress: { done: number; of: number }; output: Result<DeskCame, DeskCameError> };
};
