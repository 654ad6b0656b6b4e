import { p256 } from '@noble/curves/nist.js';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, hexToBytes, utf8ToBytes } from '@noble/hashes/utils.js';
import type { Fact } from '@core/facts/fact';
import { lastPer } from '@core/quantity/keep';
import { asStructured, plainText, type StructuredAs } from '@core/facts/value';
import type { State } from '@core/facts/state';

/** The fact that holds who signed an issue. */
export const SIGNED = 'report.signed';
/** Who signed an issue, by their public key, and whether the signature holds for it. */
export type Signature = { key: string; code: string; holds: boolean };

/** Whose key it is, as far as a desk knows. */
export type Signer = { is: 'this_desk' } | { is: 'known'; name: string } | { is: 'unknown' };

/** What is signed of an issue: which fact of which case, and its digest. */
export const signedText = (seal: Pick<Fact, 'id' | 'case' | 'value'>): string =>
  [
    'hollow-sprocket:signature',
    encodeURIComponent(seal.case),
    encodeURIComponent(seal.id),
    plainText(seal.value),
  ].join(':');

/** A public key as people compare it: the first sixteen signs of its SHA-256, in fours. */
export const keyCode = (key: string): string =>
  (
    bytesToHex(sha256(hexToBytes(key)))
      .slice(0, 16)
      .match(/.{4}/g) ?? []
  ).join(' ');

const checked = lastPer<Fact, { of: Fact; holds: boolean }>();

/** Every signature of an issue that was not withdrawn, one a key. */
export function signaturesOf(state: State, seal: Fact): Signature[] {
  const struck = new Set(state.log.flatMap((f) => f.strikes ?? []));
  const out = new Map<string, Signature>();
  for (const f of state.log) {
    const s = f.key === SIGNED && !struck.has(f.id) ? asStructured('signature', f.value) : undefined;
    if (s?.seal !== seal.id) continue;
    const same = (known: { of: Fact }) => known.of === seal;
    const { holds } = checked(f, same, () => ({ of: seal, holds: verified(s, seal) }));
    if (holds || !out.has(s.key)) out.set(s.key, { key: s.key, code: keyCode(s.key), holds });
  }
  return [...out.values()];
}

/** ECDSA over P-256 with SHA-256 (FIPS 186-5); key uncompressed (65 bytes), signature r then s (64 bytes), both hex. */
function verified({ key, signature }: StructuredAs<'signature'>, seal: Fact): boolean {
  try {
    return p256.verify(hexToBytes(signature), utf8ToBytes(signedText(seal)), hexToBytes(key), {
      lowS: false,
    });
  } catch {
    // a key that is no point of the curve signed nothing
    return false;
  }
}
