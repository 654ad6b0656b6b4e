import { lastPer } from '@core/quantity/keep';
import { found, nth, num } from '@core/quantity/must';
import Papa from 'papaparse';
import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { err, ok, type Result } from '@core/quantity/result';
import type { CauseData } from './cause-data';
import { type KnowledgeIssue, lintKnowledge } from './lint';
import { numbersOf, numberRange, withNumbers } from './numbers';

/** One number that the house sees otherwise, with its ground; without a value it goes back to what ships. Changes are only ever added. */
const ChangeSchema = z.strictObject({
  place: z.string().min(1).max(300),
  value: z.number().nullable(),
  ground: z.string().trim().min(1).max(500),
  by: z.string().min(1).max(120),
  at: z.iso.datetime(),
});
export type Change = Readonly<z.infer<typeof ChangeSchema>>;
export const ChangesSchema = z.array(ChangeSchema).max(20_000);

/** Why a change cannot be: its number in the list, and the reason. */
export type ChangeProblem = { index: number; place: string } & (
  | { code: 'no_such_number' }
  | { code: 'out_of_range'; value: number; from: number; to: number }
  | { code: 'inconsistent'; issue: KnowledgeIssue }
);

/** Of each place the change that holds. */
export function holding(changes: readonly Change[]): ReadonlyMap<string, Change> {
  const out = new Map<string, Change>();
  for (const c of changes)
    if (c.value === null) out.delete(c.place);
    else out.set(c.place, c);
  return out;
}

/** The changes before the last act: what was seen at one and the same time was one. */
export function beforeLast(changes: readonly Change[]): readonly Change[] {
  const last = changes.at(-1)?.at;
  return changes.filter((c) => c.at !== last);
}

/** What takes the last act back: each of its places as it was before. The history keeps both. */
export function takingBack(
  changes: readonly Change[],
  ground: string,
): Pick<Change, 'place' | 'value' | 'ground'>[] {
  const before = holding(beforeLast(changes));
  const last = changes.at(-1)?.at;
  const places = new Set(changes.filter((c) => c.at === last).map((c) => c.place));
  return [...places].map((place) => ({ place, value: before.get(place)?.value ?? null, ground }));
}

const kept = lastPer<readonly Change[], { of: CauseData; knowledge: CauseData }>();
/** The knowledge as the house sees it: one and the same for the same list of changes. They have been checked. */
export function knowledgeWith(shipped: CauseData, changes: readonly Change[]): CauseData {
  return kept(
    changes,
    (before) => before.of === shipped,
    () => {
      const values = new Map([...holding(changes)].map(([place, c]) => [place, found(c.value)] as const));
      return { of: shipped, knowledge: withNumbers(shipped, values) };
    },
  ).knowledge;
}

/** Checks changes on top of each other: every place has to be there, every number within its range, and what comes of them whole. */
export function checkChanges(shipped: CauseData, changes: readonly Change[]): Result<true, ChangeProblem> {
  const numbers = numbersOf(shipped);
  for (const [index, { place, value }] of changes.entries()) {
    const number = numbers.get(place);
    if (!number) return err({ code: 'no_such_number', index, place });
    const [from, to] = numberRange(number);
    if (value !== null && !(value > from && value < to))
      return err({ code: 'out_of_range', index, place, value, from, to });
  }
  const issueOf = (n: number) => lintKnowledge(knowledgeWith(shipped, changes.slice(0, n)), () => true)[0];
  if (!issueOf(changes.length)) return ok(true);
  // the first change with which it goes wrong; a later one may mend it, which is no better reading
  let [good, bad] = [0, changes.length];
  while (bad - good > 1) {
    const middle = (good + bad) >> 1;
    if (issueOf(middle)) bad = middle;
    else good = middle;
  }
  return err({
    code: 'inconsistent',
    index: bad - 1,
    place: nth(changes, bad - 1).place,
    issue: found(issueOf(bad)),
  });
}

const COLUMNS = ['place', 'value', 'ground', 'by', 'at'] as const;
/** Changes as rows of a table, the oldest first; an empty value goes back to what ships. */
export const changeRows = (changes: readonly Change[]): (string | number)[][] => [
  [...COLUMNS],
  ...changes.map((c) => COLUMNS.map((k) => c[k] ?? '')),
];

/** Why a file of changes is refused: the line, and the reason. */
export type ChangesFileError = { line: number } & (
  | { code: 'no_columns'; missing: string[] }
  | { code: 'bad_cell'; column: string; cell: string }
  | { code: 'refused'; problem: ChangeProblem }
);

/** Reads what {@link changeRows} became as CSV. Nothing of it is taken when a line is refused. */
export function readChanges(shipped: CauseData, text: string): Result<Change[], ChangesFileError> {
  const { data, meta } = Papa.parse<Record<string, string>>(
    text.replace(/^\uFEFF/, '').replace(/\r\n?/g, '\n'),
    {
      header: true,
    },
  );
  const missing = COLUMNS.filter((c) => !(meta.fields ?? []).includes(c));
  if (missing.length > 0) return err({ code: 'no_columns', line: 1, missing });
  const changes: Change[] = [];
  const lines: number[] = [];
  for (const [i, row] of data.entries()) {
    // empty lines are counted, so that a refusal names the line of the file
    if (Object.values(row).every((c) => c.trim() === '')) continue;
    lines.push(i + 2);
    const cell = (row['value'] ?? '').trim();
    const unquoted = (s: string | undefined) => (s ?? '').replace(/^'(?=[=+\-@\t\r])/, '');
    const read = ChangeSchema.safeParse({
      place: unquoted(row['place']),
      value: cell === '' ? null : Number(cell),
      ground: unquoted(row['ground']),
      by: unquoted(row['by']),
      at: row['at'] ?? '',
    });
    if (!read.success) {
      const column = String(read.error.issues[0]?.path[0] ?? 'value');
      return err({ code: 'bad_cell', line: i + 2, column, cell: row[column] ?? '' });
    }
    changes.push(read.data);
  }
  const checked = checkChanges(shipped, changes);
  return checked.ok
    ? ok(changes)
    : err({ code: 'refused', line: num(lines, checked.error.index), problem: checked.error });
}
