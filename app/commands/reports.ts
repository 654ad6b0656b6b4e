import { inject, Injectable } from '@angular/core';
import { nameWorld } from '@core/answer/world';
import { CaseDesk } from '../data/case-desk';
import type { CaseView } from '../data/case-view';
import { Clock } from '../data/clock';
import { download } from '../report/download';
import { CaseSentences } from './case-sentences';

/** Makes the printed report; the PDF library is fetched only when one is wanted. */
@Injectable({ providedIn: 'root' })
export class Reports {
  private readonly desk = inject(CaseDesk);
  private readonly clock = inject(Clock);
  private readonly sentences = inject(CaseSentences);

  /** Hands the report of the case in hand to the browser as a file. */
  async download(): Promise<void> {
    const view = this.desk.current();
    if (!view) return;
    download(`report-${view.tag}.pdf`, await this.pdf(view));
  }

  /** The report of the case in hand as PDF. */
  async pdf(view: CaseView): Promise<Blob> {
    if (!view.answers || !view.world) throw new Error('there is no catalogue for this case');
    const [{ reportDocument }, { pdfBlob }] = await Promise.all([
      import('../report/report-document'),
      import('../report/make-pdf'),
    ]);
    const doc = reportDocument(
      view.tag,
      view.state,
      view.answers,
      nameWorld(view.world),
      this.sentences.voice(),
      this.desk.nameOf,
      this.clock.today(),
    );
    return pdfBlob(doc);
  }
}
