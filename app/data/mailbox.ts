import { computed, inject, Injectable, signal } from '@angular/core';
import { type Mail, MOST_MAILBOX_BYTES } from '../workers/read-mailbox.protocol';
import { CaseDesk } from './case-desk';
import { Clock } from './clock';
import { DeskJob } from './desk-job';
import { DeskPolicy } from './desk-policy';
import { DeskSettingsStore } from './desk-settings';

/** Many messages that came in together: read in a thread, looked through, and opened as cases one by one or many at once. */
@Injectable({ providedIn: 'root' })
export class Mailbox {
  private readonly settings = inject(DeskSettingsStore);
  private readonly policy = inject(DeskPolicy);
  private readonly clock = inject(Clock);
  private readonly desk = inject(CaseDesk);
  private readonly job = new DeskJob('mailbox');
  readonly name = signal('');
  /** One more for each mailbox that is read. */
  readonly count = signal(0);
  /** Percent that are read, while it goes on. */
  readonly done = this.job.done;
  readonly failed = this.job.failed;
  readonly left = computed(() => this.job.answer()?.left ?? 0);
  /** Cases that were opened from here, by the number of the message. */
  private readonly opened = signal<ReadonlyMap<number, string>>(new Map());
  /** The messages; undefined while none was read. */
  readonly mails = computed<Mail[] | undefined>(() => {
    const opened = this.opened();
    return this.job.answer()?.mails.map((m) => {
      const id = opened.get(m.no);
      return id === undefined ? m : { ...m, here: { id, by: 'message' } };
    });
  });

  /** Reads what came in, one mailbox or several mails; false where it is larger than is read at once. */
  read(name: string, blobs: readonly Blob[]): boolean {
    if (blobs.reduce((sum, b) => sum + b.size, 0) > MOST_MAILBOX_BYTES) return false;
    this.name.set(name);
    this.count.update((n) => n + 1);
    this.opened.set(new Map());
    this.job.start({
      blobs: [...blobs],
      notation: this.settings.notation(),
      today: this.clock.today(),
      chosen: { ...this.policy.rules().chosen },
      taught: [...this.settings.settings().taught],
    });
    return true;
  }

  cancel(): void {
    this.job.cancel();
  }

  /** Opens a message as a case that shows it, read: nothing of it is filed but the message itself. */
  async open(mail: Mail): ReturnType<CaseDesk['newCase']> {
    const opened = await this.desk.newCase([
      { key: 'call.message', value: mail.text, how: 'reported', series: 'messages' },
    ]);
    if (opened.ok) this.opened.update((before) => new Map(before).set(mail.no, opened.value));
    return opened;
  }
}
