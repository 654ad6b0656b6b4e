import {
  afterRenderEffect,
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
import { decideCause, recordFault } from '@core/answer/decide';
import { declaring, type NewFact } from '@core/facts/change';
import { type LineReading, offersFor, readDeclaration, readFactLine } from '@core/facts/fact-line';
import { type Observable, optionsOf } from '@core/facts/observable';
import type { ReadError, ReadValue } from '@core/facts/read-value';
import { showValue } from '@core/facts/show-value';
import { CaseDesk } from '../data/case-desk';
import { Commands } from '../commands/commands';
import { Drafts, FACT_LINE } from '../data/drafts';
import { DeskSettingsStore } from '../data/desk-settings';
import { CaseSentences } from '../commands/case-sentences';
import { troubleSentence } from '../data/store-trouble';
import { decideSentence } from '../messages/answers';
import { nameWords } from '../messages/facts';
import { readSentence } from '../messages/reading';
import { plainText } from '@core/facts/value';

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
      placeholder="odo 48200 km; symptom noise"
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
          <b class="mono">{{ o.alias }}</b> {{ o.name }} <small>{{ o.hint }}</small>
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
  private readonly settings = inject(DeskSettingsStore);
  private readonly drafts = inject(Drafts);
  private readonly commands = inject(Commands);
  private readonly voice = inject(CaseSentences).voice;
  private readonly box = viewChild.required<ElementRef<HTMLInputElement>>('box');
  protected readonly typed = signal('');
  protected readonly at = signal(-1);
  private readonly trouble = signal('');

  /** Every fact of the line, parted by semicolons. */
  private readonly readings = computed(() =>
    this.typed()
      .split(';')
      .map((t) => t.trim())
      .filter(Boolean)
      .map((line) => readDeclaration(line) ?? line)
      .map((line) =>
        typeof line !== 'string'
          ? line
          : readFactLine(
              line,
              this.desk.registry(),
              this.desk.readContext(),
              this.desk.applies(),
              this.desk.things(),
            ),
      ),
  );
  private readonly last = computed(() => this.typed().split(';').at(-1)?.trim() ?? '');

  protected readonly offers = computed(() => {
    const line = this.last();
    const reading = line === '' ? undefined : this.readings().at(-1);
    if (
      !reading ||
      'kind' in reading ||
      (reading.ok && (reading.value.read.ok || line.split(/\s+/).length > 2))
    )
      return [];
    return offersFor(line, this.desk.registry(), this.desk.applies(), this.desk.things()).map((o) => ({
      ...o,
      hint: hintOf(o.observable),
    }));
  });

  /** What Enter would file, or what hinders it. */
  private readonly outcome = computed<{ entries: NewFact[]; text: string } | { text: string; bad: boolean }>(
    () => {
      const entries: NewFact[] = [];
      const said: string[] = [];
      for (const reading of this.readings()) {
        if ('kind' in reading) {
          if (reading.place === '')
            return { text: 'Say where it belongs: another tensioner left.', bad: false };
          entries.push(...declaring(reading.kind, reading.place, crypto.randomUUID()));
          said.push(`another ${reading.kind}, ${reading.place}`);
          continue;
        }
        if (!reading.ok) return { text: this.offers().length ? '' : readSentence(reading.error), bad: true };
        const { observable, read } = reading.value;
        if (!read.ok)
          return read.error.code === 'empty'
            ? { text: observable.observe ?? '', bad: false }
            : { text: this.nearest(read.error), bad: true };
        const entry = this.entryOf(reading.value, read.value);
        if (typeof entry === 'string') return { text: entry, bad: true };
        entries.push(entry);
        const value = showValue(
          observable,
          read.value.value,
          this.settings.notation(),
          this.desk.nameOf,
          read.value.u,
        );
        said.push(`${nameWords(entry, this.voice())} = ${value} · ${entry.how}`);
      }
      return entries.length ? { entries, text: `Enter files: ${said.join('; ')}` } : { text: '', bad: false };
    },
  );
  protected readonly preview = computed(() => {
    const o = this.outcome();
    return this.trouble() ? { text: this.trouble(), bad: true } : { text: o.text, bad: 'bad' in o && o.bad };
  });

  constructor() {
    effect(() => {
      const id = this.desk.currentId();
      this.trouble.set('');
      this.typed.set(id ? this.drafts.read(id, FACT_LINE) : '');
    });
    // It may be asked for before it is there: the tape opens for it then.
    afterRenderEffect(() => {
      if (!this.commands.factLineAsked()) return;
      this.commands.factLineAsked.set(false);
      this.box().nativeElement.focus();
    });
  }

  protected type(text: string): void {
    this.typed.set(text);
    this.at.set(-1);
    this.trouble.set('');
    this.drafts.keep(this.desk.currentId() ?? '', FACT_LINE, text);
  }

  protected pick(i: number): void {
    const o = this.offers()[i];
    if (!o) return;
    const before = this.typed().split(';').slice(0, -1);
    this.type([...before, `${before.length ? ' ' : ''}${o.alias} `].join(';'));
    this.box().nativeElement.value = this.typed();
  }

  protected key(e: KeyboardEvent): void {
    const n = this.offers().length;
    if (e.key === 'ArrowDown' && n) this.at.set((this.at() + 1) % n);
    else if (e.key === 'ArrowUp' && n) this.at.set(this.at() <= 0 ? n - 1 : this.at() - 1);
    else if (e.key === 'Tab' && n && !e.shiftKey && this.at() >= 0) this.pick(this.at());
    else if (e.key === 'Escape') this.box().nativeElement.blur();
    else if (e.key === 'Enter') void this.enter();
    else return;
    e.preventDefault();
  }

  private async enter(): Promise<void> {
    if (this.at() >= 0) {
      this.pick(this.at());
      return;
    }
    const [o, text] = [this.outcome(), this.typed()];
    if (!('entries' in o) || this.filing) return;
    this.filing = true;
    const done = await this.desk.fileAll(o.entries);
    this.filing = false;
    if (!done.ok) {
      this.trouble.set(troubleSentence(done.error));
      return;
    }
    // What was typed meanwhile stays.
    if (this.typed() !== text) return;
    this.type('');
    this.box().nativeElement.value = '';
  }
  private filing = false;

  /** What a reading files: decisions stand on what was weighed, everything else on its own. */
  private entryOf(reading: LineReading, read: ReadValue): NewFact | string {
    const { observable, how, note } = reading;
    const answers = this.desk.current()?.answers;
    if (answers && (observable.key === 'cause.decided' || observable.key === 'claim.fault')) {
      const decided =
        observable.key === 'cause.decided'
          ? decideCause(answers, plainText(read.value), note ?? '')
          : recordFault(answers, plainText(read.value));
      return decided.ok ? decided.value : decideSentence(decided.error, this.desk.nameOf);
    }
    const { about, place } = reading;
    return {
      key: observable.key,
      ...(about === undefined ? {} : { about }),
      ...(place ? { place } : {}),
      how,
      ...read,
      ...(note ? { note } : {}),
    };
  }

  private nearest(e: ReadError): string {
    const near = 'nearest' in e && e.nearest.length ? ` Nearest: ${e.nearest.join(' · ')}.` : '';
    return readSentence(e) + near;
  }
}

/** What may follow: a unit, or the first words of a choice. */
function hintOf(o: Observable): string {
  if (o.type.kind === 'number') return o.type.unit;
  const first = optionsOf(o).slice(0, 4);
  return first.map((x) => x.key).join(' / ');
}
