import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import { canonical } from './canonical';
import type { Fact } from './fact';

/**
 * SHA-256 (FIPS 180-4), lower-case hex, of the facts sorted by id, each written canonically, joined by line feeds.
 * The order in which facts were stored does not matter; any change of any field does.
 */
export function factsDigest(facts: readonly Fact[]): string {
  const lines = [...facts].sort((a, b) => (a.id < b.id ? -1 : 1)).map(canonical);
  return bytesToHex(sha256(utf8ToBytes(lines.join('\n'))));
}

/** SHA-256, lower-case hex, of any content written canonically. */
export const contentDigest = (content: unknown): string =>
  bytesToHex(sha256(utf8ToBytes(canonical(content))));
