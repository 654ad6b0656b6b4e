import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { weighsCauses } from '@core/answer/case-kind';
import { CaseDesk } from '../data/case-desk';
import { percent } from '../messages/answers';

/** The leading causes, live. */
@Component({
  selector: 'hs-balance',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section aria-label="Balance of causes">
      <h2>Balance</h2>
      @if (rows().length === 0) {
        <p class="quiet">{{ why() }}</p>
      }
      @for (r of rows(); track r.name) {
        <div class="row">
          <span class="name">{{ r.name }}</span
          ><span class="mono">{{ r.share }}</span>
          <span class="bar"><span [style.width.%]="r.p * 100"></span></span>
        </div>
      }
    </section>
  `,
  styles: `
    section {
      border-top: 1px solid var(--rule-strong);
      padding: 8px 12px 10px;
    }
    h2 {
      font-size: 1em;
    }
    .row {
      display: grid;
      grid-template-columns: 1fr auto;
      gap: 0 6px;
      margin-top: 3px;
    }
    .name {
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    .bar {
      grid-column: 1 / -1;
      height: 4px;
      background: var(--paper-2);
    }
    .bar span {
      display: block;
      height: 100%;
      background: var(--verdigris);
    }
  `,
})
export class Balance {
  private readonly desk = inject(CaseDesk);
  private readonly weighs = computed(() => {
    const state = this.desk.current()?.state;
    return state === undefined || weighsCauses(state);
  });
  protected readonly why = computed(() =>
    !this.weighs()
      ? 'A question: no causes are weighed. They are once it asks why, parts are here or a claim is made (kind return, kind claim).'
      : 'Nothing is filed yet that weighs.',
  );
  protected readonly rows = computed(() => {
    const answers = this.desk.current()?.answers;
    if (!this.weighs()) return [];
    const ranking = answers?.ranking;
    // Nothing is judged before something that weighs is known.
    if (!ranking?.weighed) return [];
    const rows = ranking.causes
      .slice(0, 4)
      .map((c) => ({ name: c.cause.wording, p: c.probability, share: percent(c.probability) }));
    return [...rows, { name: 'None of these', p: ranking.none, share: percent(ranking.none) }];
  });
}
