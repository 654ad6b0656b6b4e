import { effect, type Signal, signal } from '@angular/core';
import type { Cases } from '../data/cases';
import type { FactRepository } from '../data/fact-repository';
import { SHELF_MARK } from '../data/shelf-link';
import type { ShelfState } from '../data/shelf-state';
import type { ShelfLink } from './link-standing';

/** What tells the numbers of this desk's cases from those of others: two signs of the log that it writes. */
export class NumberSign {
  private readonly sign = signal('');

  /** In a context of injection. */
  constructor(
    private readonly repository: FactRepository,
    private readonly cases: Cases,
    state: ShelfState,
    link: Signal<ShelfLink | undefined>,
  ) {
    // a server that is within reach has told every number by now; out of reach, and over a folder, others may give the same
    effect(() => {
      const within = link()?.kind === 'server' && state.standing().is === 'together';
      if (link()) cases.mark.set(within ? '' : this.sign());
    });
  }

  /** Of the log that is written from now on; it is remembered for the next start. */
  async of(log: string | undefined): Promise<void> {
    this.sign.set(log === undefined ? '' : `-${log.slice(0, 2).toUpperCase()}`);
    await this.repository.keepSetting(SHELF_MARK, this.sign());
  }

  async forget(): Promise<void> {
    await this.repository.keepSetting(SHELF_MARK, null);
    this.cases.mark.set('');
  }
}
