import { ChangeDetectionStrategy, Component, computed, input, linkedSignal } from '@angular/core';
import type { Catalogue } from '@core/catalogue/find-records';
import type { Part } from '@core/catalogue/pack';
import { compareParts } from '@core/match/compare-parts';
import { LISTED_WORDS } from '../messages/jobs';
import { scaledViews } from '../part-drawings/to-scale';
import { Overlaid } from '../ui/overlaid';
import { Pick } from '../ui/pick';

/** Others of its kind that a part is held against: a list that can be looked through. */
const MOST = 300;

/** Two parts of one kind over each other at one scale, and what differs. */
@Component({
  selector: 'hs-two-parts',
  imports: [Overlaid, Pick],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (drawable().length) {
      <section class="card" aria-label="Two parts at one scale">
        <h2>Two parts at one scale</h2>
        <div class="row">
          <hs-pick label="Part" [options]="choices()" [value]="one()" (picked)="one.set($event)" />
          <hs-pick
            label="against"
            placeholder="another of its kind"
            [options]="others()"
            [value]="two()"
            (picked)="two.set($event)"
          />
        </div>
        @if (shown(); as s) {
          <hs-overlaid
            [label]="s.label"
            [first]="s.first"
            [firstName]="s.a.number"
            [second]="s.second"
            [secondName]="s.b?.number ?? ''"
          />
          @for (l of s.lines; track l.attribute.key) {
            <div>
              {{ l.name }}: {{ l.new }}{{ l.unit }}
              @if (l.old !== undefined) {
                against {{ l.old }}{{ l.unit }}
              }
              <small>{{ l.says }}</small>
            </div>
          }
        }
      </section>
    }
  `,
  styles: `
    section {
      display: grid;
      gap: 6px;
      align-content: start;
    }
  `,
})
export class TwoParts {
  /** Parts of this engine's kits. */
  readonly parts = input.required<readonly Part[]>();
  readonly catalogue = input.required<Catalogue>();
  protected readonly drawable = computed(() => this.parts().filter((p) => scaledViews(p).length > 0));
  protected readonly choices = computed(() => this.drawable().map(wordOf));
  protected readonly one = linkedSignal<string | undefined>(() => this.drawable()[0]?.number);
  private readonly first = computed(() => this.drawable().find((p) => p.number === this.one()));
  private readonly alike = computed(() => {
    const a = this.first();
    return this.catalogue()
      .pack.parts.filter((p) => p.kind === a?.kind && p.number !== a.number && scaledViews(p).length > 0)
      .slice(0, MOST);
  });
  protected readonly others = computed(() => this.alike().map(wordOf));
  protected readonly two = linkedSignal<string | undefined>(() => {
    this.first();
    return undefined;
  });
  protected readonly shown = computed(() => {
    const a = this.first();
    if (!a) return undefined;
    const b = this.alike().find((p) => p.number === this.two());
    const old = new Map(Object.entries(b?.attributes ?? {}).map(([key, value]) => [key, { value }]));
    const lines = b ? compareParts(this.catalogue(), a, old).lines : [];
    return {
      a,
      b,
      first: scaledViews(a),
      second: b ? scaledViews(b) : [],
      lines: lines.map((l) => ({
        name: l.attribute.wording,
        unit: l.attribute.kind === 'mm' ? ' mm' : '',
        ...l,
        says: LISTED_WORDS[l.verdict],
      })),
      label: `${a.number}${b ? ` and, dashed, ${b.number}` : ''}, to scale`,
    };
  });
}

const wordOf = (p: Part) => ({ key: p.number, wording: `${p.number} ${p.name}` });
