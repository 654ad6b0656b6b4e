import type { Notation } from '@core/facts/read-value';
import type { TextError } from '@core/intake/read-text';
import type { TaughtWord } from '@core/intake/taught-words';

export type MailboxAsk = {
  /** What came in, files or what was pasted. */
  blobs: Blob[];
  notation: Notation;
  today: string;
  chosen: Record<string, string>;
  taught: TaughtWord[];
};
/** What was read of a message: facts that would be ticked, and asked; vehicles it tells of; what it names. */
type MailRead = { taken: number; asked: number; cases: number; engine: string; claim: string };
/** A message of a mailbox. */
export type Mail = {
  no: number;
  /** As a case keeps it: heading and words. */
  text: string;
  from: string;
  subject: string;
  /** How its own words begin. */
  begins: string;
  /** Day it was sent; '' where it does not say. */
  day: string;
  read: MailRead | TextError | { code: 'broken' };
  /** Photographs, captures and papers that came with it. */
  files: { name: string; type: string; bytes: Uint8Array<ArrayBuffer> }[];
  /** Case that has this message already, or its claim. */
  here?: { id: string; by: 'message' | 'claim' };
};
/** `left`: messages behind the last that is read at once. */
export type MailboxAnswer = { mails: Mail[]; left: number };
/** Messages that are read at once, and bytes that one mailbox may have. */
export const MOST_MAILS = 2000;
export const MOST_MAILBOX_BYTES = 64 * 1024 * 1024;
