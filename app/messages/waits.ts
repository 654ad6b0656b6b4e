import type { StationStanding } from '@core/answer/standing';
import type { CaseSummary, Waits } from '@core/answer/case-summary';
import type { CaseKind } from '@core/facts/observable';
import { type Station, stationName } from '@core/facts/stations';
import { type Day, daysBetween } from '@core/quantity/dates';

/** What a case waits for, as its tag on the rack says it. */
const WAITS_WORDS: Record<Exclude<Waits, Station>, string> = {
  answer: 'ready to answer',
  told: 'told them',
  issue: 'ready to issue',
  sealed: 'settled, sealed',
  set_aside: '▲ set aside',
};
const isStation = (waits: Waits): waits is Station => !(waits in WAITS_WORDS);

/** A call that was promised, as a tag says it. */
export function callBackWords(by: Day, today: Day): string {
  const days = daysBetween(today, by);
  if (days < 0) return `▲ call back, ${-days} d late`;
  return days === 0 ? '▲ call back today' : `call back in ${days} d`;
}

/** What a case waits for; a call that was promised goes before everything. */
export const waitsWords = (h: Pick<CaseSummary, 'back' | 'waits'>, today: Day): string =>
  h.back !== undefined
    ? callBackWords(h.back, today)
    : isStation(h.waits)
      ? `waits: ${stationName(h.waits)}`
      : WAITS_WORDS[h.waits];

/** What kind of case it is. */
export const KIND_WORDS: Record<CaseKind, string> = {
  question: 'question',
  return: 'return',
  claim: 'claim',
};

const STANDING_WORDS: Record<Exclude<StationStanding['is'], 'inspected' | 'lacks'>, string> = {
  complete: '✓ all needed is here',
  decided: 'decided',
  nothing_to_weigh: 'nothing to weigh',
  sealed: 'sealed',
  issue_again: 'issue again',
  nothing_to_settle: 'nothing to settle',
};
/** How far a case has come at a station. */
export function standingWords(s: StationStanding): string {
  switch (s.is) {
    case 'inspected':
      return `${s.looked} of ${s.of} looked at`;
    case 'lacks':
      return `lacks ${s.count}`;
    default:
      return STANDING_WORDS[s.is];
  }
}
