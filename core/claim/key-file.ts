import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { type Result } from '@core/quantity/result';
import { readShape, type ShapeError } from './read-shape';

const KEY = 'hollow-sprocket-key';
const BACKUP = 'hollow-sprocket-key-backup';
const EDITION = 1;

/** A public key, P-256 uncompressed, lower-case hex. */
const PublicKey = z.string().regex(/^04[0-9a-f]{128}$/);
const Hex = z
  .string()
  .regex(/^([0-9a-f]{2})+$/)
  .max(4096);

/** The public key of a desk, for others that want to know whom an issue is of. */
const KeyFileSchema = z.strictObject({
  format: z.literal(KEY),
  formatVersion: z.literal(EDITION),
  house: z.string().min(1).max(400),
  key: PublicKey,
});
export type KeyFile = z.infer<typeof KeyFileSchema>;

/** A whole key pair under a passphrase: PBKDF2 (RFC 8018) with SHA-256 makes the key, AES-GCM with 256 bits hides the pair (PKCS #8). */
const KeyBackupSchema = z.strictObject({
  format: z.literal(BACKUP),
  formatVersion: z.literal(EDITION),
  house: z.string().min(1).max(400),
  key: PublicKey,
  iterations: z.number().int().min(100_000).max(10_000_000),
  salt: Hex,
  iv: Hex,
  hidden: Hex,
});
export type KeyBackup = z.infer<typeof KeyBackupSchema>;

/** Does a text say that it is a backup of a key pair? */
export const saysKeyBackup = (text: string): boolean => text.slice(0, 400).includes(`"${BACKUP}"`);

/** Reads the public key of a desk. */
export const readKeyFile = (text: string): Result<KeyFile, ShapeError> =>
  readShape(text, KEY, EDITION, KeyFileSchema);
/** Reads a backup; whether its passphrase is right shows only when it is opened. */
export const readKeyBackup = (text: string): Result<KeyBackup, ShapeError> =>
  readShape(text, BACKUP, EDITION, KeyBackupSchema);

export const keyFile = (house: string, key: string): KeyFile => ({
  format: KEY,
  formatVersion: EDITION,
  house,
  key,
});
export const keyBackup = (
  house: string,
  key: string,
  rest: Pick<KeyBackup, 'iterations' | 'salt' | 'iv' | 'hidden'>,
): KeyBackup => ({ ...keyFile(house, key), format: BACKUP, ...rest });
