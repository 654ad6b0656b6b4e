import { inject, Injectable } from '@angular/core';
import { Subscription, timer } from 'rxjs';
import { daysBetween, dayOf } from '@core/quantity/dates';
import { BACKUP_FOLDER, BackupDue } from '../data/backup-due';
import { Clock } from '../data/clock';
import { FactRepository } from '../data/fact-repository';
import { ChosenFolder, permission } from '../records/chosen-folder';
import { Backups } from './backups';

/** How often it is looked whether a backup is due, ms; and how many days apart they are. */
const LOOKED_MS = 30 * 60_000;
const DAYS = 1;

type Chooses = {
  showDirectoryPicker(o: { mode: 'readwrite'; id: string }): Promise<FileSystemDirectoryHandle>;
};

/** A backup of everything, day by day, into a folder that was allowed once; told when that stops working. */
@Injectable({ providedIn: 'root' })
export class BackupFolder {
  private readonly repository = inject(FactRepository);
  private readonly backups = inject(Backups);
  private readonly due = inject(BackupDue);
  private readonly clock = inject(Clock);
  private readonly standing = this.due.folder;
  readonly possible = 'showDirectoryPicker' in window;
  private handle: FileSystemDirectoryHandle | undefined;
  private looking = new Subscription();

  /** Goes on with the folder that was chosen, if one was. */
  async start(): Promise<void> {
    const kept = await this.repository.setting(BACKUP_FOLDER);
    if (isFolder(kept)) this.use(kept);
  }

  /** Lets the user choose the folder, and backs up into it at once. */
  async choose(): Promise<void> {
    const chooser = window as unknown as Chooses;
    let folder: FileSystemDirectoryHandle;
    try {
      folder = await chooser.showDirectoryPicker({ mode: 'readwrite', id: 'backups' });
    } catch (e) {
      if (e instanceof DOMException && e.name === 'AbortError') return;
      throw e;
    }
    await this.repository.keepSetting(BACKUP_FOLDER, folder);
    this.looking.unsubscribe();
    this.handle = folder;
    await this.save(folder);
    this.use(folder);
  }

  /** Asks the browser for the folder again; it wants a hand on a button for that. */
  async wake(): Promise<void> {
    if (this.handle && (await permission(this.handle, 'requestPermission')) === 'granted') await this.look();
  }

  async stop(): Promise<void> {
    this.looking.unsubscribe();
    this.handle = undefined;
    await this.repository.keepSetting(BACKUP_FOLDER, null);
    this.standing.set({ is: 'none' });
  }

  private use(folder: FileSystemDirectoryHandle): void {
    this.handle = folder;
    this.looking = timer(0, LOOKED_MS).subscribe(() => void this.look());
  }

  private async look(): Promise<void> {
    const folder = this.handle;
    if (!folder) return;
    if ((await permission(folder, 'queryPermission')) !== 'granted') {
      this.standing.set({ is: 'asleep', folder: folder.name });
      return;
    }
    const last = this.due.last();
    if (last === undefined || daysBetween(dayOf(last), this.clock.today()) >= DAYS) await this.save(folder);
    else if (this.standing().is !== 'failed') this.standing.set({ is: 'works', folder: folder.name });
  }

  private async save(folder: FileSystemDirectoryHandle): Promise<void> {
    try {
      const into = new ChosenFolder(folder);
      if (await this.backups.save((name, blob) => into.write(name, blob)))
        this.standing.set({ is: 'works', folder: folder.name });
    } catch (e) {
      this.standing.set({
        is: 'failed',
        folder: folder.name,
        why: e instanceof Error ? e.message : String(e),
      });
    }
  }
}

const isFolder = (kept: unknown): kept is FileSystemDirectoryHandle =>
  typeof kept === 'object' && kept !== null && (kept as { kind?: unknown }).kind === 'directory';
