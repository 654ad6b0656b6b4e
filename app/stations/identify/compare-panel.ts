import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { attributeKey } from '@core/catalogue/attribute-observables';
import { compareParts, wrapShortfall } from '@core/match/compare-parts';
import { formatNumber } from '@core/quantity/format-quantity';
import { standing } from '@core/facts/read';
import { oldThing } from '@core/facts/thing';
import { CaseDesk } from '../../data/case-desk';
import { DeskSession } from '../../entry/desk-session';
import { Field } from '../../entry/field';
import { scaledViews } from '../../part-drawings/to-scale';
import { Overlaid } from '../../ui/overlaid';
import { Pick } from '../../ui/pick';
import { COMPARE_WORDS, COMPARISON_WORDS } from '../../messages/jobs';

/** The old part against the new one, attribute by attribute. */
@Component({
  selector: 'hs-compare-panel',
  imports: [Field, Overlaid, Pick],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="card" aria-label="Old part against new">
      <h2>Old part against new</h2>
      @if (parts().length) {
        <hs-pick
          label="New part"
          [options]="choices()"
          [value]="part()?.number"
          (picked)="chosen.set($event)"
        />
        @if (comparison(); as c) {
          <p class="verdict">
            {{ overall(c.verdict) }}
            @if (c.lacks.length) {
              <span class="quiet">Still to measure: {{ lacks() }}.</span>
            }
          </p>
          @if (drawn(); as d) {
            <hs-overlaid
              label="Both at one scale"
              [first]="d.fresh"
              firstName="new"
              [second]="d.old"
              secondName="old, as measured"
            />
          }
          @for (l of c.lines; track l.attribute.key) {
            <div class="line">
              <hs-field [session]="session" [key]="keyOf(l.attribute.key)" [about]="old()" />
              <div>
                <span class="quiet">new:</span> <b>{{ l.new }}{{ l.attribute.kind === 'mm' ? ' mm' : '' }}</b
                ><br />{{ word(l.verdict) }}
                @if (l.by) {
                  <small>(as in {{ l.by }})</small>
                }
              </div>
              @if (l.verdict === 'wrong') {
                <div class="caution">If it is fitted: {{ l.attribute.wrong }}</div>
              }
            </div>
          }
        }
        @if (shortfall(); as s) {
          <p class="quiet">
            Wrapped once round the new belt, the old one comes up short by {{ s }} teeth although both have
            the same length: it lies further out. Count the teeth instead.
          </p>
        }
      } @else {
        <p class="quiet">Name a kit, or leave one design, and its parts can be compared with the old ones.</p>
      }
    </section>
  `,
  styles: `
    section {
      display: grid;
      gap: 6px;
    }
    .line {
      display: grid;
      grid-template-columns: minmax(0, 1fr) 118px;
      gap: 2px 10px;
    }
    .line .caution {
      grid-column: 1 / -1;
    }
    .verdict {
      font-weight: 600;
      margin: 0;
    }
    .verdict .quiet {
      font-weight: 400;
    }
  `,
})
export class ComparePartsPanel {
  protected readonly session = inject(DeskSession);
  private readonly desk = inject(CaseDesk);
  protected readonly chosen = signal<string | undefined>(undefined);
  protected readonly parts = computed(() => {
    const view = this.desk.current();
    const a = view?.answers;
    const kit = a?.kit ?? a?.kits.find((k) => k.verdict === 'fits')?.kit;
    const parts = (kit?.contents ?? [])
      .map((c) => view?.catalogue?.parts.get(c.part))
      .filter((p) => p !== undefined);
    return parts.filter((p) => Object.keys(p.attributes).length > 0);
  });
  protected readonly choices = computed(() =>
    this.parts().map((p) => ({ key: p.number, wording: `${p.number} ${p.name}` })),
  );
  protected readonly part = computed(
    () => this.parts().find((p) => p.number === this.chosen()) ?? this.parts()[0],
  );
  /** What is measured of the old part, by attribute. */
  private readonly measured = computed(() => {
    const [view, part] = [this.desk.current(), this.part()];
    const old = new Map<string, { value: number | string; u?: number }>();
    for (const key of Object.keys((view && part?.attributes) ?? {})) {
      const fact = view && part && standing(view.state, attributeKey(key), oldThing(part.kind));
      if (fact && (typeof fact.value === 'number' || typeof fact.value === 'string'))
        old.set(key, {
          value: fact.value,
          ...(fact.u === undefined ? {} : { u: fact.u }),
        });
    }
    return old;
  });
  protected readonly comparison = computed(() => {
    const [view, part] = [this.desk.current(), this.part()];
    return view?.catalogue && part ? compareParts(view.catalogue, part, this.measured()) : undefined;
  });
  /** The new part to scale, and over it the old one with what was measured of it, the rest as in the new. */
  protected readonly drawn = computed(() => {
    const part = this.part();
    const fresh = part ? scaledViews(part) : [];
    if (!part || fresh.length === 0) return undefined;
    const values = [...this.measured()].map(([key, m]): [string, number | string] => [key, m.value]);
    const attributes = { ...part.attributes, ...Object.fromEntries(values) };
    return { fresh, old: values.length > 0 ? scaledViews({ kind: part.kind, attributes }) : [] };
  });
  protected readonly lacks = computed(() =>
    (this.comparison()?.lacks ?? []).map((a) => a.wording.toLowerCase()).join(', '),
  );
  protected readonly shortfall = computed(() => {
    const { thicknessMm, pitchMm } = this.part()?.attributes ?? {};
    return typeof thicknessMm === 'number' && typeof pitchMm === 'number'
      ? formatNumber(wrapShortfall(thicknessMm, pitchMm), 1)
      : undefined;
  });

  protected readonly keyOf = attributeKey;
  protected readonly old = computed(() => oldThing(this.part()?.kind ?? 'belt'));

  protected word(v: keyof typeof COMPARE_WORDS): string {
    return COMPARE_WORDS[v];
  }

  protected overall(v: keyof typeof COMPARISON_WORDS): string {
    return COMPARISON_WORDS[v];
  }
}
