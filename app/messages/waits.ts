import type { StationStanding } from '@core/answer/standing';
import type { CaseSummary, Waits } from '@core/answer/case-summary';
import type { Task, ToDo } from '@core/answer/to-do';
import type { CaseKind } from '@core/facts/observable';
import { type Station, STATIONS, stationName } from '@core/facts/stations';
import { type Day, daysBetween } from '@core/quantity/dates';

/** What a case waits for, as its tag on the rack says it. */
const WAITS_WORDS: Record<Exclude<Waits, Station>, string> = {
  answer: 'ready to answer',
  told: 'told them',
  issue: 'ready to issue',
  sealed: 'settled, sealed',
  set_aside: '▲ set aside',
};
const isStation = (waits: string): waits is Station => (STATIONS as readonly string[]).includes(waits);

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

/** What is to be done where a station's name alone does not say it. */
const TASK_WORDS: Partial<Record<Task, string>> & Record<Exclude<Task, Station>, string> = {
  call_back: 'Call back',
  read: 'Read the message',
  call: 'Ask what is missing',
  answer: 'Answer',
  identify: 'Find the kit',
  examine: 'Look at the parts',
  cause: 'Find the cause',
  settle: 'Decide',
  issue: 'Issue the report',
  set_aside: '▲ Look what is wrong',
};
/** What is to be done, as somebody would tell a colleague. */
export const taskWords = (task: Task): string =>
  TASK_WORDS[task] ?? (isStation(task) ? stationName(task) : task);

/** When it is due. @param days until then */
export function dueInWords(days: number): string {
  if (days < 0) return `▲ ${-days} d late`;
  return days === 0 ? 'today' : `in ${days} d`;
}

/** What lies on the desk, in one sentence. */
export function deskWords(list: readonly Pick<ToDo, 'days'>[]): string {
  const late = list.filter((t) => t.days < 0).length;
  const today = list.filter((t) => t.days === 0).length;
  const rest = list.length - late - today;
  if (list.length === 0) return 'Nothing waits.';
  const said = [
    late > 0 ? `${late} ${late === 1 ? 'is' : 'are'} late` : '',
    today > 0 ? `${today} due today` : '',
    rest > 0 ? `${rest} can wait` : '',
  ].filter(Boolean);
  return `${list.length} ${list.length === 1 ? 'case waits' : 'cases wait'}: ${said.join(', ')}.`;
}
