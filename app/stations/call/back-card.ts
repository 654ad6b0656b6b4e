import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { standing, textOf } from '@core/facts/read';
import { CallBack } from '../../commands/call-back';
import { CaseDesk } from '../../data/case-desk';
import { Clock } from '../../data/clock';
import { DeskSession } from '../../entry/desk-session';
import { Field } from '../../entry/field';
import { callBackWords } from '../../messages/waits';

/** A call that was promised: by when, for what, and that it was made. */
@Component({
  selector: 'hs-back-card',
  imports: [NzButtonComponent, Field],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="card" aria-label="Call back">
      <h2>
        Call back <small>{{ says() }}</small>
      </h2>
      <hs-field [session]="session" key="call.back" />
      @if (promised()) {
        <hs-field [session]="session" key="call.back_for" />
        <div class="row">
          @if (!made()) {
            <button nz-button nzSize="small" nzType="primary" (click)="back.made()">
              They were called back
            </button>
          }
          <button nz-button nzSize="small" (click)="back.calendar()">Calendar entry</button>
        </div>
      }
    </section>
  `,
  styles: 'section { display: grid; gap: 4px; }',
})
export class BackCard {
  protected readonly session = inject(DeskSession);
  protected readonly back = inject(CallBack);
  private readonly desk = inject(CaseDesk);
  private readonly clock = inject(Clock);
  protected readonly promised = computed(() => {
    const state = this.desk.current()?.state;
    return state && textOf(state, 'call.back');
  });
  protected readonly made = computed(() => {
    const state = this.desk.current()?.state;
    if (!state) return false;
    const [by, done] = [standing(state, 'call.back'), standing(state, 'call.back_done')];
    return by !== undefined && done !== undefined && done.at >= by.at;
  });
  protected readonly says = computed(() => {
    const by = this.promised();
    if (by === undefined) return 'none promised';
    return this.made() ? 'made' : callBackWords(by, this.clock.today());
  });
}
