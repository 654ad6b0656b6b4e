import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzInputDirective } from 'ng-zorro-antd/input';
import { optionsOf } from '@core/facts/observable';
import { placeAt, placeWords } from '@core/facts/place';
import { placedOf } from '@core/facts/read';
import { readValue } from '@core/facts/read-value';
import { slotKey } from '@core/facts/meaning';
import type { Fact } from '@core/facts/fact';
import { CaseDesk } from '../data/case-desk';
import { Drafts } from '../data/drafts';
import { VoiceService } from '../acts/voice';
import { troubleSentence } from '../data/store-trouble';
import { valueWords } from '../words/facts';
import { placeExample, readSentence } from '../words/reading';

/** What was seen at places on a thing: "41 root crack", Enter, the next. */
@Component({
  selector: 'hs-placed-field',
  imports: [NzInputDirective, NzButtonComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (observable(); as o) {
      <label [for]="id()">{{ wording() }}</label>
      <input
        nz-input
        #box
        autocomplete="off"
        [id]="id()"
        [value]="draft()"
        [placeholder]="hint()"
        [attr.aria-invalid]="error() ? true : null"
        [attr.aria-describedby]="id() + '-says'"
        (input)="keep(box.value)"
        (keydown.enter)="file(box)"
      />
      <p [id]="id() + '-says'" aria-live="polite">
        @if (error()) {
          <span class="bad">▲ {{ error() }}</span>
        } @else {
          <span class="quiet">Place, then what is there: {{ words() }}</span>
        }
      </p>
      @if (seen().length) {
        <ul [attr.aria-label]="wording()">
          @for (s of seen(); track s.fact.id) {
            <li>
              <span class="mono">{{ s.place }}</span> {{ s.value }}
              <button
                nz-button
                nzType="text"
                nzSize="small"
                [attr.aria-label]="'Strike ' + s.place + ' ' + s.value"
                (click)="strike(s.fact)"
              >
                Strike
              </button>
            </li>
          }
        </ul>
      }
    }
  `,
  styles: `
    :host {
      display: block;
      padding: 3px 0 1px 8px;
      border-left: 3px solid var(--rule);
    }
    label {
      font-weight: 600;
    }
    p,
    ul {
      margin: 2px 0;
      font-size: 0.92em;
    }
    ul {
      padding-left: 1em;
    }
    .bad {
      color: var(--bad-ink);
    }
  `,
})
export class PlacedField {
  readonly key = input.required<string>();
  readonly about = input<string>();
  /** What it stands in names the thing already. */
  readonly named = input(false);
  private readonly desk = inject(CaseDesk);
  private readonly drafts = inject(Drafts);
  private readonly voice = inject(VoiceService).voice;
  protected readonly error = signal('');
  protected readonly observable = computed(() => this.desk.registry().get(this.key()));
  private readonly slot = computed(() => slotKey({ key: this.key(), about: this.about() }));
  protected readonly id = computed(() => `placed-${this.slot().replace(/\W/g, '-')}`);
  protected readonly wording = computed(() =>
    [this.observable()?.wording, this.named() ? '' : this.desk.thing(this.about())]
      .filter(Boolean)
      .join(', '),
  );
  protected readonly draft = computed(() => this.drafts.read(this.desk.currentId() ?? '', this.slot()));
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
    const state = this.desk.current()?.state;
    if (!state) return [];
    return placedOf(state, this.key(), this.about()).map(({ place, fact }) => ({
      fact,
      place: placeWords(place),
      value: valueWords(fact, this.voice(), this.desk.nameOf),
    }));
  });

  protected keep(text: string): void {
    this.drafts.keep(this.desk.currentId() ?? '', this.slot(), text);
    this.error.set('');
  }

  protected async file(box: HTMLInputElement): Promise<void> {
    const o = this.observable();
    const text = box.value;
    if (!o?.place || text.trim() === '') return;
    const ctx = this.desk.readContext();
    const at = placeAt({ wording: o.wording, place: o.place }, text, ctx.most?.(o.place));
    if (!at.ok) return this.error.set(readSentence(at.error));
    const read = readValue(o, at.value.rest, ctx);
    if (!read.ok) return this.error.set(readSentence(read.error));
    const filed = await this.desk.file({
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
    void this.desk.strike(fact);
  }
}
