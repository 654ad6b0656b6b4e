import { Injectable, type OnDestroy, signal } from '@angular/core';
import type { IDBPDatabase } from 'idb';
import type { Fact } from '@core/facts/fact';
import { isDecided, type Run, RunSchema } from '@core/practice/record';
import { type VirtualCase, VirtualCaseSchema } from '@core/practice/virtual-case';
import type { Result } from '@core/quantity/result';
import { openPractice, type PracticeDb } from '../records/practice-db';
import { type StoreTrouble, Unfit } from './store-trouble';
import { WriteQueue } from './write-queue';

/** What keeps the facts of a case: the desk's records, or those of practice. */
export type FactKeeper = {
  factsOf(caseId: string): Promise<Fact[]>;
  extend(
    caseId: string,
    build: (facts: readonly Fact[]) => readonly Fact[],
    seen?: readonly Fact[],
  ): Promise<Result<{ all: readonly Fact[]; fresh: readonly Fact[] }, StoreTrouble>>;
};
/** Runs of another judge, under the name by which that desk calls itself. */
export type JudgeRun = { by: string; run: Run };

/** Returns for practice, their facts and runs, in a database of their own. */
@Injectable({ providedIn: 'root' })
export class PracticeRecords implements FactKeeper, OnDestroy {
  private connection: Promise<IDBPDatabase<PracticeDb>> | undefined;
  private readonly writes = new WriteQueue(() => (this.connection = undefined));
  readonly runs = signal<readonly Run[]>([]);
  readonly returns = signal<readonly VirtualCase[]>([]);
  readonly judges = signal<readonly JudgeRun[]>([]);
  private loaded: Promise<void> | undefined;

  ngOnDestroy(): void {
    this.writes.close();
    void this.connection?.then(
      (db) => db.close(),
      () => undefined,
    );
  }

  /** Reads all runs and returns, once. What an earlier make kept otherwise is left out. */
  load(): Promise<void> {
    return (this.loaded ??= this.read());
  }

  private async read(): Promise<void> {
    const db = await this.open();
    const [runs, returns, judges] = await Promise.all([
      db.getAll('runs'),
      db.getAll('returns'),
      db.getAll('judges'),
    ]);
    this.runs.set(runs.filter((r) => RunSchema.safeParse(r).success));
    this.returns.set(returns.filter((r) => VirtualCaseSchema.safeParse(r).success));
    this.judges.set(judges.filter((j) => RunSchema.safeParse(j.run).success));
  }

  async factsOf(caseId: string): Promise<Fact[]> {
    return (await this.open()).getAll('facts', ofCase(caseId));
  }

  extend(
    caseId: string,
    build: (facts: readonly Fact[]) => readonly Fact[],
  ): ReturnType<FactKeeper['extend']> {
    return this.writes.put(async () => {
      if (this.runs().some((r) => r.case.id === caseId && isDecided(r)))
        throw new Unfit('this return is decided, and nothing of it changes any more');
      const tx = (await this.open()).transaction('facts', 'readwrite');
      const stored = await tx.store.getAll(ofCase(caseId));
      const fresh = build(stored);
      for (const f of fresh) await tx.store.add(f);
      await tx.done;
      return { all: [...stored, ...fresh], fresh };
    });
  }

  /** Keeps a run as it stands now. */
  keepRun(run: Run): Promise<Result<true, StoreTrouble>> {
    this.runs.update((all) => [...all.filter((r) => r.case.id !== run.case.id), run]);
    return this.writes.put(async () => {
      await (await this.open()).put('runs', run);
      return true as const;
    });
  }

  /** Forgets a run with its facts, so that the return can be tried again. */
  drop(caseId: string): Promise<Result<true, StoreTrouble>> {
    this.runs.update((all) => all.filter((r) => r.case.id !== caseId));
    return this.writes.put(async () => {
      const tx = (await this.open()).transaction(['runs', 'facts'], 'readwrite');
      await tx.objectStore('runs').delete(caseId);
      await tx.objectStore('facts').delete(ofCase(caseId));
      await tx.done;
      return true as const;
    });
  }

  /** Keeps returns and runs of others: all of it or nothing. */
  keepFile(
    returns: readonly VirtualCase[],
    judges: readonly JudgeRun[],
  ): Promise<Result<true, StoreTrouble>> {
    return this.writes.put(async () => {
      const tx = (await this.open()).transaction(['returns', 'judges'], 'readwrite');
      for (const r of returns) await tx.objectStore('returns').put(r);
      for (const { by, run } of judges) await tx.objectStore('judges').put({ by, id: run.case.id, run });
      await tx.done;
      this.loaded = this.read();
      await this.loaded;
      return true as const;
    });
  }

  private open(): Promise<IDBPDatabase<PracticeDb>> {
    return (this.connection ??= openPractice());
  }
}

const ofCase = (id: string): IDBKeyRange => IDBKeyRange.bound([id, ''], [id, []]);
