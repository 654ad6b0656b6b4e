import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { MAPPED, type MappedKind } from '@core/bench/damage-map';
import type { PartGroup } from '@core/answer/groups';
import { AnotherPart } from '../../entry/another-part';
import { Field } from '../../entry/field';
import { PartDetails } from '../../entry/part-details';
import { PartFiles } from '../../entry/part-files';
import { PlacedField } from '../../entry/placed-field';
import type { Session } from '../../entry/session';
import { CaseDesk } from '../../data/case-desk';
import { balanceWords, OBLIGATION } from '../../words/pieces';
import { DamageMapPart } from './damage-map';

/** One part: everything that can be looked at on it, which one it is, and its pictures. */
@Component({
  selector: 'hs-part-card',
  imports: [DamageMapPart, Field, PlacedField, AnotherPart, PartDetails, PartFiles],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let g = part();
    <section class="card" [attr.aria-label]="g.name">
      <h2>{{ g.name }}</h2>
      @for (o of g.fields; track o.key) {
        @if (o.place) {
          @if (o.key === mapped()) {
            <hs-damage-map [session]="session()" [kind]="kind()" [about]="g.about" />
          }
          <hs-placed-field [session]="session()" [key]="o.key" [about]="g.about" [named]="true" />
        } @else {
          <hs-field [session]="session()" [key]="o.key" [about]="g.about" [named]="true" />
        }
      }
      @if (balance(); as b) {
        <p class="says" aria-live="polite">{{ b.words }}</p>
        @if (b.missing) {
          <p class="caution">{{ obligation }}</p>
        }
      }
      @if (g.several) {
        <div class="foot">
          <hs-part-details [about]="g.about ?? g.kind" [name]="g.name" />
          <hs-part-files [about]="g.about ?? g.kind" [name]="g.name" />
          @if (g.last) {
            <hs-another-part [kind]="g.kind" />
          }
        </div>
      }
    </section>
  `,
  styles: `
    :host {
      display: block;
      margin-bottom: var(--gap);
    }
    section {
      display: grid;
      gap: 4px;
    }
    .says {
      margin: 0;
      font-weight: 600;
    }
    .foot {
      display: flex;
      flex-wrap: wrap;
      gap: 4px;
      margin-top: 4px;
    }
  `,
})
export class PartCard {
  readonly session = input.required<Session>();
  readonly part = input.required<PartGroup>();
  private readonly desk = inject(CaseDesk);
  protected readonly obligation = OBLIGATION;
  protected readonly balance = computed(() => {
    const { kind, about } = this.part();
    if (kind !== 'guide') return undefined;
    const b = this.desk.current()?.answers?.balances.find((x) => x.about === (about ?? ''));
    return b && { words: balanceWords(b), missing: b.verdict === 'missing' };
  });
  /** A belt or chain is mapped; what is observed at its teeth or links. */
  protected readonly kind = computed<MappedKind>(() => (this.part().kind === 'chain' ? 'chain' : 'belt'));
  protected readonly mapped = computed(() => MAPPED[this.kind()]);
}
