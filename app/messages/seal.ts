/** A digest as people compare it aloud: its first sixteen signs in fours. */
export const fingerprintWords = (digest: string): string =>
  (digest.slice(0, 16).match(/.{4}/g) ?? []).join(' ');
