import type { TableDiff } from '@core/catalogue/diff-packs';
import type { PackIssue } from '@core/catalogue/pack-issue';

/** What the page and the import thread say to each other. Cancel: the page ends the thread; nothing was written yet. */
export type ImportProgress = { step: string; done: number; total: number };
export type ImportPreview = {
  id: string;
  name: string;
  version: string;
  issued: string;
  source: string;
  diff: TableDiff[];
  against: string | undefined;
  /** The first thousand; `issueCount` counts all. */
  issues: PackIssue[];
  issueCount: number;
  /** A pack of this name and version is here with other content. */
  versionTaken: boolean;
};
export interface PackImport {
  /** Reads and checks; writes nothing. */
  read(files: File[], progress: (p: ImportProgress) => void): Promise<ImportPreview>;
  /** Writes the pack that was read without a fault, in one transaction; returns its id. */
  take(): Promise<string>;
}
