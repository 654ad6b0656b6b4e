import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { possibleOptions } from '@core/answer/applies';
import { partsOf } from '@core/answer/groups';
import { looksOf } from '@core/answer/looks';
import { has, listOf } from '@core/facts/read';
import { CaseDesk } from '../../data/case-desk';
import { HouseStore } from '../../data/house';
import { AnotherPart } from '../../entry/another-part';
import { FactField } from '../../entry/fact-field';
import { PartDetails } from '../../entry/part-details';
import { PartFiles } from '../../entry/part-files';
import { PlacedField } from '../../entry/placed-field';
import { SettingsPair } from '../../entry/settings-pair';
import { ranWords } from '../../words/answers';

/** Part by part, in the fixed order: look, measure, compare. */
@Component({
  selector: 'hs-examine-page',
  imports: [FactField, PlacedField, AnotherPart, PartDetails, PartFiles, SettingsPair],
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
    @for (g of groups(); track g.kind + g.about) {
      <section class="card" [attr.aria-label]="g.name">
        <h2>{{ g.name }}</h2>
        @for (o of g.fields; track o.key) {
          @if (o.place) {
            <hs-placed-field [key]="o.key" [about]="g.about" [named]="true" />
          } @else {
            <hs-fact-field [key]="o.key" [about]="g.about" [named]="true" />
          }
        }
        @if (g.several) {
          <hs-part-details [about]="g.about ?? g.kind" [name]="g.name" />
          <hs-part-files [about]="g.about ?? g.kind" [name]="g.name" />
        }
        @if (g.last && g.several) {
          <hs-another-part [kind]="g.kind" />
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
  /** Part by part, of each what can be observed on this drive. */
  protected readonly groups = computed(() => {
    const a = this.desk.current()?.answers;
    if (!a) return [];
    return partsOf(a.registry, 'examine', a.possible, a.things);
  });
  protected readonly drive = computed(() => this.desk.current()?.answers?.drive);
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
