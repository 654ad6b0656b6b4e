import type { LimitedInspection } from '@core/answer/examined';
import { filedOf, placedOf } from '@core/facts/read';
import type { Session } from '../../entry/session';

/** What an inspection of a thing showed: its value, or at how many places; "" while nothing is known. */
export function shownOf(session: Session, l: LimitedInspection, about: string | undefined): string {
  const state = session.state();
  const { observable: o } = l;
  if (!state || l.status === 'open' || l.status === 'held') return '';
  if (o.place) {
    const n = placedOf(state, o.key, about).length;
    if (n > 0) return `${n} ${n === 1 ? 'place' : 'places'}`;
  }
  const fact = filedOf(state, o.key, about);
  return fact ? session.show(o, fact.value, fact.u) : '';
}
