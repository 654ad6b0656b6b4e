import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzInputDirective } from 'ng-zorro-antd/input';
import { isOffset, type StateOfEngine, toldFacts } from '@core/answer/trace-answer';
import { Notices } from '../../commands/notices';
import { CaseDesk } from '../../data/case-desk';
import { troubleSentence } from '../../data/store-trouble';
import {
  byDesignWords,
  otherWheelWords,
  toldTrouble,
  toldWords,
  traceVerdictWords,
} from '../../messages/trace';
import { TraceStore } from './trace-store';

/** An offset told on the telephone, without a capture: read, judged, filed as reported. */
@Component({
  selector: 'hs-trace-told',
  imports: [NzButtonComponent, NzInputDirective],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="card" aria-label="Told without a capture">
      <label
        >Told without a capture
        <input
          nz-input
          #told
          placeholder="2.75 teeth of the 60 wheel late"
          [value]="store.tellText()"
          (input)="store.tellText.set(told.value)"
      /></label>
      @if (answer(); as a) {
        <p class="says" aria-live="polite">{{ a.says }}</p>
        @for (l of a.lines; track l) {
          <p>{{ l }}</p>
        }
        @if (a.files) {
          <div>
            <button nz-button nzSize="small" nzType="primary" (click)="file('came')">File it as told</button>
            <button nz-button nzSize="small" (click)="file('repaired')">File it as after the repair</button>
          </div>
        }
      }
    </section>
  `,
  styles: `
    section {
      display: grid;
      gap: 4px;
    }
    input {
      max-width: 360px;
    }
    p {
      margin: 0;
    }
    div {
      display: flex;
      flex-wrap: wrap;
      gap: 4px;
    }
    .says {
      font-weight: 600;
    }
  `,
})
export class TraceTold {
  protected readonly store = inject(TraceStore);
  private readonly desk = inject(CaseDesk);
  private readonly notices = inject(Notices);

  protected readonly answer = computed(() => {
    const told = this.store.told();
    if (!told) return undefined;
    if (!told.ok) return { says: toldTrouble(told.error), lines: [], files: false };
    const { said, byDesign, told: offset } = told.value;
    const { unit, cams } = this.store.teeth();
    const units = { crank: unit, cam: cams[0]?.unit ?? unit };
    const words = (v: NonNullable<typeof said>) => traceVerdictWords(v, units, this.store.has());
    return {
      says: byDesign || !said ? byDesignWords(offset) : words(said),
      lines: [
        toldWords(offset),
        ...otherWheelWords(offset.wheel, this.store.wheel()),
        ...(byDesign ?? []).map((d) => `${d.design}: ${words(d.said)}`),
      ],
      files: this.desk.current() !== undefined && (!said || isOffset(said)),
    };
  });

  protected async file(of: StateOfEngine): Promise<void> {
    const told = this.store.told();
    if (!told?.ok) return;
    const done = await this.desk.fileAll(toldFacts(told.value.told, this.store.tellText().trim(), of));
    if (!done.ok) return this.notices.refuse(troubleSentence(done.error));
    this.store.tellText.set('');
    void this.notices.say('success', FILED[of]);
  }
}

/** What filing an offset does. */
export const FILED: Readonly<Record<StateOfEngine, string>> = {
  came: 'Filed: it weighs in Cause.',
  repaired: 'Filed as after the repair: what it was before stays the evidence.',
};
