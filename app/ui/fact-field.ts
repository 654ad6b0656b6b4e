import {
  ChangeDetectionStrategy,
  Component,
  computed,
  type ElementRef,
  inject,
  input,
  linkedSignal,
  signal,
  viewChild,
} from '@angular/core';
import { NgTemplateOutlet } from '@angular/common';
import { NzInputDirective } from 'ng-zorro-antd/input';
import { nearestCodes } from '@core/catalogue/find-records';
import type { Fact, FactValue, How } from '@core/facts/fact';
import { optionsOf } from '@core/facts/observable';
import { readValue, type ReadValue, unitFor } from '@core/facts/read-value';
import { showValue } from '@core/facts/show-value';
import { CaseDesk } from '../data/case-desk';
import { Drafts } from '../data/drafts';
import { HouseStore } from '../data/house';
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
  private readonly desk = inject(CaseDesk);
  private readonly house = inject(HouseStore);
  private readonly drafts = inject(Drafts);
  private readonly box = viewChild<ElementRef<HTMLInputElement | HTMLTextAreaElement>>('box');

  protected readonly observable = computed(() => this.desk.registry().get(this.key()));
  /** The ways of knowing that a person may give; what is usually computed may be that as well. */
  protected readonly hows = computed(() => {
    const usual = this.observable()?.how;
    const keys = usual && !HOWS.includes(usual) ? [usual, ...HOWS] : HOWS;
    return keys.map((key) => ({ key, word: HOW_WORDS[key] }));
  });
  protected readonly fact = computed<Fact | undefined>(() =>
    this.desk.current()?.state.standing.get(this.key()),
  );
  protected readonly rivals = computed(() =>
    (this.desk.current()?.state.rivals.get(this.key()) ?? []).map((f) => this.show(f)),
  );
  protected readonly id = computed(() => `field-${this.key().replace(/\W/g, '-')}`);
  protected readonly error = signal('');
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
    const draft = this.drafts.read(this.desk.currentId() ?? '', this.key());
    const fact = this.fact();
    return draft || (fact ? this.show(fact) : '');
  });
  protected readonly options = computed(() => {
    const o = this.observable();
    if (!o) return [];
    return o.type.kind === 'wheels'
      ? this.desk.readContext().wheels.map((w) => ({ key: w.id, wording: w.name }))
      : optionsOf(o);
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
    this.put({ value: key });
  }

  protected toggle(key: string, on: boolean): void {
    const value = this.fact()?.value;
    const now = Array.isArray(value) ? value.map(String) : [];
    this.put({ value: on ? [...now, key] : now.filter((k) => k !== key) });
  }

  protected clear(): void {
    this.put({ value: [] });
  }

  protected isNone(): boolean {
    const value = this.fact()?.value;
    return Array.isArray(value) && value.length === 0;
  }

  protected changeHow(how: string): void {
    this.known.set(how as How);
    const fact = this.fact();
    if (fact && fact.how !== how)
      this.put({ value: fact.value, ...(fact.u === undefined ? {} : { u: fact.u }) });
  }

  protected draft(text: string): void {
    this.drafts.keep(this.desk.currentId() ?? '', this.key(), text);
    this.error.set('');
    this.offers.set([]);
  }

  protected press(e: KeyboardEvent, text: string): void {
    const long = this.observable()?.type.kind === 'text' && e.target instanceof HTMLTextAreaElement;
    if (e.key === 'Escape') this.restore();
    else if (e.key === 'Enter' && (!long || e.ctrlKey)) {
      if (this.commit(text)) focusNextField(e.target as HTMLElement);
    } else return;
    e.preventDefault();
  }

  /** Files what was typed when it differs from what stands. True when nothing is wrong with it. */
  protected commit(text: string): boolean {
    const o = this.observable();
    const fact = this.fact();
    const shown = fact ? this.show(fact) : '';
    if (!o || text.trim() === shown || text.trim() === '') {
      this.draft('');
      return true;
    }
    const read = readValue(o, text, this.desk.readContext());
    if (!read.ok) {
      this.error.set(readSentence(read.error));
      if (read.error.code === 'not_found') this.offers.set(nearestCodes(this.suggestions(), text));
      return false;
    }
    this.draft('');
    this.put(read.value);
    return true;
  }

  protected take(offer: string): void {
    const element = this.box()?.nativeElement;
    if (element) element.value = offer;
    this.commit(offer);
  }

  private restore(): void {
    const fact = this.fact();
    this.draft('');
    const element = this.box()?.nativeElement;
    if (element) element.value = fact ? this.show(fact) : '';
  }

  private put(read: ReadValue): void {
    const fact = this.fact();
    if (fact && same(fact.value, read.value) && fact.how === this.known()) return;
    void this.desk.file({ key: this.key(), how: this.known(), ...read });
  }

  private show(f: Fact): string {
    const o = this.observable();
    return o ? showValue(o, f.value, this.house.house(), this.desk.nameOf, f.u) : String(f.value);
  }
}

const same = (a: FactValue, b: FactValue) => JSON.stringify(a) === JSON.stringify(b);
