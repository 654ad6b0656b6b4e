import { DestroyRef, inject, Injectable, signal } from '@angular/core';
import { Subject } from 'rxjs';
import { nameWorld } from '@core/answer/world';
import { CaseDesk } from '../data/case-desk';
import type { CaseView } from '../data/case-view';
import { Clock } from '../data/clock';
import { DeskSettingsStore } from '../data/desk-settings';
import { FactRepository } from '../data/fact-repository';
import { download } from '../report/download';
import type { PaperPhoto } from '../report/paper';
import type { PaperAsk, PaperJobs } from '../report/paper.protocol';
import { resultOf, WorkerClient, type WorkerError } from '../threads/worker-client';
import { err, type Result } from '@core/quantity/result';
import { CaseSentences } from './case-sentences';

/** Papers of a case by their readers. */
export const PAPER_KINDS = ['workshop', 'customer', 'full'] as const;
export type PaperKind = (typeof PAPER_KINDS)[number];
const FILE_NAMES: Record<PaperKind, string> = { workshop: 'letter', customer: 'customer', full: 'report' };

/** Makes the letters and the report of the case in hand; what sets them is fetched only when one is wanted, and works in a thread. */
@Injectable({ providedIn: 'root' })
export class Reports {
  private readonly desk = inject(CaseDesk);
  private readonly clock = inject(Clock);
  private readonly settings = inject(DeskSettingsStore);
  private readonly repository = inject(FactRepository);
  private readonly sentences = inject(CaseSentences);
  private readonly client = new WorkerClient<PaperJobs>(
    () => new Worker(new URL('../report/paper.worker', import.meta.url), { type: 'module' }),
  );
  private readonly stop = new Subject<void>();
  /** Share of the paper that is being set; undefined while none is. */
  readonly share = signal<number | undefined>(undefined);

  constructor() {
    inject(DestroyRef).onDestroy(() => this.client.dispose());
  }

  /** Hands a paper of the case in hand to the browser as a file. Its value is false where it was stopped or nothing is in hand. */
  async download(kind: PaperKind, as: PaperAsk['as'] = 'pdf'): Promise<Result<boolean, WorkerError>> {
    const view = this.desk.current();
    if (!view || this.desk.practising() || this.share() !== undefined) return { ok: true, value: false };
    const made = await this.made(view, kind, as);
    if (!made.ok) return made.error.code === 'cancelled' ? { ok: true, value: false } : made;
    download(`${FILE_NAMES[kind]}-${view.tag}.${as}`, made.value);
    return { ok: true, value: true };
  }

  cancel(): void {
    this.stop.next();
    this.client.dispose();
  }

  /** A paper of a case, set in a thread with progress. */
  async made(view: CaseView, kind: PaperKind, as: PaperAsk['as']): Promise<Result<Blob, WorkerError>> {
    this.share.set(0);
    try {
      const ask = await this.ask(view, kind, as);
      return await resultOf(this.client.job('paper', ask), {
        tell: (share) => this.share.set(share),
        stop$: this.stop,
      });
    } catch (e) {
      return err({ code: 'failed', detail: e instanceof Error ? e.message : String(e) });
    } finally {
      this.share.set(undefined);
    }
  }

  private async ask(view: CaseView, kind: PaperKind, as: PaperAsk['as']): Promise<PaperAsk> {
    if (!view.answers || !view.world) throw new Error('there is no catalogue for this case');
    const [{ workshopLetter }, { customerLetter }, { reportDocument }, { linesOn }] = await Promise.all([
      import('../report/workshop-letter'),
      import('../report/customer-letter'),
      import('../report/report-document'),
      import('../report/photo-part'),
    ]);
    const write = { workshop: workshopLetter, customer: customerLetter, full: reportDocument }[kind];
    const paper = write({
      tag: view.tag,
      state: view.state,
      answers: view.answers,
      world: nameWorld(view.world),
      voice: this.sentences.voice(),
      name: this.desk.nameOf,
      today: this.clock.today(),
      house: this.settings.settings().house,
    });
    const kept = await Promise.all(paper.photos.map((id) => this.repository.fileOf(id)));
    const photos = paper.photos.flatMap((id, i): PaperPhoto[] => {
      const record = kept[i];
      return record ? [{ id, blob: record.blob, lines: linesOn(view.state, id) }] : [];
    });
    return { paper, photos, as };
  }
}
