/**
 * Order of two versions, as versions: numbers as numbers, words as words, more places come later.
 * Negative when a comes before b. @example compareVersions('2026.3.10', '2026.3.9') // 1
 */
export function compareVersions(a: string, b: string): number {
  const [x, y] = [places(a), places(b)];
  for (let i = 0; i < Math.max(x.length, y.length); i++) {
    const [p, q] = [x[i], y[i]];
    if (p === undefined) return -1;
    if (q === undefined) return 1;
    const numbers = /^\d+$/.test(p) && /^\d+$/.test(q);
    const order = numbers ? Math.sign(Number(p) - Number(q)) : p < q ? -1 : p > q ? 1 : 0;
    if (order !== 0) return order;
  }
  return 0;
}

const places = (version: string): string[] => version.match(/\d+|[a-z]+/gi) ?? [];

/** Newest first: by day of issue, then by version. */
export const newerFirst = (
  a: { issued: string; version: string },
  b: { issued: string; version: string },
): number => (a.issued < b.issued ? 1 : a.issued > b.issued ? -1 : compareVersions(b.version, a.version));

/** Name and version as one text; cases name the pack they answer with by it. */
export const packId = (pack: { name: string; version: string }): string => `${pack.name} ${pack.version}`;

/** A catalogue as the next one of its name: another version, issued today, or when the one before was where that is later. */
export const asNext = <T extends { version: string; issued: string }>(pack: T, day: string): T => ({
  ...pack,
  version: nextVersion(pack.version),
  issued: pack.issued > day ? pack.issued : day,
});

/** "2026.3" → "2026.3.1" → "2026.3.2". */
export function nextVersion(version: string): string {
  const m = /^(.*\..*\.)(\d+)$/.exec(version);
  return m ? `${m[1] ?? ''}${Number(m[2]) + 1}` : `${version}.1`;
}
