import type { PathScore } from '@core/practice/path-score';
import type { DeskFigures } from '@core/practice/score';
import { formatNumber } from '@core/quantity/format-quantity';
import { percent } from './answers';

const n0 = (v: number): string => formatNumber(v, 0);

/** The figures of a score, a row each: what it is, and what it came to. */
export function scoreRows(s: DeskFigures): { name: string; value: string }[] {
  const share = (k: number, n: number): string => (n === 0 ? 'none' : `${percent(k / n)} of ${n0(n)}`);
  const high = s.stated[8];
  return [
    { name: 'Leader right', value: share(s.right, s.decidable) },
    { name: 'Family right', value: share(s.family, s.decidable) },
    {
      name: 'Right of 80 to 90 % sure',
      value: high && high.n > 0 ? share(high.right, high.n) : 'none',
    },
    { name: 'None told where none shows', value: share(s.told, s.hidden) },
    { name: 'Brier: 0 best, 2 worst', value: formatNumber(s.brier, 2) },
  ];
}

/** Minutes to a verdict where the desk's own advice is followed look by look. */
export const pathWords = (p: PathScore): string =>
  p.returns === 0
    ? ''
    : `Worked look by look by its own advice, a whole return takes ${n0(p.minutes)} minutes (the middle of ${n0(p.returns)}), and ends right in ${percent(p.right / p.returns)}.`;

/** Kinds of drive, each by one design that has it, the worst first. */
export const driveRows = (s: DeskFigures): { family: string; right: string }[] => shareRows(s.drives);

/** Families with how often the leader was right, the worst first. */
export const familyRows = (s: DeskFigures): { family: string; right: string }[] => shareRows(s.families);

const shareRows = (all: DeskFigures['families']): { family: string; right: string }[] =>
  Object.entries(all)
    .sort(([, a], [, b]) => a.right / a.n - b.right / b.n)
    .map(([family, f]) => ({ family, right: `${percent(f.right / f.n)} of ${n0(f.n)}` }));
