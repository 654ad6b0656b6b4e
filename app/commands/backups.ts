import { inject, Injectable, signal } from '@angular/core';
import { Subject } from 'rxjs';
import type { BackupList } from '@core/claim/backup';
import { dayOf } from '@core/quantity/dates';
import type { Result } from '@core/quantity/result';
import { BackupDue } from '../data/backup-due';
import { Cases } from '../data/cases';
import { Clock } from '../data/clock';
import { DeskSettingsSchema, DeskSettingsStore } from '../data/desk-settings';
import { Drafts } from '../data/drafts';
import { FactRepository } from '../data/fact-repository';
import { Packs } from '../data/packs';
import { RecordWork } from '../data/record-work';
import { counted } from '../language/plural';
import { backupSentence, cameWhole, cameWords } from '../messages/backup';
import { download } from '../report/download';
import { SETTING } from '../records/records';
import { resultOf, WorkerClient } from '../threads/worker-client';
import type { BackupJobs, RestoreError } from '../workers/backup.protocol';
import { Notices } from './notices';

/** A backup that was looked at and waits for a word. */
export type LookedAt = { file: File; list: BackupList };

/** Everything of this browser into one file and back. */
@Injectable({ providedIn: 'root' })
export class Backups {
  private readonly repository = inject(FactRepository);
  private readonly settings = inject(DeskSettingsStore);
  private readonly drafts = inject(Drafts);
  private readonly cases = inject(Cases);
  private readonly packs = inject(Packs);
  private readonly work = inject(RecordWork);
  private readonly notices = inject(Notices);
  private readonly clock = inject(Clock);
  private readonly due = inject(BackupDue);
  readonly waiting = signal<LookedAt | undefined>(undefined);
  readonly busy = signal(false);

  /**
   * Saves everything as one zip, in a thread, with the way to stop it. True when it is where it was to go.
   * @param deliver where it goes; to the browser's downloads unless given
   */
  async save(deliver: (name: string, blob: Blob) => void | Promise<void> = download): Promise<boolean> {
    if (this.busy()) return false;
    await this.repository.written();
    const at = this.clock.now();
    const made = await this.inThread('Backing everything up', (client, tell, stop$) =>
      resultOf(client.job('save', { at, drafts: this.drafts.all() }), { tell, stop$ }),
    );
    if (!made.ok) {
      if (made.error.code !== 'cancelled')
        this.notices.refuse(
          `The backup could not be made: ${made.error.detail}. Nothing was changed; try again.`,
        );
      return false;
    }
    await deliver(`backup-${dayOf(at)}.zip`, made.value.blob);
    await this.due.saved(at);
    const { damaged } = made.value.list;
    if (damaged > 0)
      void this.notices.say(
        'warning',
        `${counted(damaged, 'record is', 'records are')} damaged and not in the backup. Save them as a file of their own at Backups, room and safety.`,
        12_000,
      );
    return true;
  }

  /** Reads what a backup holds; it is taken in when that was agreed to. */
  async look(file: File): Promise<void> {
    if (this.busy()) return;
    const looked = await this.inThread(`Reading ${file.name}`, (client, _tell, stop$) =>
      resultOf(client.job('look', { name: file.name, blob: file }), { stop$ }),
    );
    const list = this.unread(file.name, looked);
    if (list) this.waiting.set({ file, list });
  }

  leave(): void {
    this.waiting.set(undefined);
  }

  /** Takes in the backup that waits. @param settings also how that desk wrote and judged */
  async restore(settings: boolean): Promise<void> {
    const waiting = this.waiting();
    if (!waiting || this.busy()) return;
    const { file, list } = waiting;
    const came = await this.inThread(`Taking in ${file.name}`, (client, tell, stop$) =>
      resultOf(client.job('restore', { name: file.name, blob: file }), { tell, stop$ }),
    );
    this.repository.tell({ grown: [], summaries: [], packs: [], extracts: [], allSummaries: true });
    const done = this.unread(file.name, came);
    if (!done) return;
    this.waiting.set(undefined);
    this.repository.tell({
      grown: done.cases,
      summaries: [],
      packs: done.packs,
      extracts: done.extracts,
      allSummaries: true,
    });
    this.drafts.bringBack(done.drafts);
    for (const d of done.left) this.repository.setAside(d);
    if (settings) await this.takeSettings(list.settings);
    await this.packs.load();
    void this.notices.say(cameWhole(done) ? 'success' : 'warning', cameWords(file.name, done), 12_000);
  }

  private async takeSettings(kept: BackupList['settings']): Promise<void> {
    const house = DeskSettingsSchema.safeParse(kept[SETTING.desk]);
    if (house.success) this.settings.change(house.data);
    // no other setting is taken from a file: not the key that signs, not what this browser marks for itself
    for (const setting of [
      SETTING.ownNumbers,
      SETTING.knownKeys,
      SETTING.sold,
      SETTING.stopped,
      SETTING.bulletins,
    ]) {
      if (kept[setting] === undefined) continue;
      await this.repository.keepSetting(setting, kept[setting]);
      this.repository.tell({ grown: [], summaries: [], packs: [], extracts: [], setting });
    }
  }

  private unread<T>(
    name: string,
    read: Result<Result<T, RestoreError>, { code: string; detail: string }>,
  ): T | undefined {
    if (!read.ok) {
      if (read.error.code !== 'cancelled')
        this.notices.refuse(
          `${name} could not be read: ${read.error.detail}. Nothing was changed; try again.`,
        );
      return undefined;
    }
    if (read.value.ok) return read.value.value;
    if (read.value.error.code !== 'cut') this.notices.refuse(backupSentence(name, read.value.error));
    return undefined;
  }

  private async inThread<T>(
    what: string,
    run: (
      client: WorkerClient<BackupJobs>,
      tell: (p: { done: number; of: number }) => void,
      stop$: Subject<void>,
    ) => Promise<T>,
  ): Promise<T> {
    const stop = new Subject<void>();
    const line = this.work.start(what, () => stop.next());
    const client = new WorkerClient<BackupJobs>(
      () => new Worker(new URL('../workers/backup.worker', import.meta.url), { type: 'module' }),
    );
    this.busy.set(true);
    try {
      return await run(client, ({ done, of }) => line.done(done, of), stop);
    } finally {
      this.busy.set(false);
      line.end();
      client.dispose();
    }
  }
}
