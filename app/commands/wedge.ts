import { DOCUMENT, inject, Injectable, type OnDestroy } from '@angular/core';
import { readBoxCode } from '@core/claim/box-code';
import { readLabel } from '@core/intake/read-label';
import { CaseDesk } from '../data/case-desk';
import { troubleSentence } from '../data/store-trouble';
import { factWords } from '../messages/facts';
import { list } from '../language/list';
import { BoxCodes } from './box-codes';
import { Commands } from './commands';
import { Notices } from './notices';
import { CaseSentences } from './case-sentences';

/** Milliseconds between two keys of a device at most; no hand is as quick over a whole reading. */
const QUICK = 25;
/** Milliseconds a key that a device takes on the average while the page works, and a pause after which it is another text. */
const STEADY = 120;
const PAUSE = 400;
/** Signs of the shortest reading: "7.42". */
const SHORTEST = 3;
const SIGN = /^[A-Za-z0-9.,+\-|;]$/;
const FIGURE = /^[-+]?\d+(?:[.,]\d+)?$/;

/**
 * Calipers and scanners type like a keyboard. What comes quicker than a hand, ended by Enter, while no box has the focus, is theirs:
 * a figure goes to the field that waits for one, a label fills kit, part and lot. A label scanned into a box of anything else does the same.
 */
@Injectable()
export class Wedge implements OnDestroy {
  private readonly document = inject(DOCUMENT);
  private readonly desk = inject(CaseDesk);
  private readonly commands = inject(Commands);
  private readonly codes = inject(BoxCodes);
  private readonly notices = inject(Notices);
  private readonly sentences = inject(CaseSentences);
  private held: { keys: KeyboardEvent[]; timer: ReturnType<typeof setTimeout> | undefined } = {
    keys: [],
    timer: undefined,
  };
  /** Keys of a hand that were held and given on. */
  private readonly passed = new WeakSet<Event>();
  /** What was typed into a box since its last pause. */
  private inBox = { text: '', at: 0, from: 0 };
  private last: HTMLElement | undefined;
  private readonly onKey = (e: KeyboardEvent) => this.key(e);
  private readonly onFocus = (e: FocusEvent) => this.focused(e.target);

  constructor() {
    this.document.addEventListener('keydown', this.onKey, true);
    this.document.addEventListener('focusin', this.onFocus);
  }

  ngOnDestroy(): void {
    this.document.removeEventListener('keydown', this.onKey, true);
    this.document.removeEventListener('focusin', this.onFocus);
    clearTimeout(this.held.timer);
  }

  /** The last field of a figure that somebody was in waits, when none is now. */
  private focused(target: EventTarget | null): void {
    const field = target instanceof HTMLElement ? target.closest<HTMLElement>(FIGURES) : null;
    if (field) this.last = field;
  }

  private key(e: KeyboardEvent): void {
    if (this.passed.has(e) || e.ctrlKey || e.metaKey || e.altKey || !(e.target instanceof HTMLElement))
      return;
    // What is opened over the desk takes its own keys, also while it is being fetched.
    if (this.commands.overlay() !== undefined) return;
    // What a device began outside a box goes on, though the focus moved into one meanwhile.
    if (this.held.keys.length === 0 && e.target.closest('input, textarea')) return this.boxed(e, e.target);
    const tiles = e.target.closest('[data-letters]') !== null;
    if (e.key === 'Enter' && this.held.keys.length >= SHORTEST) {
      const text = this.held.keys.map((k) => k.key).join('');
      stop(e);
      this.drop();
      if (!this.take(text))
        void this.notices.say('warning', `“${text}” was scanned, and no field waits for it.`);
      return;
    }
    // Capitals come with a key of their own before them, which ends no reading.
    if (e.key === 'Shift') return;
    // Letters on tiles are a hand's: they are not kept waiting.
    if (!SIGN.test(e.key) || (tiles && this.held.keys.length === 0 && /[a-z]/i.test(e.key)))
      return this.release();
    stop(e);
    this.held.keys.push(e);
    clearTimeout(this.held.timer);
    this.held.timer = setTimeout(() => this.release(), QUICK);
  }

  /** A box keeps what is typed into it, but a label belongs into none but one of a code. */
  private boxed(e: KeyboardEvent, box: HTMLElement): void {
    const goesOn = e.timeStamp - this.inBox.at < PAUSE;
    this.inBox.at = e.timeStamp;
    if (e.key !== 'Enter') {
      if (e.key.length > 1) return;
      if (!goesOn || this.inBox.text === '') this.inBox = { text: '', at: e.timeStamp, from: e.timeStamp };
      this.inBox.text += e.key;
      return;
    }
    const { text, from } = this.inBox;
    this.inBox.text = '';
    const quick = goesOn && (e.timeStamp - from) / text.length < STEADY;
    const ours = readBoxCode(text) !== undefined;
    if (!quick || text.length < SHORTEST || FIGURE.test(text) || !(ours || box.closest(NO_CODE))) return;
    if (!this.label(text)) return;
    stop(e);
    const input = box as HTMLInputElement;
    if (input.value.endsWith(text)) input.value = input.value.slice(0, -text.length);
    box.dispatchEvent(new Event('input', { bubbles: true }));
  }

  /** Keys of a hand go where they were meant. */
  private release(): void {
    const keys = this.held.keys;
    this.drop();
    for (const k of keys) {
      const { key, code, shiftKey } = k;
      const again = new KeyboardEvent('keydown', { key, code, shiftKey, bubbles: true, cancelable: true });
      this.passed.add(again);
      k.target?.dispatchEvent(again);
    }
  }

  private drop(): void {
    clearTimeout(this.held.timer);
    this.held = { keys: [], timer: undefined };
  }

  private take(text: string): boolean {
    if (!FIGURE.test(text)) return this.label(text);
    const waiting =
      this.last?.isConnected && this.last.dataset['field'] === 'lacks'
        ? this.last
        : this.document.querySelector<HTMLElement>(
            FIGURES.split(', ')
              .map((f) => `${f}[data-field=lacks]`)
              .join(', '),
          );
    const box = (waiting ?? this.last)?.querySelector<HTMLInputElement>('input.entry');
    if (!box) return false;
    box.focus();
    box.value = text;
    box.dispatchEvent(new Event('input', { bubbles: true }));
    box.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true, cancelable: true }));
    return true;
  }

  /** Files what a label says, and says what it filed. */
  private label(text: string): boolean {
    if (this.codes.take(text)) return true;
    const catalogue = this.desk.current()?.catalogue;
    const entries = catalogue && readLabel(text, { catalogue });
    if (!entries) return false;
    void this.desk.fileAll(entries).then((filed) => {
      if (filed.ok)
        void this.notices.say(
          'success',
          `From the label: ${list(filed.value.map((f) => factWords(f, this.sentences.voice(), this.desk.nameOf)))}.`,
        );
      else this.notices.refuse(troubleSentence(filed.error));
    });
    return true;
  }
}

/** Fields that take no code of the catalogue. */
const NO_CODE = 'main [data-takes]:not([data-takes=ref])';
/** Fields that take a figure. */
const FIGURES = 'main [data-takes=number], main [data-takes=count]';

function stop(e: Event): void {
  e.preventDefault();
  e.stopImmediatePropagation();
}
