import { afterNextRender, ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { possibleOptions } from '@core/answer/applies';
import { partsOf } from '@core/answer/groups';
import { looksOf } from '@core/answer/looks';
import { has, listOf } from '@core/facts/read';
import { CaseDesk } from '../../data/case-desk';
import { HouseStore } from '../../data/house';
import { DeskSession } from '../../entry/desk-session';
import { SettingsPair } from '../../entry/settings-pair';
import { rowsOf } from '../../entry/tall';
import { inColumns, roomForColumns } from '../../ui/columns';
import { PartCard } from './part-card';
import { ranWords } from '../../words/answers';

/** Cards that are there at once; the rest follows when the first ones are on the screen. */
const FIRST = 2;
/** How tall a belt or chain unrolled is about, in fields. */
const MAP_ROWS = 9;
/** Least width of a card. */
const LEAST_PX = 345;

/** Part by part, in the fixed order: look, measure, compare. */
@Component({
  selector: 'hs-examine-page',
  imports: [PartCard, SettingsPair],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p class="head">
      Ran <b>{{ ran() }}</b> since fitting. {{ looked() }}
      @if (missing().length) {
        <span class="quiet"
          >Not sent: {{ missing().join(', ') }}. An incomplete return limits what can be concluded.</span
        >
      }
    </p>
    <div class="cards">
      @for (column of columns(); track $index) {
        <div>
          @for (g of column; track g.kind + g.about) {
            <hs-part-card [session]="session" [part]="g" />
          }
        </div>
      }
    </div>
    @if (all() && drive(); as d) {
      <hs-settings-pair [drive]="d" />
    }
  `,
  styles: `
    :host {
      display: block;
    }
    /* Cards stand in columns, in the order of the work, down and then on. */
    .cards {
      display: flex;
      gap: var(--gap);
      align-items: flex-start;
    }
    .cards > div {
      flex: 1;
      min-width: 0;
    }
    .head {
      margin: 0 0 8px;
    }
  `,
})
export class ExaminePage {
  protected readonly session = inject(DeskSession);
  private readonly desk = inject(CaseDesk);
  private readonly house = inject(HouseStore);
  /** Part by part, of each what can be observed on this drive. */
  protected readonly groups = computed(() => {
    const a = this.desk.current()?.answers;
    if (!a) return [];
    return partsOf(a.registry, 'examine', a.possible, a.things);
  });
  /** True from the second frame on: the first one is not kept waiting for cards below its edge. */
  protected readonly all = signal(false);
  private readonly cards = computed(() => (this.all() ? this.groups() : this.groups().slice(0, FIRST)));
  private readonly room = roomForColumns(LEAST_PX);
  protected readonly columns = computed(() =>
    inColumns(
      this.cards(),
      this.room(),
      (g) => rowsOf(g.fields) + (g.kind === 'belt' || g.kind === 'chain' ? MAP_ROWS : 0),
    ),
  );
  protected readonly drive = computed(() => this.desk.current()?.answers?.drive);

  constructor() {
    afterNextRender(() => setTimeout(() => this.all.set(true)));
  }

  protected readonly ran = computed(() =>
    ranWords(this.desk.current()?.answers?.ran ?? {}, this.house.house()),
  );
  /** How much of what could be looked at was; never "complete". */
  protected readonly looked = computed(() => {
    const view = this.desk.current();
    const a = view?.answers;
    if (!view || !a) return '';
    const l = looksOf(a.registry, view.state, a.possible, 'examine', a.things);
    const parts = [
      `Looked at ${l.looked}`,
      `not looked at ${l.open.length}`,
      ...(l.notSent.length ? [`not sent ${l.notSent.length}`] : []),
      ...(l.doesNotApply ? [`does not apply ${l.doesNotApply}`] : []),
    ];
    return `${parts.join(', ')}.`;
  });
  protected readonly missing = computed(() => {
    const view = this.desk.current();
    const type = this.desk.registry().get('parts.sent')?.type;
    if (!view || !has(view.state, 'parts.sent') || type?.kind !== 'several') return [];
    const sent = listOf(view.state, 'parts.sent');
    return possibleOptions(type.options, view.answers?.possible ?? { has: undefined })
      .filter((o) => !sent.includes(o.key))
      .map((o) => o.wording.toLowerCase());
  });
}
