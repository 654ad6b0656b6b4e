import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { canonical } from '@core/facts/canonical';
import { type Fact, FactSchema } from '@core/facts/fact';
import { isPractice } from '@core/facts/practice';
import { err, ok, type Result } from '@core/quantity/result';

/** Facts of one entry at most: what is sent, checked and written at once. */
export const MOST_IN_ENTRY = 2000;
/** What stands before the first entry of a log. */
export const GENESIS = '0'.repeat(64);

const Hash = z.string().regex(/^[0-9a-f]{64}$/);
/** Name of a log: the desk that writes it, and which of its logs it is. */
export const LogName = z.string().regex(/^[0-9a-z][0-9a-z-]{3,60}$/);

/** Where a log ends, or how far a desk read it. */
const HeadSchema = z.strictObject({ seq: z.number().int().min(1).max(1e12), hash: Hash });
export type LogHead = Readonly<z.infer<typeof HeadSchema>>;
/** Logs by name, each with where it ends. */
export const HeadsSchema = z.record(LogName, HeadSchema);
export type Heads = Readonly<z.infer<typeof HeadsSchema>>;

/**
 * Facts that a desk put on the shelf at once. A log is what one desk put there, entry after entry from 1 on; each names the hash of the one
 * before, so that one that was changed, left out or put between is seen.
 */
const EntrySchema = z.strictObject({
  log: LogName,
  seq: z.number().int().min(1).max(1e12),
  prev: Hash,
  facts: z
    .array(FactSchema)
    .min(1)
    .max(MOST_IN_ENTRY)
    .refine((facts) => new Set(facts.map((f) => f.id)).size === facts.length, 'a fact is there twice')
    .refine((facts) => !facts.some((f) => isPractice(f.case)), 'a return for practice never goes to a shelf'),
  hash: Hash,
});
export type Entry = Readonly<z.infer<typeof EntrySchema>>;

/** Why an entry is none. */
export type EntryError =
  | { code: 'wrong'; at: string; why: string }
  /** Its hash is not that of what it holds. */
  | { code: 'altered'; log: string; seq: number };

/** SHA-256 over the log, the number, the hash of the entry before and the facts, each as canonical JSON (RFC 8785), a line each. */
export const entryHash = (e: Omit<Entry, 'hash'>): string =>
  bytesToHex(
    sha256(
      utf8ToBytes(
        ['hollow-sprocket:entry', e.log, String(e.seq), e.prev, ...e.facts.map((f) => canonical(f))].join(
          '\n',
        ),
      ),
    ),
  );

/** The entry that follows on a log's end. @param end none: the log begins */
export function nextEntry(log: string, end: LogHead | undefined, facts: readonly Fact[]): Entry {
  const open = { log, seq: (end?.seq ?? 0) + 1, prev: end?.hash ?? GENESIS, facts: [...facts] };
  return { ...open, hash: entryHash(open) };
}

/** An entry as it came from outside: of the right shape, and holding what its hash says. */
export function readEntry(came: unknown): Result<Entry, EntryError> {
  const read = EntrySchema.safeParse(came);
  if (!read.success) {
    const at = read.error.issues[0];
    return err({ code: 'wrong', at: at?.path.join('.') ?? '', why: at?.message ?? '' });
  }
  const entry = read.data;
  return entryHash(entry) === entry.hash
    ? ok(entry)
    : err({ code: 'altered', log: entry.log, seq: entry.seq });
}

/** Whether an entry is the one after what was read of its log. */
export const follows = (e: Pick<Entry, 'seq' | 'prev'>, end: LogHead | undefined): boolean =>
  e.seq === (end?.seq ?? 0) + 1 && e.prev === (end?.hash ?? GENESIS);

export const endOf = ({ seq, hash }: Pick<Entry, 'seq' | 'hash'>): LogHead => ({ seq, hash });
