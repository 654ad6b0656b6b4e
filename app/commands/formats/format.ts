import type { CaseFile } from '@core/claim/case-file';
import type { FileRecord } from '../../records/records';
import type { CaseView } from '../../data/case-view';

/** What lies beside a case in its file: files that are not in this browser, and the digest of its report. */
export type Beside = { missing?: readonly string[]; report?: string | undefined };
/** What the desk lends to a format. */
type Lent = {
  /** The case as its open file; undefined where it cannot be written, which is said. */
  file: (view: CaseView, beside?: Beside) => CaseFile | undefined;
  kept: (hash: string) => Promise<FileRecord | undefined>;
  /** The issued report, when what is known is sealed. */
  report: (view: CaseView) => Promise<Uint8Array<ArrayBuffer> | undefined>;
};
/** One form in which a case leaves: a file of this folder, and its line in `case-exports.ts`. */
export type CaseFormat = {
  name: string;
  /** What is in it. */
  says: string;
  /** What is saved, with what has to be said of it; undefined where nothing can be. */
  write: (
    view: CaseView,
    lent: Lent,
  ) => Promise<{ name: string; content: Blob; remark?: string } | undefined>;
};

/** Any content as an open file that can be read. */
export const jsonBlob = (content: unknown): Blob =>
  new Blob([JSON.stringify(content, null, 2)], { type: 'application/json' });
