import { computed, inject, Injectable } from '@angular/core';
import { registryFor } from '@core/answer/world';
import { reduce } from '@core/facts/state';
import { type Agreement, agreement } from '@core/practice/agreement';
import { type OwnError, ownReturn } from '@core/practice/own-return';
import { type PracticeFileError, readPracticeFile, writePracticeFile } from '@core/practice/practice-file';
import { isDecided } from '@core/practice/record';
import { type Result, err, ok } from '@core/quantity/result';
import { Cases } from './cases';
import { DeskPolicy } from './desk-policy';
import { DeskSettingsStore } from './desk-settings';
import { FactRepository } from './fact-repository';
import { Packs } from './packs';
import { PracticeRecords } from './practice-records';
import type { StoreTrouble } from './store-trouble';

/** Most signs of a file that is read. */
const LARGEST = 40_000_000;
export type TakeError = PracticeFileError | StoreTrouble | { code: 'too_large' } | { code: 'no_catalogue' };

/** Returns of this house's own, and files by which desks exchange returns and compare judges. */
@Injectable({ providedIn: 'root' })
export class PracticeFiles {
  private readonly records = inject(PracticeRecords);
  private readonly repository = inject(FactRepository);
  private readonly cases = inject(Cases);
  private readonly packs = inject(Packs);
  private readonly policy = inject(DeskPolicy);
  private readonly settings = inject(DeskSettingsStore);
  readonly returns = this.records.returns;
  /** Returns that are decided here: their verdicts stand. */
  readonly decided = computed(
    () =>
      new Set(
        this.records
          .runs()
          .filter(isDecided)
          .map((r) => r.case.id),
      ),
  );
  /** Settled cases that can be made returns. */
  readonly settled = computed(() => this.cases.summaries().filter((h) => h.settled !== undefined));

  /** How far this desk and each other judge agree. */
  readonly judges = computed<{ by: string; agreement: Agreement }[]>(() => {
    const own = this.records.runs().filter(isDecided);
    return [...new Set(this.records.judges().map((j) => j.by))].map((by) => ({
      by,
      agreement: agreement(
        own,
        this.records.judges().flatMap((j) => (j.by === by && isDecided(j.run) ? [j.run] : [])),
      ),
    }));
  });

  /** Makes a settled case a return for practice: what can name nobody, and nothing else. */
  async fromCase(id: string): Promise<Result<true, OwnError | StoreTrouble | { code: 'no_catalogue' }>> {
    const registry = this.registry();
    if (!registry) return err({ code: 'no_catalogue' });
    const made = ownReturn(reduce(await this.repository.factsOf(id)), registry);
    return made.ok ? this.records.keepFile([made.value], []) : made;
  }

  /** Every return that is here and every run that is decided, as a file. */
  written(): string {
    const runs = this.records.runs().filter(isDecided);
    return writePracticeFile({
      by: this.settings.settings().by,
      returns: [...this.returns()],
      runs: [...runs],
    });
  }

  /** Takes a file in: all of it or nothing. Own runs are never replaced; another's stand beside them. */
  async take(file: File): Promise<Result<{ returns: number; runs: number; by: string }, TakeError>> {
    const registry = this.registry();
    if (!registry) return err({ code: 'no_catalogue' });
    if (file.size > LARGEST) return err({ code: 'too_large' });
    const causes = this.policy.judging().knowledge.causes;
    const read = readPracticeFile(await file.text(), { registry, causes });
    if (!read.ok) return read;
    const { by, returns, runs } = read.value;
    // returns that another judge decided can be decided here too
    const own = new Map([...returns, ...runs.map((r) => r.case)].map((c) => [c.id, c]));
    const kept = await this.records.keepFile(
      [...own.values()],
      runs.map((run) => ({ by, run })),
    );
    return kept.ok ? ok({ returns: own.size, runs: runs.length, by }) : kept;
  }

  private registry() {
    const catalogue = this.packs.newest();
    return catalogue && registryFor({ catalogue, knowledge: this.policy.judging().knowledge });
  }
}
