import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  computed,
  type ElementRef,
  inject,
  Injector,
  signal,
  viewChild,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzInputDirective } from 'ng-zorro-antd/input';
import { CASE_KINDS, type CaseKind } from '@core/facts/observable';
import { LONGEST_TEXT } from '@core/facts/fact';
import { CaseDesk } from '../../data/case-desk';
import { Notices } from '../../commands/notices';
import { Drafts } from '../../data/drafts';
import { troubleSentence } from '../../data/store-trouble';
import { Dictate } from '../../entry/dictate';
import { focusNextLacking } from '../../entry/next-field';
import { Segmented } from '../../ui/segmented';
import { KIND_WORDS } from '../../messages/waits';
import {
  countWords,
  knownWords,
  othersWords,
  severalWords,
  textErrorWords,
  unfiledWords,
} from '../../messages/intake';
import { MessageStore, type MessageRow } from './message-store';
import { messagePieces } from './parts-of';

/** Draft of a message under way, by case. */
const DRAFT = 'message';

/** Facts of a case of which nothing is known: its tag and its catalogue. */
const NEW = 2;

/** What was said: taken in as it came, read, marked in the text, and filed when somebody has looked. */
@Component({
  selector: 'hs-said-card',
  imports: [Dictate, NzButtonComponent, NzInputDirective, RouterLink, Segmented],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './said-card.html',
  styleUrl: './said-card.less',
})
export class SaidCard {
  protected readonly store = inject(MessageStore);
  private readonly desk = inject(CaseDesk);
  private readonly drafts = inject(Drafts);
  private readonly notices = inject(Notices);
  private readonly injector = inject(Injector);
  private readonly list = viewChild<ElementRef<HTMLElement>>('list');
  private readonly area = viewChild<ElementRef<HTMLTextAreaElement>>('area');
  protected readonly writing = signal(false);
  protected readonly trouble = signal('');
  protected readonly wrong = signal('');
  protected readonly filing = signal(false);
  protected readonly changing = signal('');
  private asked = '';
  private begun = '';

  protected readonly kinds = CASE_KINDS.map((value) => ({ value, label: KIND_WORDS[value] }));
  protected readonly kind = computed(() => this.desk.current()?.answers?.kind ?? 'question');
  protected readonly draft = computed(() => this.drafts.read(this.desk.currentId() ?? '', DRAFT));
  protected readonly open = computed(() => this.store.rows().filter((r) => r.take !== 'filed'));
  protected readonly filed = computed(() => this.store.rows().filter((r) => r.take === 'filed').length);
  protected readonly count = computed(() => countWords(this.store.taken().length));
  protected readonly parts = computed(() =>
    messagePieces(this.store.message(), this.store.rows(), this.store.unfiled()),
  );
  protected readonly several = computed(() => severalWords(this.store.cases().map((c) => c.name)));
  protected readonly own = computed(() => this.store.cases()[this.store.which() - 1]?.name ?? '');
  protected readonly othersWords = computed(() => othersWords(this.store.others().length));
  protected readonly unfiled = computed(() => unfiledWords(this.store.unfiled().length));
  protected readonly firstUntaken = computed(() => {
    const [first] = this.store.unfiled();
    return first ? this.store.message().slice(first.from, first.to) : '';
  });
  protected readonly foreign = computed(() => {
    const read = this.store.read();
    return read !== undefined && !('code' in read) && read.foreign;
  });

  constructor() {
    // A case that has just begun listens: what is pasted or typed is the message.
    afterRenderEffect(() => {
      const [area, view] = [this.area()?.nativeElement, this.desk.current()];
      if (!area || !view || view.id === this.begun) return;
      this.begun = view.id;
      if (view.state.log.length <= NEW) area.focus();
    });
    // A message that has just come has the keys, so that Enter files it.
    afterRenderEffect(() => {
      const [list, message] = [this.list()?.nativeElement, this.store.message()];
      if (!list || message === this.asked) return;
      this.asked = message;
      if (document.activeElement === document.body || document.activeElement?.closest('hs-said-card'))
        list.focus();
    });
  }

