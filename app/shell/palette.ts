import {
  ChangeDetectionStrategy,
  Component,
  computed,
  type ElementRef,
  inject,
  signal,
  viewChild,
} from '@angular/core';
import { NzInputDirective } from 'ng-zorro-antd/input';
import { Cases } from '../data/cases';
import { Find } from '../data/find';
import type { Command } from '../acts/commands';
import { OverlayDialog } from './dialog-base';

/** Opens everything by name: commands and cases. */
@Component({
  selector: 'hs-palette',
  imports: [NzInputDirective],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <dialog #dialog aria-label="Find by name" (close)="close()">
      <input
        nz-input
        #box
        role="combobox"
        aria-label="Type a command or a case"
        aria-controls="palette-list"
        aria-expanded="true"
        [attr.aria-activedescendant]="found()[at()] ? 'palette-' + at() : null"
        placeholder="Type a command, a tag, an engine…"
        [value]="typed()"
        (input)="type(box.value)"
        (keydown)="key($event)"
      />
      <div id="palette-list" role="listbox" aria-label="Found">
        @for (c of found(); track c.name; let i = $index) {
          <div
            role="option"
            tabindex="-1"
            [id]="'palette-' + i"
            [attr.aria-selected]="i === at()"
            (click)="run(c)"
            (keydown.enter)="run(c)"
          >
            <span>{{ c.name }}</span>
            @if (c.key) {
              <kbd>{{ c.key }}</kbd>
            }
          </div>
        } @empty {
          <p class="quiet">Nothing is called that.</p>
        }
      </div>
    </dialog>
  `,
  styles: `
    dialog {
      width: 520px;
    }
    [role='listbox'] {
      margin-top: 8px;
    }
    [role='option'] {
      display: flex;
      justify-content: space-between;
      padding: 5px 8px;
      border-radius: 3px;
      cursor: pointer;
    }
    [role='option'][aria-selected='true'] {
      background: var(--verdigris-soft);
    }
    kbd {
      font: 12px var(--mono);
      color: var(--ink-2);
    }
  `,
})
export class Palette extends OverlayDialog {
  private readonly cases = inject(Cases);
  private readonly find = inject(Find);
  private readonly box = viewChild.required<ElementRef<HTMLInputElement>>('box');
  protected readonly dialog = viewChild.required<ElementRef<HTMLDialogElement>>('dialog');
  protected readonly overlay = 'palette' as const;
  protected readonly typed = signal('');
  protected readonly at = signal(0);
  protected readonly found = computed<Command[]>(() => {
    const words = this.typed().toLowerCase().split(/\s+/).filter(Boolean);
    const named = (c: Command) => words.every((w) => c.name.toLowerCase().includes(w));
    const commands = this.commands.list().filter(named);
    const cases = words.length === 0 ? [] : this.cases.find(this.typed());
    const opening = cases.slice(0, 14).map((h) => ({
      name: `Case ${h.tag} · ${h.engine || 'no engine yet'} · ${h.who}`,
      run: () => this.commands.openCase(h.id),
    }));
    const found = this.find
      .hits(this.typed(), 6)
      .filter((h) => h.kind === 'engine')
      .map((h) => ({
        name: `New case for engine ${h.key} · ${h.detail}`,
        run: () => void this.commands.newCase(h.key),
      }));
    return [...[...commands, ...opening].slice(0, 14), ...found];
  });

  protected override opened(): void {
    this.type('');
    this.box().nativeElement.focus();
  }

  protected type(text: string): void {
    this.typed.set(text);
    this.at.set(0);
  }

  protected key(e: KeyboardEvent): void {
    const n = this.found().length;
    if (e.key === 'ArrowDown') this.at.set((this.at() + 1) % Math.max(1, n));
    else if (e.key === 'ArrowUp') this.at.set((this.at() + n - 1) % Math.max(1, n));
    else if (e.key === 'Enter') {
      const command = this.found()[this.at()];
      if (command) this.run(command);
    } else return;
    e.preventDefault();
  }

  protected run(c: Command): void {
    this.close();
    c.run();
  }
}
