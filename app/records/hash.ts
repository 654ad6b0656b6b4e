import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';

/** SHA-256 of a content, lower-case hex. By the browser where it offers that, which it does not on every address. */
export async function hashOf(bytes: Uint8Array<ArrayBuffer>): Promise<string> {
  const subtle = (globalThis.crypto as Crypto | undefined)?.subtle;
  return bytesToHex(subtle ? new Uint8Array(await subtle.digest('SHA-256', bytes)) : sha256(bytes));
}
