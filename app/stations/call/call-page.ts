import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { has } from '@core/facts/read';
import { CaseDesk } from '../../data/case-desk';
import { DeskSession } from '../../entry/desk-session';
import { Field } from '../../entry/field';
import { SettingsPair } from '../../entry/settings-pair';
import { rowsOf } from '../../entry/tall';
import { inColumns, roomForColumns } from '../../ui/columns';
import { MarkDials } from '../../ui/mark-dials';
import { AdviceStore } from './advice-store';
import { AnswerCard } from './answer-card';
import { AskCard } from './ask-card';
import { BackCard } from './back-card';
import { BeforeCard } from './before-card';
import { MessageStore } from './message-store';
import { SaidCard } from './said-card';

/** Least width of a card, and most columns: what is told is read down, not across. */
const LEAST_PX = 330;
const MOST = 2;
/** Group of what every caller is asked. */
const WHO = 'who';

/** What the phone or the box says: the message, what they want to know and the answer to it; then what a return or claim needs. */
@Component({
  selector: 'hs-call-page',
  imports: [Field, SettingsPair, MarkDials, AnswerCard, AskCard, BackCard, BeforeCard, SaidCard],
  providers: [MessageStore, AdviceStore],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '[class.two]': 'room() > 1' },
  template: `
    <div class="pair">
      <div class="column">
        <hs-said-card />
        @if (question()) {
          <hs-ask-card />
          @if (who(); as g) {
            <section class="card" [attr.aria-label]="g.name">
              <h2>{{ g.name }}</h2>
              @for (o of g.fields; track o.key) {
                <hs-field [session]="session" [key]="o.key" />
              }
            </section>
          }
        }
      </div>
      @if (question()) {
        <div class="column">
          <section class="card asked" aria-label="They want to know">
            <hs-field [session]="session" key="call.asked" />
          </section>
          <hs-answer-card />
          @if (dials().length > 0) {
            <section class="card" aria-label="What a right fitting shows">
              <h2>What a right fitting shows, and what was told</h2>
              <hs-mark-dials [marks]="dials()" />
            </section>
          }
        </div>
      }
    </div>
    @if (question() && setting(); as d) {
      <hs-settings-pair [drive]="d" />
    }
    <div class="columns">
      @for (column of columns(); track $index) {
        <div class="column">
          @for (g of column; track g.key) {
            <section class="card" [attr.aria-label]="g.name">
              <h2>{{ g.name }}</h2>
              @for (o of g.fields; track o.key) {
                <hs-field [session]="session" [key]="o.key" />
              }
            </section>
          }
        </div>
      }
    </div>
    <div class="columns">
      <hs-before-card class="column" />
      <hs-back-card class="column" />
    </div>
  `,
  styles: `
    :host {
      display: grid;
      gap: var(--gap);
      align-content: start;
    }
    .columns,
    :host(.two) .pair {
      display: flex;
      gap: var(--gap);
      align-items: flex-start;
    }
    .pair {
      display: grid;
      gap: var(--gap);
    }
    .column {
      flex: 1;
      min-width: 0;
      display: grid;
      gap: var(--gap);
    }
    section {
      display: grid;
      gap: 4px;
    }
  `,
})
export class CallPage {
  protected readonly session = inject(DeskSession);
  private readonly desk = inject(CaseDesk);
  private readonly advice = inject(AdviceStore);
  protected readonly room = roomForColumns(LEAST_PX);
  /** A question is answered here; parts and money are looked at elsewhere, and need everything that a call can tell. */
  protected readonly question = computed(() => {
    const view = this.desk.current();
    return view?.answers?.kind === 'question' || (view !== undefined && has(view.state, 'call.asked'));
  });
  protected readonly dials = this.advice.dials;
  protected readonly setting = computed(() =>
    this.advice.current()?.draw === 'setting' ? this.desk.current()?.answers?.drive : undefined,
  );
  protected readonly who = computed(() => this.desk.groupsAt('call').find((g) => g.key === WHO));
  protected readonly columns = computed(() => {
    const groups = this.desk.groupsAt('call').filter((g) => !this.question() || g.key !== WHO);
    return inColumns(groups, Math.min(MOST, this.room()), (g) => rowsOf(g.fields));
  });
}
