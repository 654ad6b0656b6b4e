import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  type ElementRef,
  inject,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { NzInputDirective } from 'ng-zorro-antd/input';
import { type Command, Commands } from '../commands/commands';
import { Cases } from '../data/cases';
import { Find } from '../data/find';
import { Modal } from '../ui/modal';
import { StateCard } from '../ui/state';
import { foundCommands } from './found-commands';
import { FoundList } from './found-list';

/** Opens everything by name: commands, cases, engines. */
@Component({
  selector: 'hs-palette',
  imports: [NzInputDirective, Modal, FoundList, StateCard],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <hs-modal
      title="Find by name"
      [open]="commands.overlay() === 'palette'"
      (closed)="close()"
      (opened)="begin()"
    >
      <input
        nz-input
        #box
        cdkFocusInitial
        role="combobox"
        aria-label="Type a command or a case"
        aria-controls="palette-list"
        aria-expanded="true"
        [attr.aria-activedescendant]="list.at()"
        placeholder="Type a command, a tag, an engine…"
        [value]="typed()"
        (input)="typed.set(box.value)"
        (keydown)="key($event, list)"
      />
      <hs-found-list #list name="palette-list" label="Found" [commands]="found()" (ran)="run($event)" />
      @if (found().length === 0) {
        <hs-state kind="empty" title="Nothing is called that. Try fewer letters." />
      }
    </hs-modal>
  `,
  styles: 'hs-found-list { margin-top: 8px; }',
})
export class Palette {
  protected readonly commands = inject(Commands);
  private readonly cases = inject(Cases);
  private readonly find = inject(Find);
  private readonly box = viewChild<ElementRef<HTMLInputElement>>('box');
  protected readonly typed = signal('');
  protected readonly found = computed<Command[]>(() => {
    const words = this.typed().toLowerCase().split(/\s+/).filter(Boolean);
    const named = (c: Command) => words.every((w) => c.name.toLowerCase().includes(w));
    const commands = this.commands.list().filter(named);
    return [
      ...commands.slice(0, 14),
      ...foundCommands(this.typed(), this.commands, this.cases, this.find, 14),
    ];
  });

  /** False until it is open: the box may have the focus before, and leaves its keys to those that came while it was fetched. */
  private readonly begun = signal(false);

  protected key(e: KeyboardEvent, list: FoundList): void {
    if (this.begun()) list.key(e);
    else if ((e.key.length === 1 && !e.ctrlKey && !e.metaKey) || e.key === 'Enter') {
      e.preventDefault();
      this.commands.typedAhead.update((t) => t + (e.key === 'Enter' ? '\n' : e.key));
    }
  }

  protected begin(): void {
    this.box()?.nativeElement.focus();
    this.begun.set(true);
  }

  /** What was typed while it was fetched, or while the dialog itself had the focus, is in it; Enter too. */
  private take(ahead: string): void {
    this.commands.typedAhead.set('');
    this.typed.update((t) => t + ahead.replace('\n', ''));
    this.box()?.nativeElement.focus();
    const command = ahead.includes('\n') ? this.found()[0] : undefined;
    if (command) this.run(command);
  }

  protected run(c: Command): void {
    this.close();
    c.run();
  }

  constructor() {
    // Closed by whomever: the next opening begins anew.
    effect(() => {
      if (this.commands.overlay() === 'palette') return;
      this.begun.set(false);
      this.typed.set('');
    });
    effect(() => {
      const ahead = this.commands.typedAhead();
      if (this.begun() && ahead !== '') untracked(() => this.take(ahead));
    });
  }

  protected close(): void {
    this.commands.close('palette');
  }
}
