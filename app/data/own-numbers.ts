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
import { SETTING } from '../records/records';
import { Clock } from './clock';
import { FactRepository } from './fact-repository';
import { DeskSettingsStore } from './desk-settings';
import type { StoreTrouble } from './store-trouble';

const KEPT = SETTING.ownNumbers;

/** What this house knows of causes: what ships, with the numbers that it sees otherwise. Changes are only ever added, so that their history stays. */
@Injectable({ providedIn: 'root' })
export class OwnNumbers {
  private readonly repository = inject(FactRepository);
  private readonly settings = inject(DeskSettingsStore);
  private readonly clock = inject(Clock);
  private readonly list = signal<readonly Change[]>([]);
  /** True when what was kept cannot be read: what ships is judged by, and the record stays as it is. */
  readonly broken = signal(false);
  private loading: Promise<void> | undefined;
  /** Every change, the oldest first. */
  readonly changes = this.list.asReadonly();
  readonly knowledge = computed<Knowledge>(() => knowledgeOf(knowledgeWith(CAUSES, this.list())));

  constructor() {
    this.ready().catch(() => undefined);
    // another window, or a backup that was taken in, sees something otherwise
    this.repository.news$.subscribe((news) => {
      if (news.setting !== KEPT) return;
      this.loading = undefined;
      this.ready().catch(() => undefined);
    });
  }

  /** Resolves when what is kept is read. What could not be read is tried again the next time. */
  ready(): Promise<void> {
    return (this.loading ??= this.read().catch((e: unknown) => {
      this.loading = undefined;
      throw e;
    }));
  }

  private async read(): Promise<void> {
    const kept = await this.repository.setting(KEPT);
    const changes = validFacts(kept);
    this.broken.set(kept !== undefined && changes === undefined);
    if (changes) this.list.set(changes);
  }

  /** Adds what the house sees otherwise to what is kept by now: all or nothing. */
  see(seen: readonly Pick<Change, 'place' | 'value' | 'ground'>[]): Promise<Kept> {
    const [by, at] = [this.settings.settings().by, this.clock.now()];
    return this.write((kept) => [...kept, ...seen.map((s) => ({ ...s, by, at }))]);
  }

  /** Puts a whole list in the place of what is kept: a file that was read. */
  keep(changes: readonly Change[]): Promise<Kept> {
    return this.write(() => changes);
  }

  private async write(make: (kept: readonly Change[]) => readonly Change[]): Promise<Kept> {
    await this.ready();
    const written = await this.repository.growSetting(KEPT, (kept) => {
      const changes = make(validFacts(kept) ?? []);
      const checked = checkChanges(CAUSES, changes);
      return checked.ok ? ok(changes) : checked;
    });
    if (!written.ok) return written;
    this.list.set(written.value);
    this.broken.set(false);
    return ok(true);
  }
}

type Kept = Result<true, ChangeProblem | StoreTrouble>;

/** A kept list of changes that is one, and fits the knowledge that ships. */
function validFacts(kept: unknown): Change[] | undefined {
  const changes = ChangesSchema.safeParse(kept);
  return changes.success && checkChanges(CAUSES, changes.data).ok ? changes.data : undefined;
}
