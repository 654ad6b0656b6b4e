import { counted } from '../../language/plural';
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { askedThisMonth, earlierCases, type Shared } from '@core/answer/earlier';
import { questionsAsked } from '@core/advice/advise';
import { textOf } from '@core/facts/read';
import { Cases } from '../../data/cases';
import { CaseDesk } from '../../data/case-desk';
import { Clock } from '../../data/clock';
import { isFreeKey } from '../../ui/free-keys';
import { list } from '../../language/list';
import { KIND_WORDS, waitsWords } from '../../messages/waits';

/** Earlier cases compared, and shown. */
const COMPARED = 50;
const MOST = 3;
const SHARED_WORDS: Record<Shared, string> = {
  caller: 'same workshop',
  vehicle: 'same vehicle',
  kit: 'same kit',
  question: 'same question',
  engine: 'same engine',
};

/** What this desk knows already of the workshop, kit, vehicle and question; `l` looks, and the browser's way back returns. */
@Component({
  selector: 'hs-before-card',
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(document:keydown.l)': 'look($event)' },
  template: `
    @if (shown().length > 0) {
      <section class="card" aria-label="Before">
        <h2>
          Before <small>{{ note() }} <kbd>l</kbd> looks at the first, Alt+← comes back</small>
        </h2>
        @for (e of shown(); track e.id) {
          <a class="line" [routerLink]="['/case', e.id, 'call']">
            <b class="code">{{ e.tag }}</b>
            <span>{{ e.who }}</span>
            <span class="quiet">{{ e.shares }} · {{ e.state }}</span>
          </a>
        }
      </section>
    }
  `,
  styles: `
    section {
      padding-block: 6px 2px;
    }
    h2 {
      margin-bottom: 2px;
    }
    .line {
      display: grid;
      grid-template-columns: 48px minmax(0, 1fr);
      gap: 0 10px;
      align-content: center;
      min-height: var(--target);
      padding: 1px 0;
      color: var(--ink);
      border-top: 1px solid var(--rule);
    }
    .line > .quiet {
      grid-column: 2;
    }
    .line:hover {
      background: var(--paper-3);
    }
  `,
})
export class BeforeCard {
  private readonly desk = inject(CaseDesk);
  private readonly cases = inject(Cases);
  private readonly clock = inject(Clock);
  private readonly router = inject(Router);
  private readonly earlier = computed(() => {
    const view = this.desk.current();
    if (!view) return [];
    const { state } = view;
    const options = this.desk.registry().get('call.asked')?.type;
    const wording = (key: string) =>
      options?.kind === 'several' ? (options.options.find((o) => o.key === key)?.wording ?? key) : key;
    return earlierCases(
      this.cases.summaries(),
      {
        id: view.id,
        who: textOf(state, 'call.who'),
        engine: textOf(state, 'engine.code'),
        kit: textOf(state, 'kit.number'),
        vehicle: textOf(state, 'vehicle.name'),
        asked: questionsAsked(state).map(wording),
      },
      COMPARED,
    );
  });
  protected readonly note = computed(() => {
    const n = askedThisMonth(this.earlier(), this.clock.today());
    return n === 0 ? '' : `${counted(n, 'call', 'calls')} about the same of this engine within a month ·`;
  });
  protected readonly shown = computed(() =>
    this.earlier()
      .slice(0, MOST)
      .map(({ summary, shares }) => ({
        id: summary.id,
        tag: summary.tag,
        who: summary.who || 'nobody named',
        shares: list(shares.map((s) => SHARED_WORDS[s])),
        state: `${KIND_WORDS[summary.kind]}, ${waitsWords(summary, this.clock.today())}`,
      })),
  );

  /** Looks at the first of them, unless the letter is typed somewhere. */
  protected look(e: Event): void {
    const first = this.shown()[0];
    if (!first || !isFreeKey(e as KeyboardEvent)) return;
    e.preventDefault();
    void this.router.navigate(['/case', first.id, 'call']);
  }
}
