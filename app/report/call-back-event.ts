import { createEvents, type DateArray, type EventAttributes } from 'ics';
import { addDays, type Day } from '@core/quantity/dates';
import { headerText } from '@core/quantity/header-text';
import { err, ok, type Result } from '@core/quantity/result';

export type CallBackModel = {
  id: string;
  tag: string;
  day: Day;
  who: string;
  engine: string;
  what: string;
  /** When it is written, ISO. */
  at: string;
};

const dateOf = (day: Day): DateArray => day.split('-').map(Number) as [number, number, number];

const uidOf = (id: string, kind: FollowUp['kind']): string =>
  `${headerText(id)}${kind === 'call' ? '' : `-${kind}`}@hollow-sprocket.invalid`;

/** What is to be done by a day: a call that was promised, or a claim that the house promised to answer. */
export type FollowUp = CallBackModel & { kind: 'call' | 'answer' };
const DOES: Record<FollowUp['kind'], string> = { call: 'Call back', answer: 'Answer the claim' };

function entryOf(m: FollowUp): EventAttributes {
  const does = headerText(`${DOES[m.kind]}: case ${m.tag}`);
  return {
    uid: uidOf(m.id, m.kind),
    productId: 'hollow-sprocket',
    start: dateOf(m.day),
    end: dateOf(addDays(m.day, 1)),
    title: headerText(`${does}${m.who ? `, ${m.who}` : ''}`),
    description: [m.what, m.engine].map(headerText).filter(Boolean).join('\n'),
    status: 'CONFIRMED',
    busyStatus: 'FREE',
    alarms: [{ action: 'display', description: does, trigger: { hours: 8, before: false } }],
  };
}

/** A promised call as a whole day of a calendar. The same case gives the same entry, so that a later one replaces it. */
export const callBackEvent = (m: CallBackModel): Result<string, string> =>
  followUpsCalendar([{ ...m, kind: 'call' }]);

/** Everything that is to be done by a day, each a whole day of one calendar (iCalendar, RFC 5545). */
export function followUpsCalendar(all: readonly FollowUp[]): Result<string, string> {
  const { error, value } = createEvents(all.map(entryOf));
  return typeof value !== 'string' ? err(String(error?.message ?? 'no reason was given')) : ok(value);
}
