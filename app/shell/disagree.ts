import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { CaseDesk } from '../data/case-desk';
import { VoiceService } from '../acts/voice';
import { contradictionWords } from '../words/answers';

/** Facts that cannot both be true, or not of this drive; at every station, until they are settled. */
@Component({
  selector: 'hs-disagree',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (words().length) {
      <section aria-label="Facts that do not agree">
        <h2>▲ Does not agree</h2>
        <ul>
          @for (w of words(); track w) {
            <li>{{ w }}</li>
          }
        </ul>
      </section>
    }
  `,
  styles: `
    section {
      border-top: 1px solid var(--rule-strong);
      background: var(--brass-soft);
      padding: 6px 12px 8px;
      max-height: 30vh;
      overflow: auto;
    }
    h2 {
      font-size: 1em;
    }
    ul {
      margin: 2px 0 0;
      padding-left: 16px;
    }
  `,
})
export class Disagree {
  private readonly desk = inject(CaseDesk);
  private readonly voice = inject(VoiceService).voice;
  protected readonly words = computed(() =>
    (this.desk.current()?.answers?.contradictions ?? []).map((c) => contradictionWords(c, this.voice())),
  );
}
