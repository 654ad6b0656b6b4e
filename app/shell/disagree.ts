import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { CaseDesk } from '../data/case-desk';
import { CaseSentences } from '../commands/case-sentences';
import { StateCard } from '../ui/state';
import { contradictionWords } from '../messages/answers';

/** Facts that cannot both be true, or not of this drive; at every station, until they are settled. */
@Component({
  selector: 'hs-disagree',
  imports: [StateCard],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (words().length) {
      <section aria-label="Facts that do not agree">
        <hs-state kind="contradicted" title="Does not agree">
          <ul>
            @for (w of words(); track w) {
              <li>{{ w }}</li>
            }
          </ul>
        </hs-state>
      </section>
    }
  `,
  styles: `
    section {
      border-top: 1px solid var(--rule-strong);
      max-height: 30vh;
      overflow: auto;
    }
    ul {
      margin: 2px 0 0;
      padding-left: 16px;
    }
  `,
})
export class Disagree {
  private readonly desk = inject(CaseDesk);
  private readonly voice = inject(CaseSentences).voice;
  protected readonly words = computed(() =>
    (this.desk.current()?.answers?.contradictions ?? []).map((c) => contradictionWords(c, this.voice())),
  );
}
