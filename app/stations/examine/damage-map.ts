import { nth } from '@core/quantity/must';
import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { MAPPED, type MappedKind, stageOfLoop } from '@core/examination/damage-map';
import { optionsOf } from '@core/facts/observable';
import { placedOf } from '@core/facts/read';
import { Notices } from '../../commands/notices';
import { CaseDesk } from '../../data/case-desk';
import { troubleSentence } from '../../data/store-trouble';
import type { Session } from '../../entry/session';
import { lettersOf } from '../../ui/letters';
import { Tiles } from '../../ui/tiles';
import { damageWords } from '../../messages/damage';
import { plainText } from '@core/facts/value';

/** A belt or chain unrolled: every tooth or link a place to press, what was found standing on it, and what it repeats with. */
@Component({
  selector: 'hs-damage-map',
  imports: [Tiles],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (count(); as n) {
      <div class="brush">
        <span [id]="id() + '-brush'">Mark as</span>
        <hs-tiles
          [id]="id() + '-tiles'"
          [labelledby]="id() + '-brush'"
          [options]="grades()"
          [picked]="[brush()]"
          (pressed)="brush.set($event)"
        />
      </div>
      <div
        class="map"
        role="listbox"
        tabindex="0"
        aria-multiselectable="true"
        data-letters
        [attr.aria-label]="unit() === 'tooth' ? 'Belt, tooth by tooth' : 'Chain, link by link'"
        [attr.aria-activedescendant]="id() + '-' + at()"
        (keydown)="press($event)"
      >
        @for (c of cells(); track c.n) {
          <span
            role="option"
            tabindex="-1"
            [id]="id() + '-' + c.n"
            [class.at]="c.n === at()"
            [class.met]="c.met"
            [attr.aria-selected]="c.letter !== ''"
            [attr.aria-label]="unit() + ' ' + c.n + (c.words ? ', ' + c.words : '')"
            (click)="at.set(c.n); mark(c.n)"
            (keydown.enter)="mark(c.n)"
            ><small aria-hidden="true">{{ c.n % 10 === 0 || c.n === 1 ? c.n : '' }}</small
            ><b aria-hidden="true">{{ c.letter }}</b></span
          >
        }
      </div>
      <p class="quiet">
        {{ n }} {{ unit() === 'tooth' ? 'teeth' : 'links' }}, from the paint in running direction. Arrows
        walk, Space marks; the same again takes back.
      </p>
      @for (w of words(); track w) {
        <p class="says" aria-live="polite">{{ w }}</p>
      }
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 4px;
    }
    .brush {
      display: flex;
      gap: 8px;
      align-items: center;
    }
    .map {
      contain: layout style;
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(20px, 1fr));
      gap: 2px 1px;
    }
    .map:focus-visible .at {
      outline: 2px solid var(--verdigris);
    }
    [role='option'] {
      display: grid;
      grid-template-rows: 12px 20px;
      cursor: pointer;
      text-align: center;
    }
    small {
      font: 10px var(--mono);
      color: var(--ink-2);
    }
    b {
      background: var(--paper-3);
      border-bottom: 3px solid var(--rule-strong);
      border-radius: 2px 2px 0 0;
      font: 600 12px/17px var(--mono);
    }
    [aria-selected='true'] b {
      background: var(--brass-soft);
      border-bottom-color: var(--brass);
    }
    .met b {
      border-bottom-style: double;
      border-bottom-color: var(--verdigris);
    }
    p {
      margin: 0;
    }
    .says {
      font-weight: 600;
    }
  `,
})
export class DamageMapPart {
  readonly session = input.required<Session>();
  readonly kind = input.required<MappedKind>();
  readonly about = input<string>();
  private readonly desk = inject(CaseDesk);
  private readonly notices = inject(Notices);
  protected readonly at = signal(1);
  protected readonly brush = signal('');
  protected readonly id = computed(() => `map-${(this.about() ?? this.kind()).replace(/\W/g, '-')}`);
  protected readonly unit = computed(() => (this.kind() === 'belt' ? 'tooth' : 'link'));
  private readonly observable = computed(() => this.session().observable(MAPPED[this.kind()]));
  protected readonly grades = computed(() => {
    const o = this.observable();
    return o ? optionsOf(o) : [];
  });
  private readonly letters = computed(() => new Map(lettersOf(this.grades()).map((c) => [c.key, c])));
  private readonly stage = computed(() => {
    const state = this.session().state();
    const stages = this.session().drive()?.stages ?? [];
    return state && stageOfLoop(state, this.kind(), this.about() ?? '', stages);
  });
  protected readonly count = computed(() => this.stage()?.layout.count);
  private readonly answer = computed(() =>
    this.desk
      .current()
      ?.answers?.damage.find((m) => m.kind === this.kind() && m.about === (this.about() ?? '')),
  );
  /** What stands at its places; the same list as long as the same facts stand. */
  private readonly seen = computed(
    () => {
      const state = this.session().state();
      return state ? placedOf(state, MAPPED[this.kind()], this.about()) : [];
    },
    { equal: (a, b) => a.length === b.length && a.every((x, i) => x.fact === nth(b, i).fact) },
  );
  protected readonly words = computed(() => {
    const a = this.answer();
    return a ? damageWords(a) : [];
  });
  protected readonly cells = computed(() => {
    const letters = this.letters();
    const s = this.answer()?.spacing;
    const met = new Set(s?.verdict === 'wheel' ? s.met : []);
    return Array.from({ length: this.count() ?? 0 }, (_, i) => {
      const n = i + 1;
      const here = this.seen().filter(
        ({ place: { from, to } }) => from !== undefined && n >= from && n <= (to ?? from),
      );
      return {
        n,
        letter: here.map((s) => letters.get(plainText(s.value))?.letter ?? '·').join(''),
        words: here.map((s) => letters.get(plainText(s.value))?.wording.toLowerCase() ?? '').join(', '),
        met: met.has(n),
      };
    });
  });

  protected press(e: KeyboardEvent): void {
    if (e.ctrlKey || e.altKey || e.metaKey) return;
    const n = this.count() ?? 0;
    const by = { ArrowRight: 1, ArrowLeft: -1, ArrowDown: 10, ArrowUp: -10, Home: -n, End: n }[e.key];
    if (by !== undefined) this.at.update((a) => Math.max(1, Math.min(n, a + by)));
    else if (e.key === ' ') this.mark(this.at());
    else {
      const found = [...this.letters().values()].find((c) => c.letter === e.key);
      if (!found) return;
      this.brush.set(found.key);
      this.mark(this.at());
    }
    e.preventDefault();
  }

  /** Marks a place with the grade in hand; the same again takes it back. */
  protected mark(n: number): void {
    const value = this.brush() || this.grades()[0]?.key;
    if (value === undefined || this.session().readOnly) return;
    this.brush.set(value);
    const same = this.seen().find((s) => s.value === value && s.place.from === n && (s.place.to ?? n) === n);
    const key = MAPPED[this.kind()];
    const filed = same
      ? this.session().strike(same.fact)
      : this.session().file({
          key,
          about: this.about(),
          place: { on: this.unit(), from: n },
          value,
          how: 'seen',
        });
    void filed.then((f) => {
      if (!f.ok) this.notices.refuse(troubleSentence(f.error));
    });
  }
}
