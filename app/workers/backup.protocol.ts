import type { BackupList } from '@core/claim/backup';
import type { DeskFileError } from '@core/claim/desk-file';
import type { ShapeError } from '@core/claim/read-shape';
import type { Result } from '@core/quantity/result';
import type { DeskCame, DeskCameError } from './intake.protocol';
import type { UnpackError } from './unpack';

export type BackupAsk = { at: string; drafts: Record<string, string> };
/** So many of so many pieces of it: cases' facts, catalogues, files. */
export type BackupProgress = { done: number; of: number };

/** What came of a restored backup. */
export type BackupCame = DeskCame & {
  packs: string[];
  extracts: string[];
  files: number;
  /** Files whose content is not what their name says, or that are not in it: left. */
  badFiles: string[];
  /** Catalogues that are none, or have a fault: left. */
  badPacks: string[];
  /** Why cases of some of its desk files are not here; those of the others are. */
  refused: DeskCameError[];
};
export type RestoreError =
  | UnpackError
  | ShapeError
  | DeskCameError
  | { code: 'no_list' }
  /** One of the files that hold its facts is not in it, or is none. */
  | { code: 'bad_desk'; name: string; why: DeskFileError | undefined };

/** What is asked of the thread that writes and reads backups. */
export type BackupJobs = {
  /** Everything of this browser as one zip. */
  save: { input: BackupAsk; progress: BackupProgress; output: { blob: Blob; list: BackupList } };
  /** What a backup holds; nothing is taken in. */
  look: { input: { name: string; blob: Blob }; progress: never; output: Result<BackupList, RestoreError> };
  /** Takes a backup in, merged with what is here: the cases of each of its desk files in one write. */
  restore: {
    input: { name: string; blob: Blob };
    progress: BackupProgress;
    output: Result<BackupCame, RestoreError>;
  };
};
