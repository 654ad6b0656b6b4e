import { inject, Injectable, Injector, PendingTasks, signal } from '@angular/core';
import { BACKUP_FOLDER, BackupDue } from '../data/backup-due';
import { Cases } from '../data/cases';
import { Clock } from '../data/clock';
import { Drafts } from '../data/drafts';
import { FactRepository } from '../data/fact-repository';
import { DeskSettingsStore } from '../data/desk-settings';
import { Packs } from '../data/packs';
import { troubleOf, troubleSentence } from '../data/store-trouble';

/** Whether the demo's calls, and its boxes with their photographs, are still to come. */
const CALLS = 'demo-calls';
const BOXES = 'demo-boxes';
/** What the knowledge makes of all of them. */
const JUDGED = 'judged.json';

/** A browser keeps no keys and makes no names for such a page: nothing could be filed. */
const UNSAFE =
  'This page came from another machine without encryption, and the browser lets such a page keep no keys. Have the server started with a certificate or behind a proxy that encrypts (page “More than one desk”), or use the desk on the machine of the server itself.';

/** Opens the records and, on the first opening of a profile, puts the demo in unless the server says to start empty. */
@Injectable({ providedIn: 'root' })
export class Setup {
  private readonly repository = inject(FactRepository);
  private readonly settings = inject(DeskSettingsStore);
  private readonly drafts = inject(Drafts);
  private readonly cases = inject(Cases);
  private readonly packs = inject(Packs);
  private readonly backupDue = inject(BackupDue);
  private readonly clock = inject(Clock);
  private readonly injector = inject(Injector);
  private readonly pending = inject(PendingTasks);
  readonly ready = signal(false);
  readonly failure = signal<string | undefined>(undefined);

  async start(): Promise<void> {
    if (!isSecureContext) return this.failure.set(UNSAFE);
    // until the desk is open the program is not at rest: what is fetched for later waits for that
    const opened = this.pending.add();
    try {
      await Promise.all([this.cases.load(), this.settings.load(), this.drafts.load()]);
      if ((await this.repository.setting('opened')) !== true) {
        if (await this.wantsDemo()) await this.loadDemo();
        await this.repository.keepSetting('opened', true);
      }
      this.failure.set(undefined);
      this.ready.set(true);
      opened();
      await this.packs.load();
      await this.backupDue.load();
      await this.backUpByItself();
      await this.loadEarlier();
      await this.repository.recallLeftOver();
      await this.keepSummaries();
    } catch (e) {
      this.failure.set(
        e instanceof DOMException
          ? troubleSentence(troubleOf(e))
          : e instanceof Error
            ? e.message
            : String(e),
      );
    } finally {
      opened();
    }
  }

  async loadDemo(): Promise<void> {
    const [answer, judged] = await Promise.all([fetch('demo.json'), fetch(JUDGED)]);
    for (const { ok, status } of [answer, judged])
      if (!ok) throw new Error(`The demo data could not be fetched (status ${status}). Reload to try again.`);
    const { addDemo } = await import('../data/demo-data');
    const filed = await addDemo(
      this.repository,
      await answer.json(),
      await judged.json(),
      this.clock.instant(),
    );
    if (!filed.ok) throw new Error(troubleSentence(filed.error));
    if (this.settings.settings().house === '') this.settings.change({ house: filed.value });
    await this.repository.keepSetting(CALLS, 'wanted');
    await this.repository.keepSetting(BOXES, 'wanted');
    if (this.ready()) await this.loadEarlier();
  }

  /** The demo's calls and boxes of the weeks before come once the rack is there, where they stand in the lists already. */
  private async loadEarlier(): Promise<void> {
    await this.loadOnce(CALLS, 'calls.json', async (content, judged) => {
      const { addCalls } = await import('../data/demo-data');
      return (await addCalls(this.repository, content, judged, this.clock.instant())).ok;
    });
    await this.loadOnce(BOXES, 'boxes.json', async (content, judged) => {
      const { addBoxes } = await import('../data/demo-data');
      return addBoxes(this.repository, content, judged, this.clock.instant(), async ({ hash, type }) => {
        const file = await fetch(type === 'image/png' ? `photos/${hash}.png` : `captures-kept/${hash}.zip`);
        return file.ok ? file.blob() : undefined;
      });
    });
  }

  /** What could not be fetched or kept is tried again at the next start. */
  private async loadOnce(
    setting: string,
    from: string,
    add: (content: unknown, judged: unknown) => Promise<boolean>,
  ): Promise<void> {
    if ((await this.repository.setting(setting)) !== 'wanted') return;
    const [answer, judged] = await Promise.all([fetch(from), fetch(JUDGED)]);
    if (answer.ok && judged.ok && (await add(await answer.json(), await judged.json())))
      await this.repository.keepSetting(setting, 'here');
  }

  /** Looks, once the rack is there, whether its summaries say what today's knowledge says. */
  private async keepSummaries(): Promise<void> {
    const { SummaryKeeper } = await import('../data/summary-keeper');
    await this.injector.get(SummaryKeeper).check();
  }

  /** Backups go into a folder by themselves where one was chosen. */
  private async backUpByItself(): Promise<void> {
    if (!(await this.repository.setting(BACKUP_FOLDER))) return;
    const { BackupFolder } = await import('./backup-folder');
    await this.injector.get(BackupFolder).start();
  }

  private async wantsDemo(): Promise<boolean> {
    const answer = await fetch('setup.json');
    if (!answer.ok) return true;
    const served: unknown = await answer.json();
    return !(typeof served === 'object' && served !== null && 'demo' in served && served.demo === false);
  }
}
