import { must } from '@core/quantity/must';
import type { LeakAnswer } from '@core/examination/leak-answer';
import type { LeakError, LeakModel } from '@core/examination/leak-down';
import type { SeriesError, SeriesRead } from '@core/examination/read-series';
import type { InstrumentEvent } from '../instruments/instrument';
import { decimalsFor, formatNumber } from '@core/quantity/format-quantity';
import { list } from '../language/list';

const MODELS: Readonly<Record<LeakModel, string>> = {
  line: 'It sinks evenly',
  exponential: 'It sinks ever slower, toward rest',
  air_spring: 'Air gave way first, then it sinks evenly',
};
const VERDICTS = {
  within: '✓ within',
  above: '▲ faster than',
  cannot_tell: 'cannot be told from',
};

/** A rate in µm/s, with its 95 % interval. */
const rateWords = (rate: number, half: number): string => {
  const decimals = half > 0 ? decimalsFor(half * 1000) : 1;
  return `${formatNumber(rate * 1000, decimals)} ± ${formatNumber(half * 1000, decimals)}\u00a0µm/s (95 %)`;
};

/** Why a series shows no rate, and what to do. */
function errorWords(e: LeakError): string {
  switch (e.code) {
    case 'too_few':
      return `${e.used} readings behind the take-up are too few: at least ${e.least}. Record longer.`;
    case 'no_time':
      return 'All readings have the same time. Record it over some seconds.';
    case 'jump':
      return `It jumps by ${formatNumber(e.mm, 2)}\u00a0mm after ${formatNumber(e.at, 1)}\u00a0s and stands before and behind: the gauge was knocked, or the plunger gave way at once. No rate can be told from it; record it again.`;
    case 'not_finite':
      return 'A reading is no number. Record it again.';
  }
}

/** What a leak-down comes to, and what it was chosen from. */
export function leakWords(l: LeakAnswer): string[] {
  if (l.error) return [errorWords(l.error)];
  const { chosen, fits, used, left, countsUp } = must(l.result);
  const limit = `${formatNumber(l.limit * 1000, 0)}\u00a0µm/s`;
  const others = fits
    .filter((f) => f !== chosen)
    .map((f) => `${MODELS[f.model].toLowerCase()}, ${rateWords(f.rate, f.halfWidth)}`);
  return [
    `${MODELS[chosen.model]}: ${rateWords(chosen.rate, chosen.halfWidth)}, ${VERDICTS[must(l.verdict)]} its limit of ${limit}.`,
    `${used} readings, ${left} of the first take-up left out; scatter ${formatNumber(chosen.scatter * 1000, 1)}\u00a0µm.`,
    ...(countsUp
      ? [
          'The dial counted up while the plunger sank: it is read the other way round, since under a load nothing rises.',
        ]
      : []),
    ...(others.length ? [`Less likely: ${others.join('; ')}.`] : []),
  ];
}

/** Why a table holds no series, with the line and what to try. */
export function seriesSentence(e: SeriesError): string {
  switch (e.code) {
    case 'empty':
      return 'There is no row with two numbers in it. Two columns are wanted: time and length.';
    case 'one_column':
      return `Line ${e.line} has one column. Two are wanted: time and length.`;
    case 'wrong_unit':
      return `Line ${e.line}: “${e.unit}” is no unit of ${e.wanted === 'time' ? 'time (s, ms, min)' : 'length (mm, µm, in)'}.`;
    case 'runs_back':
      return `Line ${e.line}: its time is before the one above. Export it in order of time.`;
    case 'too_many':
      return `There are more than ${e.most} lines. Export fewer.`;
  }
}

/** What was left out of a series that was read. */
export function seriesRemarks(r: SeriesRead): string {
  const parts = [
    ...(r.refused.length
      ? [
          `line${r.refused.length > 1 ? 's' : ''} ${r.refused.slice(0, 5).join(', ')} without numbers left out`,
        ]
      : []),
    ...r.gaps.slice(0, 3).map((g) => `${formatNumber(g.seconds, 1)}\u00a0s missing before line ${g.line}`),
  ];
  return parts.length ? `Read with remarks: ${list(parts)}.` : '';
}

/** What went wrong with an instrument, or nothing. */
export function instrumentWords(h: {
  gone: Extract<InstrumentEvent, { kind: 'gone' }>['why'] | undefined;
  kept: number;
  garbage: number;
  foreign: number;
}): string {
  switch (h.gone) {
    case 'refused':
      return 'No port was chosen.';
    case 'not_there':
      return 'It does not answer. Check its cable and connect again.';
    case 'unplugged':
      return h.kept > 0
        ? `The instrument went away; ${h.kept} readings are kept. Connect again, or use what came.`
        : 'The instrument went away. Connect again.';
    case undefined:
      if (h.foreign > 0) return 'It sends another kind of reading than is wanted here.';
      return h.garbage > 0 ? `${h.garbage} lines could not be read and were left out.` : '';
  }
}
