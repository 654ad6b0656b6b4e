import { nth } from '@core/quantity/must';
import type { Fact } from '@core/facts/fact';
import { reduce } from '@core/facts/state';
import { type Answers, answersFor } from './answers';
import type { World } from './world';

/** One thing that answers say: of what, and what. Numbers are shares between 0 and 1. */
export type AnswerLine = { what: AnswerLineKind; of: string; says: string | number };
export const LINE_KINDS = [
  'designs',
  'kit',
  'setting',
  'marks',
  'cause',
  'terms',
  'fault',
  'decision',
] as const;
type AnswerLineKind = (typeof LINE_KINDS)[number];

/** A line that two answers do not have in common; undefined: the one says nothing of it. */
export type Difference = {
  what: AnswerLineKind;
  of: string;
  before: AnswerLine['says'] | undefined;
  after: AnswerLine['says'] | undefined;
};

/** What a case's answers say, line by line: all that is compared, kept with a seal and told as moved. */
export function linesOf(a: Answers): AnswerLine[] {
  const lines: AnswerLine[] = [];
  const put = (what: AnswerLineKind, of: string, says: AnswerLine['says'] | undefined) => {
    if (says !== undefined) lines.push({ what, of, says });
  };
  put('designs', '', a.identification?.possible.map((v) => v.name).join(', '));
  for (const k of a.kits) put('kit', k.kit.number, k.verdict);
  for (const t of a.drive?.tensioners ?? []) put('setting', t.about, t.shown);
  put('marks', '', (a.drive?.marks ?? a.openMarks)?.go);
  for (const c of a.ranking.causes) put('cause', c.cause.key, c.probability);
  put('terms', '', a.terms?.verdict);
  for (const f of a.faults) if (f.proposed) put('fault', f.fault.code, 'proposed');
  for (const o of a.decision.objections)
    put('decision', 'document' in o ? `${o.code} ${o.document}` : o.code, 'held');
  return lines;
}

/** Shares closer than this read the same. */
const SAME_SHARE = 0.01;

/** What two readings of a case do not have in common, in the order of the later one. */
export function answerDifference(before: readonly AnswerLine[], after: readonly AnswerLine[]): Difference[] {
  const key = (l: AnswerLine) => `${l.what} ${l.of}`;
  const first = new Map(before.map((l) => [key(l), l.says]));
  const last = new Map(after.map((l) => [key(l), l.says]));
  const seen = new Map([...after, ...before].map((l) => [key(l), l]));
  return [...seen].flatMap(([k, { what, of }]) => {
    const [a, b] = [first.get(k), last.get(k)];
    return same(a, b) ? [] : [{ what, of, before: a, after: b }];
  });
}

const same = (a: AnswerLine['says'] | undefined, b: AnswerLine['says'] | undefined): boolean =>
  typeof a === 'number' || typeof b === 'number'
    ? Math.abs(Number(a ?? 0) - Number(b ?? 0)) < SAME_SHARE
    : a === b;

/** What one fact moves: the case without it against the whole case. */
export function movedBy(world: World, facts: readonly Fact[], fact: Fact, full?: Answers): Difference[] {
  const withIt = full ?? answersFor(world, reduce(facts));
  const without = answersFor(world, reduce(facts.filter((f) => f.id !== fact.id)), withIt);
  return answerDifference(linesOf(without), linesOf(withIt));
}

/** A line as a fact keeps it: "cause set_wrong_way = 0.62". */
export const writeLine = (l: AnswerLine): string =>
  `${l.what} ${l.of} = ${typeof l.says === 'number' ? l.says.toFixed(4) : l.says}`;

/** Reads what {@link writeLine} wrote; a line of a kind that is not known is left out. */
export function readAnswerLine(text: string): AnswerLine | undefined {
  const m = /^(\S+) (.*?) = (.*)$/.exec(text);
  const what = LINE_KINDS.find((k) => k === m?.[1]);
  if (!m || !what) return undefined;
  return { what, of: nth(m, 2), says: what === 'cause' ? Number(m[3]) : nth(m, 3) };
}
