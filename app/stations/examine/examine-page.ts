import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { possibleOptions } from '@core/answer/applies';
import { looksOf } from '@core/answer/looks';
import { listOf } from '@core/facts/state';
import { CaseDesk } from '../../data/case-desk';
import { HouseStore } from '../../data/house';
import { FactField } from '../../ui/fact-field';
import { SettingsPair } from '../../ui/settings-pair';
import { ranWords } from '../../words/answers';

const GROUPS = [
  {
    name: 'Tensioner, as found',
    keys: [
      'tensioner.pointer',
      'tensioner.extension',
      'tensioner.key_turn',
      'tensioner.bearing',
      'tensioner.spring',
      'tensioner.stop',
      'tensioner.bolt',
    ],
  },
  {
    name: 'Belt',
    keys: [
      'belt.edge_front',
      'belt.edge_rear',
      'belt.teeth',
      'belt.back',
      'belt.break',
      'belt.contamination',
      'belt.width',
    ],
  },
  { name: 'Chain and guides', keys: ['chain.length', 'chain.links_over', 'guide.wear'] },
  { name: 'Neighbours and cover', keys: ['wheel.rim_marks', 'cover.rub', 'pump.bearing', 'guide.bearing'] },
];

/** Part by part, in the fixed order: look, measure, compare. */
@Component({
  selector: 'hs-examine-page',
  imports: [FactField, SettingsPair],
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
    @for (g of groups(); track g.name) {
      <section class="card" [attr.aria-label]="g.name">
        <h2>{{ g.name }}</h2>
        @for (k of g.keys; track k) {
          <hs-fact-field [key]="k" />
        }
      </section>
    }
    @if (drive(); as d) {
      <hs-settings-pair class="wide" [drive]="d" />
    }
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(330px, 1fr));
      gap: var(--gap);
      align-items: start;
    }
    section {
      display: grid;
      gap: 4px;
    }
    .head,
    .wide {
      grid-column: 1 / -1;
      margin: 0;
    }
  `,
})
export class ExaminePage {
  private readonly desk = inject(CaseDesk);
  private readonly house = inject(HouseStore);
  /** Only what can be observed on this drive. */
  protected readonly groups = computed(() =>
    GROUPS.map((g) => ({
      ...g,
      keys: g.keys.filter((k) => {
        const o = this.desk.registry().get(k);
        return o !== undefined && this.desk.applies()(o);
      }),
    })).filter((g) => g.keys.length > 0),
  );
  protected readonly drive = computed(() => this.desk.current()?.answers?.drive);
  protected readonly ran = computed(() =>
    ranWords(this.desk.current()?.answers?.ran ?? { facts: [] }, this.house.house()),
  );
  /** How much of what could be looked at was; never "complete". */
  protected readonly looked = computed(() => {
    const view = this.desk.current();
    const a = view?.answers;
    if (!view || !a) return '';
    const l = looksOf(a.registry, view.state, a.possible, 'examine');
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
    if (!view?.state.standing.has('parts.sent') || type?.kind !== 'several') return [];
    const sent = listOf(view.state, 'parts.sent');
    return possibleOptions(type.options, view.answers?.possible ?? { has: undefined })
      .filter((o) => !sent.includes(o.key))
      .map((o) => o.wording.toLowerCase());
  });
}
