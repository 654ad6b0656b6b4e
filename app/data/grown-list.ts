import { signal } from '@angular/core';
import type * as z from 'zod';
import { err, type Result } from '@core/quantity/result';
import type { SETTING } from '../records/records';
import type { FactRepository } from './fact-repository';
import type { StoreTrouble } from './store-trouble';

/** A list of the house's that only grows, kept as one setting; beside it what was only tried on an invented population, which is kept nowhere. */
export class GrownList<T> {
  private readonly kept = signal<readonly T[]>([]);
  private readonly tried = signal<readonly T[]>([]);
  readonly entries = this.kept.asReadonly();

  constructor(
    private readonly repository: FactRepository,
    private readonly key: (typeof SETTING)[keyof typeof SETTING],
    private readonly schema: z.ZodType<T[]>,
  ) {
    this.read().catch(() => undefined);
    // another window added to it
    repository.news$.subscribe((news) => {
      if (news.setting === key) this.read().catch(() => undefined);
    });
  }

  /** What is kept, or what was tried on an invented population. */
  in(invented: boolean): readonly T[] {
    return invented ? this.tried() : this.kept();
  }

  /** Adds what is made of the list as it stands. What cannot be read is not written over. */
  async add(make: (before: readonly T[]) => T, invented = false): Promise<Result<T, StoreTrouble>> {
    if (invented) {
      const entry = make(this.tried());
      this.tried.update((all) => [...all, entry]);
      return { ok: true, value: entry };
    }
    if (!(await this.read())) return err({ code: 'unfit', detail: 'what was kept before cannot be read' });
    const entry = make(this.kept());
    const all = [...this.kept(), entry];
    const done = await this.repository.keepSetting(this.key, all);
    if (!done.ok) return done;
    this.kept.set(all);
    return { ok: true, value: entry };
  }

  private async read(): Promise<boolean> {
    const kept = this.schema.safeParse((await this.repository.setting(this.key)) ?? []);
    if (kept.success) this.kept.set(kept.data);
    return kept.success;
  }
}
