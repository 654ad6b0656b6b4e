import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzCheckboxModule } from 'ng-zorro-antd/checkbox';
import { NzProgressModule } from 'ng-zorro-antd/progress';
import { dayOf, formatDay } from '@core/quantity/dates';
import { formatNumber } from '@core/quantity/format-quantity';
import { BackupFolder } from '../commands/backup-folder';
import { Backups } from '../commands/backups';
import { Commands } from '../commands/commands';
import { BackupDue } from '../data/backup-due';
import { Cases } from '../data/cases';
import { FactRepository } from '../data/fact-repository';
import { backupFolderWords, holdsWords } from '../messages/backup';
import { ProgramUpdate } from '../offline/program-update';
import { counted } from '../language/plural';
import { FileButton } from '../ui/file-button';

type Room = { usedMb: number; quotaMb: number; share: number };

/** Where the records lie and how safe: a backup of all of it and the way back, room, and whether the browser may clear it. */
@Component({
  selector: 'hs-safety-page',
  imports: [FileButton, NzButtonComponent, NzCheckboxModule, NzProgressModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './safety-page.html',
  styles: `
    :host {
      display: block;
      height: 100%;
      overflow: auto;
    }
    main {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(min(340px, 100%), 1fr));
      gap: var(--gap);
      align-items: start;
      padding: 12px 14px;
    }
    section {
      display: grid;
      gap: 8px;
      justify-items: start;
    }
    p {
      margin: 0;
    }
    nz-progress {
      width: 100%;
      max-width: 420px;
    }
  `,
})
export class SafetyPage {
  protected readonly backups = inject(Backups);
  protected readonly due = inject(BackupDue);
  protected readonly commands = inject(Commands);
  protected readonly repository = inject(FactRepository);
  protected readonly folder = inject(BackupFolder);
  protected readonly program = inject(ProgramUpdate);
  private readonly cases = inject(Cases);
  protected readonly folderWords = computed(() => backupFolderWords(this.due.folder()));
  protected readonly alsoSettings = signal(true);
  protected readonly persisted = signal<boolean | undefined>(undefined);
  protected readonly refused = signal(false);
  protected readonly room = signal<Room | undefined>(undefined);
  protected readonly lastWords = computed(() => {
    const last = this.due.last();
    const due = this.due.days();
    if (last === undefined) return 'Nothing was backed up in this browser yet.';
    return `Last backup: ${formatDay(dayOf(last), 'named')}${due === undefined ? '.' : `, ${counted(due, 'day', 'days')} ago.`}`;
  });
  protected readonly holds = computed(() => {
    const w = this.backups.waiting();
    return w && holdsWords(w.list);
  });
  protected readonly here = computed(() => counted(this.cases.summaries().length, 'case', 'cases'));

  constructor() {
    void this.look();
    void this.program.look();
  }

  private async look(): Promise<void> {
    // Browsers that do not say are not asked.
    if (!('storage' in navigator)) return;
    this.persisted.set(await navigator.storage.persisted());
    const { usage, quota } = await navigator.storage.estimate();
    if (usage === undefined || !quota) return;
    this.room.set({ usedMb: usage / 1e6, quotaMb: quota / 1e6, share: (usage / quota) * 100 });
  }

  protected async persist(): Promise<void> {
    const kept = await navigator.storage.persist();
    this.persisted.set(kept);
    this.refused.set(!kept);
  }

  protected read(files: readonly File[]): void {
    const [file] = files;
    if (file) void this.backups.look(file);
  }

  protected mb(x: number): string {
    return formatNumber(x, x < 10 ? 1 : 0);
  }
}
