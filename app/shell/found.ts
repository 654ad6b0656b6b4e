import type { Highlightable } from '@angular/cdk/a11y';
import { Directive, input, signal } from '@angular/core';
import type { Command } from '../commands/commands';

/** One thing found, as a list of keys walks over it. */
@Directive({ selector: '[hsFound]', exportAs: 'found', host: { '[id]': 'id()' } })
export class FoundRow implements Highlightable {
  readonly command = input.required<Command>({ alias: 'hsFound' });
  readonly id = input.required<string>();
  readonly active = signal(false);

  setActiveStyles(): void {
    this.active.set(true);
  }

  setInactiveStyles(): void {
    this.active.set(false);
  }
}
