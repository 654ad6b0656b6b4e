import { inject, Injectable } from '@angular/core';
import type { Advice } from '@core/advice/advice';
import { textOf } from '@core/facts/read';
import { CaseDesk, type Filed } from '../data/case-desk';
import { Clock } from '../data/clock';
import { DeskSettingsStore } from '../data/desk-settings';
import { troubleSentence } from '../data/store-trouble';
import { ASKED_WORDS, spokenText } from '../messages/advice';
import { download } from '../report/download';
import { Notices } from './notices';
import { CaseSentences } from './case-sentences';

/** What was told a caller, word for word. */
const TOLD = 'call.told';
/** Ways in which an answer leaves the house. */
export type Way = 'read out' | 'copied' | 'PDF' | 'e-mail';

/** Telling somebody: the answer goes out, and that it did is a fact, with what it stood on. */
@Injectable({ providedIn: 'root' })
export class AnswerDelivery {
  private readonly desk = inject(CaseDesk);
  private readonly sentences = inject(CaseSentences);
  private readonly clock = inject(Clock);
  private readonly settings = inject(DeskSettingsStore);
  private readonly notices = inject(Notices);

  /** Hands the answer over in one way and files that it was told. @param svg drawing that belongs to it */
  async tell(advice: Advice, way: Way, svg?: string): Promise<void> {
    const text = spokenText(advice, this.sentences.voice());
    try {
      if (way === 'copied') await navigator.clipboard.writeText(text);
      if (way === 'PDF') await this.pdf(text, svg);
      if (way === 'e-mail') await this.mail(text, svg);
    } catch (e) {
      this.notices.refuse(
        `The answer could not be ${way === 'copied' ? 'copied' : 'saved'}: ${e instanceof Error ? e.message : String(e)}. Nothing was filed; try another way.`,
      );
      return;
    }
    const filed = await this.file(advice, text, way);
    if (filed.ok) await this.notices.say('success', `Told them (${way}): filed with the facts it stood on.`);
    else this.notices.refuse(troubleSentence(filed.error));
  }

  private file(advice: Advice, text: string, way: Way): Promise<Filed> {
    return this.desk.file({
      key: TOLD,
      value: text,
      how: 'decided',
      basis: advice.basis,
      note: `${ASKED_WORDS[advice.asked]}: ${way}`,
      series: 'told',
    });
  }

  private name(): string {
    return `answer-${this.desk.current()?.tag ?? ''}`;
  }

  private async pdf(text: string, svg: string | undefined): Promise<void> {
    const [{ answerDocument }, { downloadPdf }] = await Promise.all([
      import('../report/answer-document'),
      import('../report/download-pdf'),
    ]);
    await downloadPdf(answerDocument(this.head(), text, svg), `${this.name()}.pdf`);
  }

  private async mail(text: string, svg: string | undefined): Promise<void> {
    const { answerMail } = await import('../report/answer-mail');
    const eml = answerMail(this.head(), text, svg, this.clock.now());
    download(`${this.name()}.eml`, new Blob([eml], { type: 'message/rfc822' }));
  }

  private head() {
    const state = this.desk.current()?.state;
    return {
      tag: this.desk.current()?.tag ?? '',
      engine: (state && textOf(state, 'engine.code')) ?? '',
      to: (state && textOf(state, 'call.who')) ?? '',
      by: this.settings.settings().by,
      day: this.clock.today(),
    };
  }
}
