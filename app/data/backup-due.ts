import { computed, inject, Injectable, signal } from '@angular/core';
import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { dayOf, daysBetween } from '@core/quantity/dates';
import { Cases } from './cases';
import { Clock } from './clock';
import { FactRepository } from './fact-repository';

const KEPT = 'backup';
/** When this browser was first used, and when everything of it was last saved. */
const KeptSchema = z.strictObject({ first: z.string(), last: z.string().optional() });
/** Days after which a backup is asked for again. */
const DUE_DAYS = 7;

/** Where it lies among the settings into which folder backups go by themselves. */
export const BACKUP_FOLDER = 'backup-folder';
/** How the backups that go into a folder by themselves stand. */
type FolderStanding =
  | { is: 'none' }
  | { is: 'works'; folder: string }
  /** The browser wants to be asked for the folder again. */
  | { is: 'asleep'; folder: string }
  | { is: 'failed'; folder: string; why: string };

/** When everything was last backed up, and whether it is time again. */
@Injectable({ providedIn: 'root' })
export class BackupDue {
  private readonly repository = inject(FactRepository);
  private readonly cases = inject(Cases);
  private readonly clock = inject(Clock);
  private readonly kept = signal<z.infer<typeof KeptSchema> | undefined>(undefined);
  readonly folder = signal<FolderStanding>({ is: 'none' });
  readonly last = computed(() => this.kept()?.last);
  /** Days since the last backup, or since this browser was first used; undefined while it is not yet time. */
  readonly days = computed(() => {
    const kept = this.kept();
    if (!kept || this.cases.summaries().length === 0) return undefined;
    const days = daysBetween(dayOf(kept.last ?? kept.first), this.clock.today());
    return days >= DUE_DAYS ? days : undefined;
  });

  async load(): Promise<void> {
    const kept = KeptSchema.safeParse(await this.repository.setting(KEPT)).data;
    if (kept) this.kept.set(kept);
    else await this.keep({ first: this.clock.now() });
  }

  /** Everything was saved just now. */
  saved(at: string): Promise<void> {
    return this.keep({ first: this.kept()?.first ?? at, last: at });
  }

  private async keep(kept: z.infer<typeof KeptSchema>): Promise<void> {
    this.kept.set(kept);
    await this.repository.keepSetting(KEPT, kept);
  }
}
