import { must } from '@core/quantity/must';
import { inject, Injectable, signal } from '@angular/core';
import { Subject } from 'rxjs';
import { rulesEntry } from '@core/answer/sealing';
import { has, textOf } from '@core/facts/read';
import { sentEntry } from '@core/fitting/sheet-return';
import { jobsFor, kitOfJob } from '@core/answer/jobs';
import type { NewFact } from '@core/facts/change';
import { Bulletins } from '../data/bulletins';
import { CaseDesk } from '../data/case-desk';
import { Clock } from '../data/clock';
import { DeskSettingsStore } from '../data/desk-settings';
import { troubleSentence } from '../data/store-trouble';
import type { SheetPaper } from '../report/sheet-paper';
import { resultOf, WorkerClient } from '../threads/worker-client';
import type { PaperJobs } from '../report/paper.protocol';
import { download } from '../report/download';
import { Notices } from './notices';

/** The fitting sheet leaves the house, on paper or for a telephone; that it did, and by which rules, is a fact. */
@Injectable({ providedIn: 'root' })
export class Sheets {
  private readonly desk = inject(CaseDesk);
  private readonly clock = inject(Clock);
  private readonly settings = inject(DeskSettingsStore);
  private readonly notices = inject(Notices);
  private readonly bulletins = inject(Bulletins);
  private readonly client = new WorkerClient<PaperJobs>(
    () => new Worker(new URL('../report/paper.worker', import.meta.url), { type: 'module' }),
  );
  private readonly stop = new Subject<void>();
  /** True while a PDF is being set. */
  readonly making = signal(false);
  /** Share of it that is drawn. */
  readonly share = signal(0);

  /** Set in a thread. */
  async pdf(): Promise<void> {
    if (this.making()) return;
    const paper = await this.paper();
    if (!paper) return;
    this.making.set(true);
    this.share.set(0);
    const made = await resultOf(this.client.job('sheet', paper), {
      tell: (p) => this.share.set(p),
      stop$: this.stop,
    });
    this.making.set(false);
    if (made.ok) {
      download(`fitting-sheet-${paper.tag}.pdf`, made.value);
      await this.sent('PDF');
    } else if (made.error.code !== 'cancelled')
      this.notices.refuse(`The sheet could not be set: ${made.error.detail}. Nothing was filed; try again.`);
  }

  cancel(): void {
    this.stop.next();
    this.client.dispose();
  }

  /** One file that works offline on a telephone and comes back filled. */
  async page(): Promise<void> {
    const paper = await this.paper();
    if (!paper) return;
    try {
      const [{ sheetHtml }, script] = await Promise.all([import('../report/sheet-html'), fetch('fitter.js')]);
      if (!script.ok) throw new Error('its script could not be read');
      const html = sheetHtml(paper, await script.text());
      download(`fitting-sheet-${paper.tag}.html`, new Blob([html], { type: 'text/html' }));
      await this.sent('for the telephone');
    } catch (e) {
      this.notices.refuse(
        `The sheet could not be made: ${e instanceof Error ? e.message : String(e)}. Nothing was filed; try again.`,
      );
    }
  }

  /** The sheet of the case in hand, in words. */
  async paper(): Promise<SheetPaper | undefined> {
    const view = this.desk.current();
    const a = view?.answers;
    if (!view?.catalogue || !a?.variant || a.sheet?.status !== 'ready' || !a.drive) return undefined;
    if (this.desk.practising()) return undefined;
    const { sheetPaper, withBulletins } = await import('../report/sheet-paper');
    const kit = kitOfJob(a)?.number;
    const paper = sheetPaper(
      view.id,
      {
        tag: view.tag,
        engine: a.engine?.code ?? '',
        design: a.variant.name,
        kit: kit ?? '',
        to: textOf(view.state, 'call.who') ?? '',
        by: this.settings.settings().by,
        day: this.clock.today(),
      },
      a.sheet,
      a.drive.stages,
      a.policy,
      jobsFor(view.catalogue, a.variant.id, a),
    );
    return withBulletins(paper, this.bulletins.of(kit));
  }

  /** The sheet that was sent, and the policy that shaped it: the case keeps them. */
  private async sent(how: string): Promise<void> {
    const a = this.desk.current()?.answers;
    if (!a?.sheet) return;
    const rules: NewFact[] = has(must(this.desk.current()).state, 'case.rules') ? [] : [rulesEntry(a.policy)];
    const filed = await this.desk.fileAll([sentEntry(a.sheet, how), ...rules]);
    if (filed.ok) await this.notices.say('success', `Sheet sent (${how}): filed with its version.`);
    else this.notices.refuse(troubleSentence(filed.error));
  }
}
