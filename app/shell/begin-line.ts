import { ChangeDetectionStrategy, Component, computed, inject, Injector, signal } from '@angular/core';
import { NzInputDirective } from 'ng-zorro-antd/input';
import { LONGEST_TEXT } from '@core/facts/fact';
import { type Command, Commands } from '../commands/commands';
import { Cases } from '../data/cases';
import { Find } from '../data/find';
import { FileButton } from '../ui/file-button';
import { foundCommands } from './found-commands';
import { FoundList } from './found-list';

/** Words from which a text is somebody's message before it is a name. */
const A_MESSAGE = 4;

/** One line to begin with: whatever came in is typed, pasted or dropped here. */
@Component({
  selector: 'hs-begin-line',
  imports: [NzInputDirective, FoundList, FileButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: {
    '(dragover)': '$event.preventDefault(); over.set(true)',
    '(dragleave)': 'over.set(false)',
    '(drop)': 'drop($event)',
    '[class.over]': 'over()',
  },
  template: `
    <label for="begin"
      >What came in?
      <span class="quiet"
        >an engine, a tag, a message, a table’s row; or drop files: cases, pictures, catalogues</span
      ></label
    >
    <div class="row">
      <textarea
        nz-input
        #box
        id="begin"
        autocomplete="off"
        aria-autocomplete="list"
        aria-controls="begin-list"
        [rows]="rows()"
        [attr.aria-activedescendant]="list.at()"
        placeholder="te16 corm · 2041 · rattles at every cold start, 96 420 on the clock"
        [value]="typed()"
        (input)="typed.set(box.value)"
        (paste)="paste($event)"
        (keydown)="key($event, list)"
      ></textarea>
      <hs-file-button
        wording="Files"
        label="What came in, as files"
        size="default"
        (chosen)="files($event)"
      />
    </div>
    <hs-found-list #list name="begin-list" label="What it can be" [commands]="offers()" (ran)="run($event)" />
  `,
  styles: `
    :host {
      display: block;
    }
    :host(.over) textarea {
      outline: 2px dashed var(--verdigris);
    }
    label {
      font-weight: 600;
    }
    .row {
      flex-wrap: nowrap;
      align-items: end;
    }
    textarea {
      font-size: 1.15em;
      min-height: calc(var(--target) + 8px);
      padding-top: 5px;
      resize: vertical;
    }
  `,
})
export class BeginLine {
  private readonly commands = inject(Commands);
  private readonly cases = inject(Cases);
  private readonly find = inject(Find);
  private readonly injector = inject(Injector);
  protected readonly over = signal(false);
  protected readonly typed = signal('');
  protected readonly rows = computed(() =>
    Math.min(6, Math.max(1, Math.ceil(this.typed().length / 80), this.typed().split('\n').length)),
  );
  /** What it can be, the likeliest first; words that mean nothing here are what somebody said. */
  protected readonly offers = computed<Command[]>(() => {
    const typed = this.typed().trim();
    if (typed === '') return [];
    const said: Command = {
      name: `New case, read what was said: “${typed.length > 80 ? `${typed.slice(0, 78)}…` : typed}”`,
      run: () => void this.say(typed),
    };
    if (typed.split(/\s+/).length >= A_MESSAGE) return [said];
    return [...foundCommands(typed, this.commands, this.cases, this.find, 6), said];
  });

  protected key(e: KeyboardEvent, list: FoundList): void {
    if (e.key === 'Enter' && e.shiftKey) return;
    if (e.key === 'Escape') (e.target as HTMLElement).blur();
    if (list.key(e) || e.key !== 'Enter') return;
    e.preventDefault();
    // Enter may come before the list is painted: what was typed is never lost to an empty case.
    const [first] = this.offers();
    if (first) this.run(first);
    else void this.commands.newCase();
  }

  protected run(c: Command): void {
    this.typed.set('');
    c.run();
  }

  protected paste(e: ClipboardEvent): void {
    const files = [...(e.clipboardData?.files ?? [])];
    const text = e.clipboardData?.getData('text/plain') ?? '';
    if (files.length === 0 && text.length <= LONGEST_TEXT) return;
    e.preventDefault();
    // A whole mailbox is not written out here first.
    if (files.length > 0) this.files(files);
    else void this.door().then((d) => d.text(text));
  }

  protected drop(e: DragEvent): void {
    e.preventDefault();
    this.over.set(false);
    const files = [...(e.dataTransfer?.files ?? [])];
    const text = e.dataTransfer?.getData('text/plain') ?? '';
    if (files.length > 0) this.files(files);
    else if (text !== '') this.typed.set(text);
  }

  protected files(files: readonly File[]): void {
    void this.door().then((d) => d.files(files));
  }

  /** A text that is refused stays where it was. */
  private async say(text: string): Promise<void> {
    if (!(await (await this.door()).text(text))) this.typed.set(text);
  }

  /** What recognises and reads is fetched when something came in. */
  private async door() {
    const { Incoming: TakeIn } = await import('../commands/incoming');
    return this.injector.get(TakeIn);
  }
}
