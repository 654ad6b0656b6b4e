import { createEvent, type DateArray } from 'ics';
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

/** A promised call as a whole day of a calendar. The same case gives the same entry, so that a later one replaces it. */
export function callBackEvent(m: CallBackModel): Result<string, string> {
  const title = headerText(`Call back: case ${m.tag}${m.who ? `, ${m.who}` : ''}`);
  const { error, value } = createEvent({
    uid: `${headerText(m.id)}@hollow-sprocket.invalid`,
    productId: 'hollow-sprocket',
    start: dateOf(m.day),
    end: dateOf(addDays(m.day, 1)),
    title,
    description: [m.what, m.engine].map(headerText).filter(Boolean).join('\n'),
    status: 'CONFIRMED',
    busyStatus: 'FREE',
    alarms: [
      {
        action: 'display',
        description: headerText(`Call back: case ${m.tag}`),
        trigger: { hours: 8, before: false },
      },
    ],
  });
  return typeof value !== 'string' ? err(String(error?.message ?? 'no reason was given')) : ok(value);
}
