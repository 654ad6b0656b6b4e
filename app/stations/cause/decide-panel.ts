import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  signal,
} from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzInputDirective } from 'ng-zorro-antd/input';
import { decideCause } from '@core/answer/decide';
import { standing, textOf } from '@core/facts/read';
import { CaseDesk } from '../../data/case-desk';
import { troubleSentence } from '../../data/store-trouble';
import { decideSentence } from '../../messages/answers';

/** What the specialist decides: the leader at once, anything else with a reason, which is kept. */
@Component({
  selector: 'hs-decide-panel',
  imports: [NzButtonComponent, NzInputDirective],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (refused()) {
      <p class="caution" role="alert">{{ refused() }}</p>
    }
    @if (decided()) {
      <p>
        <b>◆ You decided this.</b> {{ reason() }}
        @if (overruled(); as o) {
          <span class="quiet">The facts lean to “{{ o }}”; your reason is kept with the decision.</span>
        }
      </p>
    } @else {
      @if (!leader()) {
        <label for="overrule">Not the leader: say why, it is kept</label>
      }
      <div>
        <input
          nz-input
          id="overrule"
          [attr.aria-label]="leader() ? 'Reason, if you want to give one' : null"
          [placeholder]="leader() ? 'Reason (if you like)' : 'Reason'"
          [value]="typed()"
          (input)="typed.set($any($event.target).value)"
          (keydown.enter)="decide()"
        />
        <button nz-button nzType="primary" (click)="decide()">Decide: {{ name() }}</button>
      </div>
    }
  `,
  styles: `
    :host {
      display: block;
      border-top: 1px solid var(--rule);
      margin-top: 8px;
      padding-top: 8px;
    }
    div {
      display: grid;
      gap: 6px;
      justify-items: start;
    }
  `,
})
export class DecidePanel {
  private readonly desk = inject(CaseDesk);
  /** Key and name of what is decided. */
  readonly key = input.required<string>();
  readonly name = input.required<string>();
  /** The leader needs no reason. */
  readonly leader = input(false);
  /** A reason that is proposed; it can be changed. */
  readonly proposed = input('');
  /** What was typed stays while the case goes on; another cause begins anew. */
  protected readonly typed = linkedSignal<{ key: string; proposed: string }, string>({
    source: () => ({ key: this.key(), proposed: this.proposed() }),
    computation: (now, before) =>
      before?.source.key === now.key && before.value !== before.source.proposed ? before.value : now.proposed,
  });
  protected readonly refused = signal('');

  private readonly state = computed(() => this.desk.current()?.state);
  protected readonly decided = computed(() => {
    const state = this.state();
    return state !== undefined && textOf(state, 'cause.decided') === this.key();
  });
  protected readonly reason = computed(() => {
    const state = this.state();
    return (state && standing(state, 'cause.decided')?.note) ?? '';
  });
  /** The leader by the facts, where it is another one that is more likely than not. */
  protected readonly overruled = computed(() => {
    const a = this.desk.current()?.answers;
    if (!a) return undefined;
    const likely = a.ranking.causes.slice(0, 1).filter((c) => c.probability >= a.policy.sureFrom.likely);
    return likely.find((c) => c.cause.key !== this.key())?.cause.wording;
  });

  protected async decide(): Promise<void> {
    const a = this.desk.current()?.answers;
    const entry = a && decideCause(a, this.key(), this.typed());
    if (!entry) return;
    if (!entry.ok) return this.refused.set(decideSentence(entry.error, this.desk.nameOf));
    const filed = await this.desk.file(entry.value);
    this.refused.set(filed.ok ? '' : troubleSentence(filed.error));
  }
}
