import { must } from '@core/quantity/must';
import type { LimitedInspection, ExaminedThing } from '@core/answer/examined';
import type { StackUp } from '@core/examination/stack-ups';
import { formatQuantity } from '@core/quantity/format-quantity';

/** How far a thing was looked at, or that it did not come. */
export const tagWords = (t: ExaminedThing): string =>
  t.came === 'not_sent' ? 'not sent' : `${t.done} of ${t.inspections.length}`;

/** Signs of an inspection's state: told by shape, with a word for those who do not see it. */
export const INSPECTION_MARKS: Readonly<
  Record<LimitedInspection['status'] | 'abnormal', readonly [string, string]>
> = {
  open: ['○', 'not looked at'],
  done: ['●', 'looked at'],
  abnormal: ['▲', 'looked at, to be explained'],
  skipped: ['–', 'not examined'],
  held: ['■', 'held'],
};

export const signOf = (l: LimitedInspection): readonly [string, string] =>
  INSPECTION_MARKS[l.abnormal ? 'abnormal' : l.status];

const VERDICTS = { within: 'inside', outside: '▲ outside', cannot_tell: 'cannot be told from' };

/** A stack-up in words, with its window and what it comes to. */
export function stackWords(s: StackUp): string {
  const mm = (value: number, u?: number) => formatQuantity('length', value, { unit: 'mm', decimals: 2, u });
  if (s.kind === 'stand_out') {
    const against = s.window
      ? `: ${VERDICTS[must(s.verdict)]} ${s.verdict === 'cannot_tell' ? 'the edge of ' : ''}its window of ${mm(s.window.from)} to ${mm(s.window.to)}`
      : '';
    return `Stands out ${mm(s.value, s.u)} (overall less body)${against}.`;
  }
  const deg = s.deg && formatQuantity('angle', s.deg.value, { unit: '°', decimals: 1, u: s.deg.u });
  return `${mm(s.value, s.u)} in its slot are ${deg} at its wheel; ${mm(must(s.leftMm).value, must(s.leftMm).u)} are left that way.`;
}
