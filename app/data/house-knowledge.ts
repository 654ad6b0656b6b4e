import { computed, inject, Injectable, signal } from '@angular/core';
import { type Knowledge, knowledgeOf } from '@core/answer/world';
import { CAUSES } from '@core/cause/cause-data';
import {
  type Change,
  type ChangeProblem,
  ChangesSchema,
  checkChanges,
  knowledgeWith,
} from '@core/cause/changes';
import { type Result, ok } from '@core/quantity/result';
import { Clock } from './clock';
import { FactRepository } from './fact-repository';
import { HouseStore } from './house';
import type { StoreTrouble } from './store-trouble';

const KEPT = 'knowledge-changes';

/** What this house knows of causes: what ships, with the numbers that it sees otherwise. Changes are only ever added, so that their history stays. */
@Injectable({ providedIn: 'root' })
export class HouseKnowledge {
  private readonly repository = inject(FactRepository);
  private readonly house = inject(HouseStore);
  private readonly clock = inject(Clock);
  private readonly list = signal<readonly Change[]>([]);
  /** True when what was kept cannot be read: what ships is judged by, and the record stays as it is. */
  readonly broken = signal(false);
  private loading: Promise<void> | undefined;
  /** Every change, the oldest first. */
  readonly changes = this.list.asReadonly();
  readonly knowledge = computed<Knowledge>(() => knowledgeOf(knowledgeWith(CAUSES, this.list())));

  constructor() {
    void this.ready();
  }

  /** Reads what is kept, once. */
  ready(): Promise<void> {
    return (this.loading ??= this.read());
  }

  private async read(): Promise<void> {
    const kept = await this.repository.setting(KEPT);
    if (kept === undefined) return;
    const changes = ChangesSchema.safeParse(kept);
    if (changes.success && checkChanges(CAUSES, changes.data).ok) this.list.set(changes.data);
    else this.broken.set(true);
  }

  /** Adds what the house sees otherwise: all or nothing. */
  async see(
    seen: readonly Pick<Change, 'place' | 'value' | 'ground'>[],
  ): Promise<Result<true, ChangeProblem | StoreTrouble>> {
    await this.ready();
    const [by, at] = [this.house.settings().by, this.clock.now()];
    return this.keep([...this.list(), ...seen.map((s) => ({ ...s, by, at }))]);
  }

  /** Puts a whole list in the place of this one: a file that was read, or the list as it was before. */
  async keep(changes: readonly Change[]): Promise<Result<true, ChangeProblem | StoreTrouble>> {
    const checked = checkChanges(CAUSES, changes);
    if (!checked.ok) return checked;
    await this.ready();
    const kept = await this.repository.keepSetting(KEPT, changes);
    if (!kept.ok) return kept;
    this.list.set(changes);
    this.broken.set(false);
    return ok(true);
  }
}
