import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzProgressComponent } from 'ng-zorro-antd/progress';
import { interval } from 'rxjs';
import { pressAt, pressPlan } from '@core/examination/slow-press';
import { measuredOf } from '@core/facts/read';
import { surelyAbove } from '@core/quantity/judge';
import { SHIPPED_POLICY } from '@core/policy/policy';
import { CaseDesk } from '../../data/case-desk';
import type { Session } from '../../entry/session';
import { pressPlanWords, pressWords } from '../../messages/press';
import { PressClock } from './press-clock';

const EXTENSION = 'tensioner.extension';

/** A slow press with the clock: how many turns, where one should be now, how long to wait, then what to look for. */
@Component({
  selector: 'hs-press-panel',
  imports: [NzButtonComponent, NzProgressComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (plan(); as p) {
      <p>{{ planWords(p) }}</p>
      @if (now(); as n) {
        <nz-progress [nzPercent]="share()" [nzShowInfo]="false" nzSize="small" />
        <p class="says">{{ pressWords(n) }}</p>
        <span class="hidden-text" aria-live="polite">{{ spoken() }}</span>
      }
      <button nz-button nzSize="small" (click)="on() ? clock.end(key()) : clock.begin(key())">
        {{ on() ? 'Stop the clock' : 'Start the clock' }}
      </button>
    } @else {
      <p class="quiet">Measure how far the plunger is out first: turns and time are counted from it.</p>
    }
    @if (replaced()) {
      <p class="quiet">By policy an old one is replaced; pressed here, it is pressed to be examined.</p>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 4px;
      justify-items: start;
    }
    p {
      margin: 0;
    }
    nz-progress {
      width: min(100%, 360px);
    }
    .says {
      font-weight: 600;
    }
  `,
})
export class PressPanel {
  readonly session = input.required<Session>();
  readonly about = input<string>();
  private readonly desk = inject(CaseDesk);
  protected readonly clock = inject(PressClock);
  protected readonly planWords = pressPlanWords;
  protected readonly pressWords = pressWords;
  private readonly tick = toSignal(interval(250), { initialValue: 0 });
  private readonly rules = computed(() => this.desk.current()?.answers?.policy ?? SHIPPED_POLICY);
  protected readonly key = computed(() => `${this.desk.currentId()} ${this.about() ?? ''}`);
  protected readonly replaced = computed(() => this.rules().chosen['old_plunger'] === 'replace');
  protected readonly plan = computed(() => {
    const state = this.session().state();
    const out = state && measuredOf(state, this.desk.registry(), EXTENSION, this.about());
    return out && surelyAbove(out, 0) ? pressPlan(out.value, this.rules()) : undefined;
  });
  protected readonly on = computed(() => this.clock.isOn(this.key()));
  private readonly seconds = computed(() => {
    this.tick();
    return this.on() ? this.clock.seconds(this.key()) : 0;
  });
  protected readonly now = computed(() => {
    const plan = this.plan();
    return plan && this.on() ? pressAt(plan, this.seconds()) : undefined;
  });
  protected readonly share = computed(() => {
    const plan = this.plan();
    return plan ? Math.min(100, (100 * this.seconds()) / (plan.pressS + plan.waitS)) : 0;
  });
  /** Said aloud once a turn and at each phase, not four times a second. */
  protected readonly spoken = computed(() => {
    const n = this.now();
    return n?.phase === 'press' ? `Turn ${n.turn}` : n ? pressWords(n) : '';
  });
}
