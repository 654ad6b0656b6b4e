import { inject, Injectable } from '@angular/core';
import { textOf } from '@core/facts/read';
import { CaseDesk } from '../data/case-desk';
import { Clock } from '../data/clock';
import { troubleSentence } from '../data/store-trouble';
import { download } from '../report/download';
import { Notices } from './notices';

/** A call that was promised: as a calendar entry, and as made. */
@Injectable({ providedIn: 'root' })
export class CallBack {
  private readonly desk = inject(CaseDesk);
  private readonly clock = inject(Clock);
  private readonly notices = inject(Notices);

  /** The promise as an entry of a calendar (iCalendar, RFC 5545), a whole day with a reminder in the morning. */
  async calendar(): Promise<void> {
    const view = this.desk.current();
    const by = view && textOf(view.state, 'call.back');
    if (!view || by === undefined || this.desk.practising()) return;
    const { callBackEvent } = await import('../report/call-back-event');
    const made = callBackEvent({
      id: view.id,
      tag: view.tag,
      day: by,
      who: textOf(view.state, 'call.who') ?? '',
      engine: textOf(view.state, 'engine.code') ?? '',
      what: textOf(view.state, 'call.back_for') ?? '',
      at: this.clock.now(),
    });
    if (made.ok) download(`call-back-${view.tag}.ics`, new Blob([made.value], { type: 'text/calendar' }));
    else this.notices.refuse(`The calendar entry could not be made: ${made.error}.`);
  }

  /** The call was made: the promise is kept, and the case goes back to its place on the rack. */
  async made(): Promise<void> {
    const filed = await this.desk.file({ key: 'call.back_done', value: this.clock.today(), how: 'decided' });
    if (!filed.ok) this.notices.refuse(troubleSentence(filed.error));
  }
}
