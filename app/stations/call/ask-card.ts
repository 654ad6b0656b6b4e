import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import type { Missing } from '@core/advice/advice';
import { CaseDesk } from '../../data/case-desk';
import { DeskSession } from '../../entry/desk-session';
import { Field } from '../../entry/field';
import { AdviceStore } from './advice-store';

/** Questions that stand here at once; the rest follows when these are answered. */
const MOST = 6;

/** What is still to be asked, cheapest first: the sentence to say, the place for its answer, and what each answer would leave. */
@Component({
  selector: 'hs-ask-card',
  imports: [Field],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (asks().length > 0) {
      <section class="card" aria-label="Still to ask">
        <h2>
          Still to ask <small>cheapest first{{ more() ? ', ' + more() + ' more behind them' : '' }}</small>
        </h2>
        @for (m of asks(); track m.id) {
          <div class="ask">
            @if (m.say) {
              <p class="say">“{{ m.say }}”</p>
            }
            <hs-field [session]="session" [key]="m.key" [about]="m.about" />
            @if (m.leaves) {
              <p class="quiet">{{ m.leaves }}</p>
            }
          </div>
        }
      </section>
    }
  `,
  styles: `
    :host {
      display: contents;
    }
    section {
      display: grid;
      gap: 6px;
    }
    .say {
      margin: 0 0 2px;
      font-weight: 600;
    }
    .quiet {
      margin: 0;
    }
  `,
})
export class AskCard {
  protected readonly session = inject(DeskSession);
  private readonly store = inject(AdviceStore);
  private readonly desk = inject(CaseDesk);
  private readonly missing = computed(() => this.store.current()?.missing ?? []);
  protected readonly more = computed(() => Math.max(0, this.missing().length - MOST));
  protected readonly asks = computed(() =>
    this.missing()
      .slice(0, MOST)
      .map((m) => ({
        id: `${m.key} ${m.about ?? ''}`,
        key: m.key,
        about: m.about,
        say: m.outcomes ? (this.desk.registry().get(m.key)?.observe ?? '') : '',
        leaves: this.leaves(m),
      })),
  );

  private leaves(m: Missing): string {
    const o = this.desk.registry().get(m.key);
    const options = o?.type.kind === 'choice' ? o.type.options : [];
    return (m.outcomes ?? [])
      .map((x) => `${options.find((y) => y.key === x.value)?.wording ?? x.value} → ${x.leaves.join(' or ')}`)
      .join(' · ');
  }
}
