import type { Bulletin, BulletinEffect } from '@core/patterns/bulletin';
import type { ChartSpan, Watch } from '@core/patterns/charts';
import type { Sheet } from '@core/fitting/sheet';
import type { WhoHas } from '@core/patterns/who-has';
import { dayOf, type DateForm, formatDay } from '@core/quantity/dates';
import { formatNumber } from '@core/quantity/format-quantity';
import { counted, plural } from '../language/plural';
import { percent } from './answers';
import { intervalWords, shopWords } from './patterns';

/** Months as people write them: "03/2026", or a span of them. */
export const monthWords = (month: string): string => `${month.slice(5, 7)}/${month.slice(0, 4)}`;
const spanWords = (from: string, to: string): string =>
  from === to ? monthWords(from) : `${monthWords(from)} to ${monthWords(to)}`;

/** The step that a bulletin is about: by its number where the sheet of the drive at hand has it. */
export function bulletinPlace(
  b: Pick<Bulletin, 'kit' | 'step'>,
  sheet: Pick<Sheet, 'steps'> | undefined,
): string {
  const step = sheet?.steps.find((s) => s.id === b.step);
  return `${b.kit}, ${step ? `step ${step.number}` : `step “${b.step}”`}`;
}

/** A bulletin in one line of its own; the step only where the sheet of the drive at hand has it. */
export const bulletinWords = (b: Bulletin, sheet: Pick<Sheet, 'steps'> | undefined): string =>
  `Bulletin ${b.version} on ${sheet?.steps.some((s) => s.id === b.step) ? bulletinPlace(b, sheet) : b.kit}: ${b.text}`;

/** Whose it is and since when. */
export const issuedWords = (b: Bulletin, order: DateForm): string =>
  `Version ${b.version} of ${formatDay(dayOf(b.at), order)}, by ${b.by}.`;

/** What a bulletin did so far. */
export function effectWords(e: BulletinEffect): string {
  const share = ({ faults, of }: BulletinEffect['before']): string =>
    `${faults} of ${counted(of, 'return', 'returns')}${of > 0 ? ` (${percent(faults / of)})` : ''}`;
  const told = `Fitted before it: ${share(e.before)}; since: ${share(e.after)}.`;
  if (!e.compared) return `${told} It is too early to say what it did.`;
  const { interval } = e.compared;
  const rate = `${intervalWords(interval)} times as often since`;
  return interval.to < 1
    ? `${told} It became rarer: ${rate}.`
    : interval.from > 1
      ? `${told} It became commoner: ${rate}.`
      : `${told} Chance alone explains the difference: ${rate}.`;
}

/** What the watch over a lot says. */
export function watchWords(w: Watch): string {
  const times = formatNumber(w.times, 0);
  return w.since === undefined
    ? `Watched for coming back ${times} times as often: no alarm so far.`
    : `Watched for coming back ${times} times as often: alarm since ${monthWords(w.since)}.`;
}

/** Who has units of a lot, a line each. */
export const marketWords = (m: WhoHas['markets'][number]): string =>
  `${m.market === '' ? 'No market named' : m.market}: ${formatNumber(m.sold, 0)} sold ${spanWords(m.from, m.to)}`;
export const shopHasWords = (s: WhoHas['shops'][number]): string =>
  `${shopWords(s.shop)}: ${counted(s.cases.length, 'case', 'cases')}`;

/** How points of a control chart lie, in one sentence. */
export function spansWords(spans: readonly ChartSpan[]): string {
  const chance = 'what chance brings to 499 of 500';
  const parts = (['above', 'below'] as const).flatMap((side) => {
    const n = spans.filter((s) => s.out === side).length;
    return n > 0 ? [`${n} ${plural(n, 'lies', 'lie')} ${side}`] : [];
  });
  return parts.length === 0
    ? `None of ${counted(spans.length, 'point', 'points')} leaves ${chance}.`
    : `Of ${counted(spans.length, 'point', 'points')} ${parts.join(', ')} ${chance}.`;
}
/** What the lines of a control chart on the screen are. */
export const SPAN_LINES = 'Full line: to be expected; dotted: limits of chance.';
