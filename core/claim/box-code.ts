import { caseMark } from '@core/fitting/sheet-return';

/** What the square code on a box or a part says: the mark of its case, and which part it is. */
export type BoxCode = { mark: string; thing?: string };

/** Labels beside and below each other on a sheet. */
export const LABEL_SHEET = { across: 2, down: 6, places: 12 } as const;

/** Only signs that a scanner types alike on every keyboard. */
const FORM = /^hsbox\|([0-9a-f]{10})(?:\|([a-z0-9-]{1,60}))?$/;

/** "HSBOX|<mark of the case>|<part>"; the box as a whole names no part. */
export const boxCode = (caseId: string, thing?: string): string =>
  ['HSBOX', caseMark(caseId), ...(thing === undefined ? [] : [thing])].join('|');

/** What a scanned or typed code names, large letters for small ones too; undefined where it is none of ours. */
export function readBoxCode(text: string): BoxCode | undefined {
  const m = FORM.exec(text.trim().toLowerCase());
  if (!m) return undefined;
  const [, mark = '', thing] = m;
  return { mark, ...(thing === undefined ? {} : { thing }) };
}

/** The case that a code is of, among those that are here. */
export const caseOfCode = <T extends { id: string }>(code: BoxCode, cases: readonly T[]): T | undefined =>
  cases.find((c) => caseMark(c.id) === code.mark);
