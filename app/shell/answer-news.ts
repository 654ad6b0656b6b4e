import { ChangeDetectionStrategy, Component, effect, inject, signal } from '@angular/core';
import { answerDifference, type AnswerLine, linesOf } from '@core/answer/difference';
import { CaseSentences } from '../commands/case-sentences';
import { CaseDesk } from '../data/case-desk';
import type { CaseView } from '../data/case-view';
import { differenceWords } from '../messages/difference';

/** Most that is spoken of one change: the rest stands on the screen. */
const MOST = 3;

/** Speaks once, for those who do not see the screen, what the last fact changed in the answers. */
@Component({
  selector: 'hs-answer-news',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<p class="hidden-text" role="status">{{ said() }}</p>`,
})
export class AnswerNews {
  private readonly desk = inject(CaseDesk);
  private readonly voice = inject(CaseSentences).voice;
  protected readonly said = signal('');
  private before: { id: string; lines: readonly AnswerLine[] } | undefined;

  constructor() {
    effect(() => {
      const view = this.desk.current();
      // after the frame that shows it: nobody's eyes wait for what is spoken
      setTimeout(() => this.tell(view));
    });
  }

  private tell(view: CaseView | undefined): void {
    if (!view?.answers) return;
    const [before, now] = [this.before, { id: view.id, lines: linesOf(view.answers) }];
    this.before = now;
    if (before?.id !== now.id) return;
    const moved = answerDifference(before.lines, now.lines);
    const words = moved.slice(0, MOST).map((d) => differenceWords(d, this.voice(), this.desk.nameOf));
    if (words.length) this.said.set(words.join('. '));
  }
}
