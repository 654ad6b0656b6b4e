import { signal } from '@angular/core';
import * as z from 'zod';
import '@core/quantity/plain-schemas';
import type { FactRepository } from '../data/fact-repository';

const KEPT = 'shelf-kept';

/** Cases that stay at this desk, by choice. */
export class KeptCases {
  private readonly all = signal<ReadonlySet<string>>(new Set());
  readonly ids = this.all.asReadonly();

  constructor(private readonly repository: FactRepository) {}

  async load(): Promise<void> {
    const kept = z.array(z.string()).safeParse(await this.repository.setting(KEPT));
    if (kept.success) this.all.set(new Set(kept.data));
  }

  async keep(caseId: string, here: boolean): Promise<void> {
    const kept = new Set(this.all());
    if (here) kept.add(caseId);
    else kept.delete(caseId);
    this.all.set(kept);
    await this.repository.keepSetting(KEPT, [...kept]);
  }
}
