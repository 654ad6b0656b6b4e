import { inject, Injectable } from '@angular/core';
import { CaseDesk, type CaseView } from './case-desk';
import { Clock } from './clock';
import { VoiceService } from './voice';

/** Makes the printed report; the PDF library is fetched only when one is wanted. */
@Injectable({ providedIn: 'root' })
export class Reports {
  private readonly desk = inject(CaseDesk);
  private readonly clock = inject(Clock);
  private readonly voice = inject(VoiceService);

  async download(view: CaseView): Promise<void> {
    const fresh = this.desk.cases().find((c) => c.id === view.id) ?? view;
    if (!fresh.answers) throw new Error('there is no catalogue for this case');
    const [{ reportDocument }, { downloadPdf }] = await Promise.all([
      import('../report/report-document'),
      import('../report/make-pdf'),
    ]);
    const doc = reportDocument(
      fresh.tag,
      fresh.state,
      fresh.answers,
      this.voice.voice(),
      this.desk.nameOf,
      this.clock.today(),
    );
    await downloadPdf(doc, `report-${fresh.tag}.pdf`);
  }
}
