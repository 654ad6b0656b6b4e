import { nth } from '@core/quantity/must';
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
import { NzAutocompleteModule } from 'ng-zorro-antd/auto-complete';
import { NzInputDirective } from 'ng-zorro-antd/input';
import type { Fact, FactValue, Provenance } from '@core/facts/fact';
import { slotKey } from '@core/facts/meaning';
import { filedOf, rivalsOf, valueOf } from '@core/facts/read';
import { whySilent } from '@core/facts/silence';
import { readValue, type ReadValue } from '@core/facts/read-value';
import type { Filed } from '../data/case-desk';
import { troubleSentence } from '../data/store-trouble';
import { DatePick } from '../ui/date-pick';
import { HeldPointer } from '../ui/held-pointer';
import type { TileChoice } from '../ui/letters';
import { LimitStrip } from '../ui/limit-strip';
import type { TilePicture } from '../ui/tile-drawing';
import { Tiles } from '../ui/tiles';
import { termIn } from '../messages/glossary';
import { HOW_SHORT, readSentence } from '../messages/reading';
import { Dictate } from './dictate';
import { helpFor, NOTHING_TILE, optionsFor, pickedOf, stripFor, valueOfTile } from './field-view';
import { BenchLook } from './look';
import { focusNextLacking } from './next-field';
import type { Session } from './session';

const HOWS: readonly Provenance[] = ['measured', 'seen', 'document', 'reported'];

/**
 * Shows what stands of any observable in a session and takes a new value. Tiles file at one press, boxes at Enter; both
 * go on to what is still lacking. F2 says how it is known otherwise than usual.
 */
@Component({
  selector: 'hs-field',
  imports: [NzInputDirective, NzAutocompleteModule, Tiles, LimitStrip, DatePick, BenchLook, Dictate],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(keydown.f2)': 'cycleHow(); $event.preventDefault()' },
  templateUrl: './field.html',
  styleUrl: './field.less',
})
export class Field {
  readonly session = input.required<Session>();
  readonly key = input.required<string>();
  /** The thing that it is about; the first of the observable's kind unless given. */
  readonly about = input<string>();
  /** What it stands in names the thing already. */
  readonly named = input(false);
  /** How a grade is drawn, where it has a picture. */
  readonly drawn = input<(observable: string, grade: string) => TilePicture | undefined>();
  /** Says that what stands in the box cannot be read, so that nothing beside it goes on judging. */
  readonly misread = output<boolean>();
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly pointer = inject(HeldPointer);
  private readonly box = viewChild<ElementRef<HTMLInputElement | HTMLTextAreaElement>>('box');

  protected readonly observable = computed(() => this.session().observable(this.key()));
  protected readonly fact = computed<Fact | undefined>(() => {
    const state = this.session().state();
    return state && filedOf(state, this.key(), this.about());
  });
  private readonly slot = computed(() => ({ key: this.key(), about: this.about() }));
  /** Where its draft is kept. */
  private readonly draftKey = computed(() => slotKey(this.slot()));
  protected readonly id = computed(
    () => `field-${[this.key(), ...(this.about() ? [this.about()] : [])].join('-').replace(/\W/g, '-')}`,
  );
  protected readonly described = computed(() => `${this.id()}-says ${this.id()}-help`);
  /** What a look at it is on a return for practice. */
  protected readonly look = computed(() => {
    const o = this.observable();
    return o && this.session().toLook?.(o, this.about());
  });
  /** Nothing is entered before it was looked at. */
  protected readonly unseen = computed(() => this.look() !== undefined && this.look()?.seen === undefined);
  protected readonly wording = computed(() => {
    const thing = this.named() ? '' : this.session().thing(this.about());
    return `${this.observable()?.wording ?? ''}${thing === '' ? '' : `, ${thing}`}`;
  });
  protected readonly help = computed(() => helpFor(this.observable(), this.fact() !== undefined));
  /** What the field's own word means, on hover; the help strip says it too. */
  protected readonly meaning = computed(() => {
    const term = termIn(this.wording(), this.named() ? 'field' : undefined);
    return term ? `${term.term}: ${term.means}` : '';
  });
  protected readonly unit = computed(() => {
    const o = this.observable();
    return o ? this.session().unit(o) : '';
  });

  protected readonly isTiles = computed(() =>
    ['choice', 'several', 'wheels'].includes(this.observable()?.type.kind ?? ''),
  );
  protected readonly options = computed((): readonly TileChoice[] => {
    const options = optionsFor(this.session(), this.observable());
    const drawn = this.drawn();
    return drawn ? options.map((o) => ({ ...o, picture: drawn(this.key(), o.key) })) : options;
  });
  protected readonly picked = computed(() => pickedOf(this.fact()));
  protected readonly suggestions = computed<readonly string[]>(() => {
    const o = this.observable();
    const typed = this.typed().toLowerCase().replace(/\W/g, '');
    // Nothing opens over the page by itself: what is typed asks for it.
    const codes = o && typed !== '' ? this.session().codes(o) : [];
    return codes.filter((c) => c.toLowerCase().replace(/\W/g, '').includes(typed)).slice(0, 8);
  });
  /** Something is offered while it is typed. */
  protected readonly offered = computed(() => {
    const o = this.observable();
    return o?.type.kind === 'text' && !o.type.long && this.session().codes(o).length > 0;
  });
  /** Day that stands, for the calendar beside it. */
  protected readonly day = computed(() => {
    const value = this.fact()?.value;
    return typeof value === 'string' ? value : undefined;
  });

