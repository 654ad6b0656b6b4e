import type { PackReading } from './read-pack';

/** What was refused and where: code, row, column; for tests. */
export const issueCodes = (r: PackReading): [string, number, string][] =>
  r.issues.map((i) => [i.reason.code, i.row, i.column]);
