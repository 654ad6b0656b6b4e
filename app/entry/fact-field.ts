import {
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  input,
  linkedSignal,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { NgTemplateOutlet } from '@angular/common';
import { NzInputDirective } from 'ng-zorro-antd/input';
import { possibleOptions } from '@core/answer/applies';
import type { Fact, FactValue, How } from '@core/facts/fact';
import { slotKey } from '@core/facts/meaning';
import { measuredOf, rivalsOf, standing, valueOf } from '@core/facts/read';
import { optionsOf } from '@core/facts/observable';
import { readValue, type ReadValue, unitFor } from '@core/facts/read-value';
import { showValue } from '@core/facts/show-value';
import { CaseDesk, type Filed } from '../data/case-desk';
import { Drafts } from '../data/drafts';
import { HouseStore } from '../data/house';
import { troubleSentence } from '../data/store-trouble';
import { HOW_WORDS, readSentence } from '../words/reading';
import { focusNextField } from './next-field';

const HOWS: How[] = ['measured', 'seen', 'document', 'reported'];

/** Renders any observable: shows what stands, takes a new value, says how it is known. Enter files and goes on. */
@Component({
  selector: 'hs-fact-field',
  imports: [NzInputDirective, NgTemplateOutlet],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './fact-field.html',
  styleUrl: './fact-field.less',
})
export class FactField {
  readonly key = input.required<string>();
  /** The thing that it is about; the first of the observable's kind unless given. */
  readonly about = input<string>();
  /** What it stands in names the thing already. */
  readonly named = input(false);
  private readonly desk = inject(CaseDesk);
  private readonly house = inject(HouseStore);
  private readonly drafts = inject(Drafts);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly box = viewChild<ElementRef<HTMLInputElement | HTMLTextAreaElement>>('box');

  protected readonly observable = computed(() => this.desk.registry().get(this.key()));
  /** The ways of knowing that a person may give; what is usually computed may be that as well. */
  protected readonly hows = computed(() => {
    const usual = this.observable()?.how;
    const keys = usual && !HOWS.includes(usual) ? [usual, ...HOWS] : HOWS;
    return keys.map((key) => ({ key, word: HOW_WORDS[key] }));
  });
  protected readonly fact = computed<Fact | undefined>(() => {
    const state = this.desk.current()?.state;
    return state && standing(state, this.key(), this.about());
  });
  /** The next reading joins those that are there instead of correcting them. */
  protected readonly again = signal(false);
  protected readonly repeatable = computed(
    () => this.observable()?.type.kind === 'number' && this.observable()?.how === 'measured',
  );
  /** All readings and their mean, once there are several. */
  protected readonly repeats = computed(() => {
    const [state, o] = [this.desk.current()?.state, this.observable()];
    const m = state && o && measuredOf(state, this.desk.registry(), o.key, this.about());
    if (!m || !o || m.repeats.n < 2) return '';
    const show = (value: number, u?: number) => showValue(o, value, this.house.house(), this.desk.nameOf, u);
    return `Mean of ${m.repeats.n}: ${show(m.value, m.u)}. Readings ${m.facts.map((f) => show(Number(f.value))).join(' · ')}.`;
  });
  protected readonly wording = computed(() => {
    const thing = this.named() ? '' : this.desk.thing(this.about());
    return `${this.observable()?.wording ?? ''}${thing === '' ? '' : `, ${thing}`}`;
  });
  /** Where its draft is kept. */
  private readonly draftKey = computed(() => slotKey({ key: this.key(), about: this.about() }));
  protected readonly rivals = computed(() => {
    const state = this.desk.current()?.state;
    return state ? rivalsOf(state, this.key(), this.about()).map((f) => this.show(f)) : [];
  });
  protected readonly id = computed(
    () => `field-${[this.key(), ...(this.about() ? [this.about()] : [])].join('-').replace(/\W/g, '-')}`,
  );
  protected readonly error = signal('');
  /** Says that what stands in the box cannot be read, so that nothing beside it goes on judging. */
  readonly misread = output<boolean>();
  /** What is on its way to the disk: Enter, and then leaving the field, file it once. */
  private underWay = '';
  protected readonly offers = signal<string[]>([]);
  protected readonly known = linkedSignal<How>(
    () => this.fact()?.how ?? this.observable()?.how ?? 'reported',
  );
  protected readonly unit = computed(() => {
    const o = this.observable();
    return o ? (unitFor(o, this.house.house()) ?? '') : '';
  });
  /** Text in the box: a draft if one was left, else what stands. */
  protected readonly text = computed(() => {
    const draft = this.drafts.read(this.desk.currentId() ?? '', this.draftKey());
    const fact = this.fact();
    return draft || (fact && !this.again() ? this.show(fact) : '');
  });
  protected readonly options = computed(() => {
    const o = this.observable();
    if (!o) return [];
    return o.type.kind === 'wheels'
      ? this.desk.readContext().wheels.map((w) => ({ key: w.id, wording: w.name }))
      : possibleOptions(optionsOf(o), this.desk.current()?.answers?.possible ?? { has: undefined });
  });
  protected readonly none = computed(() => {
    const t = this.observable()?.type;
    return t?.kind === 'several' || t?.kind === 'wheels' ? t.none : '';
  });
  protected readonly suggestions = computed<string[]>(() => {
    const t = this.observable()?.type;
    const cat = this.desk.current()?.catalogue;
    if (t?.kind !== 'ref' || !cat) return [];
    if (t.table === 'engine') return [...cat.engines.keys()].slice(0, 50);
    return t.table === 'kit' ? [...cat.kits.keys()].slice(0, 50) : [];
  });

  protected isPicked(key: string): boolean {
    const value = this.fact()?.value;
    return Array.isArray(value) ? value.map(String).includes(key) : value === key;
  }

  protected choose(key: string): void {
    void this.put({ value: key });
  }

  /** Each tick builds on what stands when it is written, so that quick ones do not undo each other. */
  protected toggle(key: string, on: boolean): void {
    void this.filed(
      this.desk.file((state) => {
        const value = valueOf(state, this.key(), this.about());
        const rest = (Array.isArray(value) ? value.map(String) : []).filter((k) => k !== key);
        return { ...this.slot(), how: this.known(), value: on ? [...rest, key] : rest };
      }),
    );
  }

  protected clear(): void {
    void this.put({ value: [] });
  }

  protected isNone(): boolean {
    const value = this.fact()?.value;
    return Array.isArray(value) && value.length === 0;
  }

  protected changeHow(how: string): void {
    this.known.set(how as How);
    const fact = this.fact();
    if (fact && fact.how !== how)
      void this.put({ value: fact.value, ...(fact.u === undefined ? {} : { u: fact.u }) });
  }

  protected draft(text: string): void {
    this.drafts.keep(this.desk.currentId() ?? '', this.draftKey(), text);
    this.say('');
    this.offers.set([]);
  }

  private say(error: string): void {
    if ((this.error() === '') !== (error === '')) this.misread.emit(error !== '');
    this.error.set(error);
  }

  protected press(e: KeyboardEvent, text: string): void {
    const long = this.observable()?.type.kind === 'text' && e.target instanceof HTMLTextAreaElement;
    if (e.key === 'Escape') this.restore();
    else if (e.key === 'Enter' && (!long || e.ctrlKey)) {
      if (this.commit(text) && !this.again()) focusNextField(e.target as HTMLElement);
    } else return;
    e.preventDefault();
  }

  /** Files what was typed when it differs from what stands. True when nothing is wrong with it. */
  protected commit(text: string): boolean {
    const o = this.observable();
    const fact = this.fact();
    const shown = fact && !this.again() ? this.show(fact) : '';
    if (!o || text.trim() === shown || text.trim() === '') {
      this.draft('');
      return true;
    }
    if (text === this.underWay) return true;
    const read = readValue(o, text, this.desk.readContext());
    if (!read.ok) {
      this.say(readSentence(read.error));
      this.offers.set('nearest' in read.error ? read.error.nearest : []);
      return false;
    }
    this.underWay = text;
    void this.put(read.value).then((done) => {
      this.underWay = '';
      // The text goes when it is on the disk, unless more was typed meanwhile.
      if (!done || this.drafts.read(this.desk.currentId() ?? '', this.draftKey()) !== text) return;
      this.draft('');
      const box = this.box()?.nativeElement;
      if (this.again() && box?.value === text) box.value = '';
    });
    return true;
  }

  protected take(offer: string): void {
    const element = this.box()?.nativeElement;
    if (element) element.value = offer;
    this.commit(offer);
  }

  /** Measure again: the box empties, and every Enter adds a reading until it is left by Escape. */
  protected measureAgain(on: boolean): void {
    this.again.set(on);
    this.draft('');
    const element = this.box()?.nativeElement;
    if (element) element.value = this.text();
    element?.focus();
  }

  private restore(): void {
    this.again.set(false);
    const fact = this.fact();
    this.draft('');
    this.underWay = '';
    const element = this.box()?.nativeElement;
    if (element) element.value = fact ? this.show(fact) : '';
  }

  private async put(read: ReadValue): Promise<boolean> {
    const fact = this.fact();
    const repeat = this.again();
    if (!repeat && fact && same(fact.value, read.value) && fact.how === this.known()) return true;
    return this.filed(this.desk.file({ ...this.slot(), how: this.known(), repeat, ...read }));
  }

  /** Waits until it is on the disk; what was not filed is said, and the box or the choice shows what stands. */
  private async filed(filing: Promise<Filed>): Promise<boolean> {
    const done = await filing;
    if (done.ok) return true;
    this.say(troubleSentence(done.error));
    this.tickAsStands();
    return false;
  }

  /** A tick that was not filed goes back: its box was changed by the hand, not by what is known. */
  private tickAsStands(): void {
    const boxes = this.host.nativeElement.querySelectorAll<HTMLInputElement>('[data-option]');
    for (const b of boxes) b.checked = this.isPicked(b.dataset['option'] ?? '');
  }

  private slot(): { key: string; about?: string | undefined } {
    return { key: this.key(), about: this.about() };
  }

  private show(f: Fact): string {
    const o = this.observable();
    return o ? showValue(o, f.value, this.house.house(), this.desk.nameOf, f.u) : String(f.value);
  }
}

const same = (a: FactValue, b: FactValue) => JSON.stringify(a) === JSON.stringify(b);