  /** The next reading joins those that are there instead of correcting them. */
  protected readonly again = signal(false);
  protected readonly repeatable = computed(
    () => this.observable()?.type.kind === 'number' && this.observable()?.how === 'measured',
  );
  /** The reading against its limits where the drive gives them, else several readings beside each other. */
  protected readonly strip = computed(() => {
    const o = this.observable();
    return o && this.fact() ? stripFor(this.session(), o, this.about()) : undefined;
  });
  protected readonly rivals = computed(() => {
    const state = this.session().state();
    return state ? rivalsOf(state, this.key(), this.about()).map((f) => this.show(f)) : [];
  });

  protected readonly error = signal('');
  protected readonly offers = signal<string[]>([]);
  protected readonly known = linkedSignal<Provenance>(
    () => this.fact()?.how ?? this.observable()?.how ?? 'reported',
  );
  protected readonly howShort = computed(() => HOW_SHORT[this.known()]);
  /** What is on its way to the disk: Enter, and then leaving the field, file it once. */
  private underWay = '';
  private readonly typed = signal('');
  /** Text in the box: a draft if one was left, else what stands. */
  protected readonly text = computed(() => {
    const draft = this.session().draft(this.draftKey());
    const fact = this.fact();
    return draft || (fact && !this.again() && whySilent(fact) !== 'notExamined' ? this.show(fact) : '');
  });

  /** A tile: files it and goes on; one of several stays for the next; what is picked already is taken back. */
  protected async press(key: string): Promise<void> {
    const o = this.observable();
    const fact = this.fact();
    if (!o) return;
    const taken = this.picked().includes(key);
    if (o.type.kind === 'choice') {
      if (taken && fact) await this.filed(this.session().strike(fact));
      else if (await this.put({ value: valueOfTile(key) })) this.next();
    } else if (key === NOTHING_TILE) {
      if (taken && fact) await this.filed(this.session().strike(fact));
      else await this.put({ value: [] });
    } else await this.toggle(key, !taken);
  }

  /** Each press builds on what stands when it is written, so that quick ones do not undo each other. */
  private toggle(key: string, on: boolean): Promise<boolean> {
    return this.filed(
      this.session().file((state) => {
        const value = valueOf(state, this.key(), this.about());
        const others = (Array.isArray(value) ? value.map(String) : []).filter((k) => k !== key);
        return { ...this.slot(), how: this.known(), value: on ? [...others, key] : others };
      }),
    );
  }

  /** The next way of knowing that a person may give; what stands is filed anew with it. */
  protected cycleHow(): void {
    if (this.session().readOnly) return;
    const usual = this.observable()?.how;
    const ways = usual && !HOWS.includes(usual) ? [usual, ...HOWS] : HOWS;
    const how = nth(ways, (ways.indexOf(this.known()) + 1) % ways.length);
    this.known.set(how);
    const fact = this.fact();
    if (fact && fact.how !== how)
      void this.put({ value: fact.value, ...(fact.u === undefined ? {} : { u: fact.u }) });
  }

  protected draft(text: string): void {
    this.session().keepDraft(this.draftKey(), text);
    this.typed.set(text);
    this.say('');
    this.offers.set([]);
  }

  private say(error: string): void {
    if ((this.error() === '') !== (error === '')) this.misread.emit(error !== '');
    this.error.set(error);
  }

  protected pressed(e: KeyboardEvent, text: string): void {
    const long = e.target instanceof HTMLTextAreaElement;
    if (e.key === 'Escape') this.restore();
    else if (e.key === 'Enter' && (!long || e.ctrlKey)) {
      if (this.commit(text) && !this.again()) this.next();
    } else return;
    e.preventDefault();
  }

  /** On to what is lacking, unless the user is elsewhere by now. */
  protected next(): void {
    const host = this.host.nativeElement;
    if (host.contains(document.activeElement)) focusNextLacking(host);
  }

  /** Files what was typed when the box is left; where a press leaves it, before that press counts, so that its target stays where it is. */
  protected leave(box: HTMLInputElement | HTMLTextAreaElement): void {
    this.pointer.afterRelease(() => {
      // the press may have come back into the box
      if (document.hasFocus() && document.activeElement === box) return;
      this.commit(box.value);
    });
  }

  /** Files what was typed when it differs from what stands. True when nothing is wrong with it. */
  protected commit(text: string): boolean {
    const o = this.observable();
    const fact = this.fact();
    const stands = fact && !this.again() && whySilent(fact) !== 'notExamined' ? this.show(fact) : '';
    if (!o || text.trim() === stands || text.trim() === '') {
      this.draft('');
      return true;
    }
    if (text === this.underWay) return true;
    const read = readValue(o, text, this.session().readContext());
    if (!read.ok) {
      this.say(readSentence(read.error));
      this.offers.set('nearest' in read.error ? read.error.nearest : []);
      return false;
    }
    this.underWay = text;
    void this.put(read.value).then((done) => {
      this.underWay = '';
      // The text goes when it is on the disk, unless more was typed meanwhile.
      if (!done || this.session().draft(this.draftKey()) !== text) return;
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

  protected takeDay(day: string): void {
    const o = this.observable();
    if (o) this.take(this.session().show(o, day));
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
    return this.filed(this.session().file({ ...this.slot(), how: this.known(), repeat, ...read }));
  }

  /** Waits until it is on the disk; what was not filed is said. */
  private async filed(filing: Promise<Filed>): Promise<boolean> {
    const done = await filing;
    if (!done.ok) this.say(troubleSentence(done.error));
    return done.ok;
  }

  private show(f: Fact): string {
    const o = this.observable();
    return o ? this.session().show(o, f.value, f.u) : '';
  }
}

const same = (a: FactValue, b: FactValue) => JSON.stringify(a) === JSON.stringify(b);
