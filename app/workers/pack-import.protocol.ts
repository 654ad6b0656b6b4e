import type { RowDifference, TableDiff } from '@core/catalogue/pack-changes';
import type { PackIssue } from '@core/catalogue/pack-issue';
import type { NamedAs } from '@core/catalogue/tables';

/** What the page asks of the import thread. Cancel: the page ends the thread; nothing was written yet. */
export type ImportProgress = { step: string; done: number; total: number };
export type ImportPreview = {
  id: string;
  name: string;
  version: string;
  issued: string;
  source: string;
  diff: TableDiff[];
  /** The first two hundred rows that differ from what is here, field by field. */
  rows: RowDifference[];
  against: string | undefined;
  /** The first thousand; `issueCount` counts all. */
  issues: PackIssue[];
  issueCount: number;
  /** Tables that came in under names that are not known here. */
  unread: string[];
  /** A pack of this name and version is here with other content. */
  versionTaken: boolean;
};
export type PackJobs = {
  /** Reads and checks; writes nothing. */
  read: { input: { files: File[]; as: NamedAs }; progress: ImportProgress; output: ImportPreview };
  /** Writes the pack that was read without a fault, in one transaction; its id. */
  take: { input: undefined; progress: never; output: string };
};
