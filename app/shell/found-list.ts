import { ActiveDescendantKeyManager } from '@angular/cdk/a11y';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  Injector,
  input,
  output,
  signal,
  untracked,
  viewChildren,
} from '@angular/core';
import type { Command } from '../commands/commands';
import { FoundRow } from './found';

/** What was found, to be walked over from the box above it and run by Enter or a press. */
@Component({
  selector: 'hs-found-list',
  imports: [FoundRow],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div role="listbox" [id]="name()" [attr.aria-label]="label()">
      @for (c of commands(); track c.name; let i = $index) {
        <div
          role="option"
          tabindex="-1"
          [hsFound]="c"
          #found="found"
          [attr.aria-selected]="found.active()"
          [id]="name() + '-' + i"
          (click)="ran.emit(c)"
          (keydown.enter)="ran.emit(c)"
        >
          <span>{{ c.name }}</span>
          @if (c.key) {
            <kbd>{{ c.key }}</kbd>
          }
        </div>
      }
    </div>
  `,
  styles: `
    :host {
      display: block;
      max-height: 62vh;
      overflow: auto;
    }
    [role='option'] {
      display: flex;
      justify-content: space-between;
      padding: 5px 8px;
      border-bottom: 1px solid var(--rule);
      cursor: pointer;
    }
    [role='option'][aria-selected='true'] {
      background: var(--verdigris-soft);
    }
  `,
})
export class FoundList {
  /** Id of the list, which the box names. */
  readonly name = input.required<string>();
  readonly label = input.required<string>();
  readonly commands = input.required<readonly Command[]>();
  readonly ran = output<Command>();
  private readonly options = viewChildren(FoundRow);
  private readonly keys = new ActiveDescendantKeyManager(this.options, inject(Injector)).withWrap();
  private readonly names = computed(() =>
    this.commands()
      .map((c) => c.name)
      .join('\n'),
  );
  /** Id of the one walked to, which the box names. */
  readonly at = signal<string | null>(null);

  constructor() {
    // Another list begins unmarked; the same one made anew keeps its mark.
    effect(() => {
      this.names();
      untracked(() => this.keys.setActiveItem(-1));
      this.at.set(null);
    });
  }

  /** A key of the box. True when Enter ran the one walked to, or else the first. */
  key(e: KeyboardEvent): boolean {
    if (e.key !== 'Enter') {
      this.keys.onKeydown(e);
      this.at.set(this.keys.activeItem?.id() ?? null);
      return false;
    }
    e.preventDefault();
    const command = this.keys.activeItem?.command() ?? this.commands()[0];
    if (command) this.ran.emit(command);
    return command !== undefined;
  }
}