  /** What is asked for and weighed follows from it; the facts alone say it until somebody does. */
  protected setKind(kind: CaseKind): void {
    if (kind !== this.kind()) void this.desk.file({ key: 'case.kind', value: kind, how: 'decided' });
  }

  protected keep(text: string): void {
    this.trouble.set('');
    this.drafts.keep(this.desk.currentId() ?? '', DRAFT, text);
  }

  protected typed(e: KeyboardEvent, text: string): void {
    if (e.key === 'Escape') (e.target as HTMLElement).blur();
    if (e.key !== 'Enter' || e.shiftKey || e.isComposing) return;
    e.preventDefault();
    void this.read(text);
  }

  /** What is pasted into an empty box is whole: it is read at once. */
  protected pasted(e: ClipboardEvent): void {
    const text = e.clipboardData?.getData('text/plain') ?? '';
    if (text.trim() === '' || this.draft().trim() !== '') return;
    e.preventDefault();
    if (text.length > LONGEST_TEXT) return void this.mailbox(text);
    this.keep(text);
    void this.read(text);
  }

  /** More than one message can be: taken apart in the thread, and shown line by line. */
  private async mailbox(text: string): Promise<void> {
    const { Incoming } = await import('../../commands/incoming');
    await this.injector.get(Incoming).text(text);
  }

  protected async read(text: string): Promise<void> {
    const said = text.trim();
    if (said === '' || said.length > LONGEST_TEXT) {
      this.trouble.set(
        textErrorWords(
          said === '' ? { code: 'empty' } : { code: 'too_long', length: said.length, most: LONGEST_TEXT },
        ),
      );
      return;
    }
    const kept = await this.store.keep(said);
    if (!kept.ok) return this.trouble.set(troubleSentence(kept.error));
    this.keep('');
    this.writing.set(false);
  }

  protected again(): void {
    this.writing.set(true);
  }

  protected key(e: KeyboardEvent): void {
    if (e.target !== e.currentTarget || e.ctrlKey || e.metaKey || e.altKey) return;
    if (e.key === 'Enter') {
      e.preventDefault();
      void this.file();
      return;
    }
    const row = this.open().find((r) => r.letter !== '' && r.letter === e.key.toLowerCase());
    if (!row) return;
    e.preventDefault();
    e.stopPropagation();
    if (e.shiftKey) this.change(row);
    else this.store.toggle(row);
  }

  protected change(row: MessageRow): void {
    this.wrong.set('');
    this.changing.set(row.id);
    // The box is there after the next frame.
    requestAnimationFrame(() =>
      this.list()?.nativeElement.querySelector<HTMLInputElement>('input.other')?.select(),
    );
  }

  protected changed(e: KeyboardEvent, row: MessageRow, typed: string): void {
    if (e.key !== 'Enter' && e.key !== 'Escape') return;
    e.preventDefault();
    e.stopPropagation();
    const why = e.key === 'Enter' ? this.store.change(row, typed) : '';
    this.wrong.set(why);
    if (why !== '') return;
    this.changing.set('');
    this.list()?.nativeElement.focus();
  }

  /** The others become cases of their own, and this one stays in hand. */
  protected async openOthers(): Promise<void> {
    if (this.filing()) return;
    this.filing.set(true);
    const { opened, known } = await this.store.openOthers();
    this.filing.set(false);
    void this.notices.say(known.length > 0 ? 'info' : 'success', knownWords(opened, known));
  }

  protected async file(): Promise<void> {
    if (this.filing()) return;
    this.filing.set(true);
    const from = this.list()?.nativeElement;
    const done = await this.store.file();
    this.filing.set(false);
    this.wrong.set(done.ok ? '' : troubleSentence(done.error));
    if (done.ok && from) requestAnimationFrame(() => handOver(from));
  }
}

/** The next question has the eye and the hand once something was filed, else the answer; without one the next field that lacks something. */
function handOver(from: HTMLElement): void {
  const main = document.querySelector('main');
  const ask = main?.querySelector<HTMLElement>('hs-ask-card .entry');
  const answer = main?.querySelector<HTMLElement>('hs-answer-card .answer');
  if (ask) ask.focus();
  else if (answer) answer.focus();
  else focusNextLacking(from);
}
