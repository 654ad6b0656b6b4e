import * as z from 'zod';
import '@core/quantity/plain-schemas';
import type { Result } from '@core/quantity/result';
import { readShape, type ShapeError } from './read-shape';

const FORMAT = 'hollow-sprocket-backup';
const Hash = z.string().regex(/^[0-9a-f]{64}$/);

/** Names inside a backup, which is a zip: what it holds, every fact in desk files of whole cases, the first with half-typed text; catalogues, parts of catalogues by case, files by content. */
export const BACKUP = {
  list: 'backup.json',
  desks: 'desk/',
  packs: 'catalogues/',
  extracts: 'parts/',
  files: 'files/',
} as const;

/** What a backup says that it holds, so that it can be looked at before anything is taken in. */
const BackupListSchema = z.strictObject({
  format: z.literal(FORMAT),
  formatVersion: z.literal(1),
  at: z.iso.datetime(),
  cases: z.number().int().nonnegative(),
  facts: z.number().int().nonnegative(),
  /** Desk files that the facts are in. */
  desks: z.number().int().positive().max(10_000),
  /** Records that were damaged, and so are not in it. */
  damaged: z.number().int().nonnegative(),
  packs: z.array(z.string().max(200)).max(1000),
  extracts: z.array(z.string().min(1).max(200)).max(100_000),
  files: z
    .array(z.strictObject({ sha256: Hash, name: z.string().max(200), type: z.string().max(100) }))
    .max(1_000_000),
  /** Settings of the desk by the names under which it keeps them; the key that signs is not among them. */
  settings: z.record(z.string().max(40), z.unknown()),
});
export type BackupList = z.infer<typeof BackupListSchema>;

/** The list as it is written. */
export const backupList = (rest: Omit<BackupList, 'format' | 'formatVersion'>): BackupList => ({
  format: FORMAT,
  formatVersion: 1,
  ...rest,
});
export const readBackupList = (text: string): Result<BackupList, ShapeError> =>
  readShape(text, FORMAT, 1, BackupListSchema);
