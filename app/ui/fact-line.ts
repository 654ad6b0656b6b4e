import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  type ElementRef,
  inject,
  signal,
  viewChild,
} from '@angular/core';
import { NzInputDirective } from 'ng-zorro-antd/input';
import { completions, readLine } from '@core/facts/fact-line';
import { optionsOf } from '@core/facts/observable';
import { showValue } from '@core/facts/show-value';
import { CaseDesk } from '../data/case-desk';
import { Commands } from '../data/commands';
import { Drafts } from '../data/drafts';
import { HouseStore } from '../data/house';
import { readSentence } from '../words/reading';

/** One line for everything: name, value, Enter. */
@Component({
  selector: 'hs-fact-line',
  imports: [NzInputDirective],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label for="fact-line">Fact line <span class="quiet">key f</span></label>
    <input
      nz-input
      #box
      id="fact-line"
      class="mono"
      autocomplete="off"
      role="combobox"
      aria-autocomplete="list"
      aria-controls="fact-line-list"
      aria-describedby="fact-line-says"
      [attr.aria-expanded]="offers().length > 0"
      [attr.aria-activedescendant]="at() >= 0 ? 'fl-' + at() : null"
      placeholder="ptr -96 · edge front frayed"
      [value]="typed()"
      (input)="type(box.value)"
      (keydown)="key($event)"
    />
    <div id="fact-line-list" role="listbox" aria-label="Observables that fit">
      @for (o of offers(); track o.key; let i = $index) {
        <div
          role="option"
          tabindex="-1"
          [id]="'fl-' + i"
          [attr.aria-selected]="i === at()"
          (mousedown)="pick(i); $event.preventDefault()"
        >
          <b class="mono">{{ o.aliases[0] ?? o.wording }}</b> {{ o.wording }} <small>{{ o.hint }}</small>
        </div>
      }
    </div>
    <p id="fact-line-says" aria-live="polite" [class.bad]="preview().bad">{{ preview().text }}</p>
  `,
  styles: `
    :host {
      display: block;
      padding: 8px 12px 2px;
      border-bottom: 1px solid var(--rule);
      position: relative;
    }
    label {
      display: flex;
      justify-content: space-between;
      font-weight: 600;
      margin-bottom: 2px;
    }
    [role='option'] {
      padding: 2px 4px;
      cursor: pointer;
    }
    [role='option'][aria-selected='true'] {
      background: var(--verdigris-soft);
    }
    p {
      min-height: 1.45em;
      margin: 2px 0;
      font-size: 0.92em;
    }
    .bad {
      color: var(--bad-ink);
    }
  `,
})
export class FactLine {
  private readonly desk = inject(CaseDesk);
  private readonly house = inject(HouseStore);
  private readonly drafts = inject(Drafts);
  private readonly commands = inject(Commands);
  private readonly box = viewChild.required<ElementRef<HTMLInputElement>>('box');
  protected readonly typed = signal('');
  protected readonly at = signal(-1);

  private readonly reading = computed(() => {
    const line = this.typed().trim();
    return line === '' ? undefined : readLine(line, this.desk.registry(), this.desk.readContext());
  });

  protected readonly offers = computed(() => {
    const reading = this.reading();
    if (reading?.ok && (reading.value.read.ok || this.typed().trim().split(/\s+/).length > 2)) return [];
    return completions(this.typed(), this.desk.registry()).map((o) => ({
      ...o,
      hint:
        o.type.kind === 'number'
          ? o.type.unit
          : optionsOf(o)
              .map((x) => x.key)
              .slice(0, 4)
              .join(' / '),
    }));
  });

  protected readonly preview = computed(() => {
    const reading = this.reading();
    if (!reading) return { text: '', bad: false };
    if (!reading.ok) return { text: this.offers().length ? '' : readSentence(reading.error), bad: true };
    const { observable, read, how } = reading.value;
    if (!read.ok)
      return {
        text: read.error.code === 'empty' ? (observable.observe ?? '') : readSentence(read.error),
        bad: read.error.code !== 'empty',
      };
    const value = showValue(observable, read.value.value, this.house.house(), this.desk.nameOf, read.value.u);
    return { text: `Enter files: ${observable.wording} = ${value} · ${how}`, bad: false };
  });

  constructor() {
    effect(() => {
      const id = this.desk.currentId();
      this.typed.set(id ? this.drafts.read(id, 'fact-line') : '');
    });
    effect(() => {
      if (this.commands.factLineAsked() > 0) this.box().nativeElement.focus();
    });
  }

  protected type(text: string): void {
    this.typed.set(text);
    this.at.set(-1);
    this.drafts.keep(this.desk.currentId() ?? '', 'fact-line', text);
  }

  protected pick(i: number): void {
    const o = this.offers()[i];
    if (!o) return;
    this.type(`${o.aliases[0] ?? o.wording} `);
    this.box().nativeElement.value = this.typed();
  }

  protected key(e: KeyboardEvent): void {
    const n = this.offers().length;
    if (e.key === 'ArrowDown' && n) this.at.set((this.at() + 1) % n);
    else if (e.key === 'ArrowUp' && n) this.at.set((this.at() + n) % n);
    else if (e.key === 'Tab' && n && !e.shiftKey && this.at() >= 0) this.pick(this.at());
    else if (e.key === 'Escape') this.box().nativeElement.blur();
    else if (e.key === 'Enter') this.enter();
    else return;
    e.preventDefault();
  }

  private enter(): void {
    if (this.at() >= 0) {
      this.pick(this.at());
      return;
    }
    const reading = this.reading();
    if (!reading?.ok || !reading.value.read.ok) return;
    const { observable, how, read } = reading.value;
    void this.desk.file({ key: observable.key, how, ...read.value });
    this.type('');
    this.box().nativeElement.value = '';
  }
}
