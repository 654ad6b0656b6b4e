import type { JobLine } from '@core/match/job-list';
import type { AttributeVerdict, Comparison } from '@core/match/compare-parts';
import type { Due } from '@core/catalogue/interval';
import { type Notation, writtenDay } from '@core/facts/read-value';
import { distance } from './answers';

export const SOURCE_WORDS: Record<JobLine['source'], string> = {
  in_kit: 'in the kit',
  order: 'order separately',
  reuse_after_check: 'reuse after check',
  replace_now: 'replace now',
};
export const COMPARE_WORDS: Record<AttributeVerdict, string> = {
  equal: '= equal',
  superseded: '≈ superseded by design',
  wrong: '✕ wrong',
  not_measured: '… not measured',
  cannot_tell: '? cannot tell',
};
/** The same of two parts of a catalogue, of which neither is measured. */
export const LISTED_WORDS: Record<AttributeVerdict, string> = {
  ...COMPARE_WORDS,
  wrong: '✕ another',
  not_measured: '… not listed of the other',
};
export const COMPARISON_WORDS: Record<Comparison['verdict'], string> = {
  equal: '= The same part in all that was compared.',
  superseded: '≈ Different, but superseded by design: it may be fitted.',
  wrong: '✕ Wrong part. Do not fit it.',
  cannot_tell: '? Not settled yet.',
};

/** Why nothing is due by readings that run back. */
export const RUNS_BACK =
  'The odometer stands below what it showed at the fitting: one of the two readings is wrong, so nothing is due by them.';

/** Next due, in words: which limit comes first, when, and what is left or overdue. */
export function dueWords(d: Due, notation: Notation): string[] {
  const out = [
    `Due at ${distance(d.dueKm, notation)} or on ${writtenDay(d.dueDay, notation)}, whichever comes first.`,
  ];
  if (d.leftKm !== undefined)
    out.push(
      d.leftKm >= 0
        ? `${distance(d.leftKm, notation)} left.`
        : `Overdue by ${distance(-d.leftKm, notation)}.`,
    );
  out.push(d.leftDays >= 0 ? `${d.leftDays} days left.` : `Overdue by ${-d.leftDays} days.`);
  if (d.distanceDay && (d.leftKm ?? 0) > 0)
    out.push(
      `At that yearly distance it is reached on ${writtenDay(d.distanceDay, notation)}: ${d.first === 'distance' ? 'distance' : 'time'} comes first.`,
    );
  return out;
}
