import { ChangeDetectionStrategy, Component, computed, input, signal } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzInputDirective } from 'ng-zorro-antd/input';
import { optionsOf } from '@core/facts/observable';
import { placeAt, placeWords } from '@core/facts/place';
import { placedOf } from '@core/facts/read';
import { readValue } from '@core/facts/read-value';
import { slotKey } from '@core/facts/meaning';
import type { Fact } from '@core/facts/fact';
import { troubleSentence } from '../data/store-trouble';
import { placeExample, readSentence } from '../messages/reading';
import type { Session } from './session';

/** What was seen at places on a thing: "41 root crack", Enter, the next. */
@Component({
  selector: 'hs-placed-field',
  imports: [NzInputDirective, NzButtonComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (observable(); as o) {
      <div class="field" [class.known]="seen().length" [attr.data-field]="seen().length ? 'known' : 'lacks'">
        <label class="label" [for]="id()">{{ wording() }}</label>
        @if (!session().readOnly) {
          <input
            nz-input
            #box
            class="entry"
            autocomplete="off"
            [id]="id()"
            [value]="draft()"
            [placeholder]="hint()"
            [attr.aria-invalid]="error() ? true : null"
            [attr.aria-describedby]="id() + '-says ' + id() + '-help'"
            (input)="keep(box.value)"
            (keydown.enter)="file(box)"
          />
        }
        <p class="says" [id]="id() + '-says'" aria-live="polite">
          @if (error()) {
            <span class="bad">▲ {{ error() }}</span>
          }
        </p>
        <span class="hidden-text" [id]="id() + '-help'">Place, then what is there: {{ words() }}.</span>
        @if (seen().length) {
          <ul [attr.aria-label]="wording()">
            @for (s of seen(); track s.fact.id) {
              <li>
                <span class="mono">{{ s.place }}</span> {{ s.value }}
                @if (!session().readOnly) {
                  <button
                    nz-button
                    nzType="text"
                    nzSize="small"
                    [attr.aria-label]="'Strike ' + s.place + ' ' + s.value"
                    (click)="strike(s.fact)"
                  >
                    Strike
                  </button>
                }
              </li>
            }
          </ul>
        }
      </div>
    }
  `,
  styleUrl: './field.less',
  styles: `
    p,
    ul {
      grid-column: 1 / -1;
      margin: 2px 0;
    }
    ul {
      padding-left: 1em;
    }
  `,
})
export class PlacedField {
  readonly session = input.required<Session>();
  readonly key = input.required<string>();
  readonly about = input<string>();
  /** What it stands in names the thing already. */
  readonly named = input(false);
  protected readonly error = signal('');
  protected readonly observable = computed(() => this.session().observable(this.key()));
  private readonly slot = computed(() => slotKey({ key: this.key(), about: this.about() }));
  protected readonly id = computed(() => `placed-${this.slot().replace(/\W/g, '-')}`);
  protected readonly wording = computed(() =>
    [this.observable()?.wording, this.named() ? '' : this.session().thing(this.about())]
      .filter(Boolean)
      .join(', '),
  );
  protected readonly draft = computed(() => this.session().draft(this.slot()));
  protected readonly hint = computed(() => {
    const on = this.observable()?.place;
    return on ? placeExample(on) : '';
  });
  protected readonly words = computed(() => {
    const o = this.observable();
    if (o?.type.kind === 'number') return o.type.unit;
    return o
      ? optionsOf(o)
          .map((x) => x.wording.toLowerCase())
          .join(', ')
      : '';
  });
  protected readonly seen = computed(() => {
    const [state, o] = [this.session().state(), this.observable()];
    if (!state || !o) return [];
    return placedOf(state, this.key(), this.about()).map(({ place, fact }) => ({
      fact,
      place: placeWords(place),
      value: this.session().show(o, fact.value, fact.u),
    }));
  });

  protected keep(text: string): void {
    this.session().keepDraft(this.slot(), text);
    this.error.set('');
  }

  protected async file(box: HTMLInputElement): Promise<void> {
    const o = this.observable();
    const text = box.value;
    if (!o?.place || text.trim() === '') return;
    const ctx = this.session().readContext();
    const at = placeAt({ wording: o.wording, place: o.place }, text, ctx.most?.(o.place));
    if (!at.ok) return this.error.set(readSentence(at.error));
    const read = readValue(o, at.value.rest, ctx);
    if (!read.ok) return this.error.set(readSentence(read.error));
    const filed = await this.session().file({
      key: this.key(),
      about: this.about(),
      place: at.value.place,
      how: o.how,
      ...read.value,
    });
    if (!filed.ok) return this.error.set(troubleSentence(filed.error));
    if (box.value === text) {
      box.value = '';
      this.keep('');
    }
  }

  protected strike(fact: Fact): void {
    void this.session().strike(fact);
  }
}
