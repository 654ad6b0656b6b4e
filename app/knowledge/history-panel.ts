import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { CAUSES } from '@core/cause/cause-data';
import { takingBack } from '@core/cause/changes';
import { numbersOf } from '@core/cause/numbers';
import { Notices } from '../commands/notices';
import { OwnNumbers } from '../data/own-numbers';
import { changeWords } from '../messages/knowledge';
import { refusalWords } from './knowledge-sentences';

/** Lines in sight. */
const MOST = 40;

/** What this house saw otherwise, the newest first; what came last can be taken back. */
@Component({
  selector: 'hs-history-panel',
  imports: [NzButtonComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="card" aria-label="History">
      <h2>History</h2>
      @for (h of lines(); track $index) {
        <div>
          <b>{{ h.name }}</b
          ><br />{{ h.words }}
        </div>
      } @empty {
        <p class="quiet">No number was changed.</p>
      }
      @if (more(); as n) {
        <p class="quiet">{{ n }} older; all of them are in the file.</p>
      }
      @if (ownNumbers.changes().length) {
        <button nz-button nzSize="small" (click)="undo()">Take the last change back</button>
      }
    </section>
  `,
  styles: `
    div {
      border-bottom: 1px solid var(--rule);
      padding: 2px 0;
    }
  `,
})
export class HistoryPanel {
  protected readonly ownNumbers = inject(OwnNumbers);
  private readonly notices = inject(Notices);
  readonly nameOf = input.required<(place: string) => string>();
  protected readonly lines = computed(() =>
    [...this.ownNumbers.changes()]
      .reverse()
      .slice(0, MOST)
      .map((c) => ({ name: this.nameOf()(c.place), words: changeWords(c, numbersOf(CAUSES).get(c.place)) })),
  );
  protected readonly more = computed(() => Math.max(0, this.ownNumbers.changes().length - MOST));

  /** A change back to what was before is one more line of the history: nothing of it is lost. */
  protected async undo(): Promise<void> {
    const seen = await this.ownNumbers.see(
      takingBack(this.ownNumbers.changes(), 'The change before was taken back.'),
    );
    if (!seen.ok) this.notices.refuse(refusalWords(seen.error));
  }
}
