import { computed, inject, Injectable, signal } from '@angular/core';
import { Subject } from 'rxjs';
import * as z from 'zod';
import type { Bulletin, BulletinEffect } from '@core/patterns/bulletin';
import type { ChartSpan, LotMonths } from '@core/patterns/charts';
import { returnsOf } from '@core/patterns/of-cases';
import type { Life, Looked } from '@core/patterns/look';
import { type Assumed, ASSUMED, AssumedSchema, type SoldRow, SoldRowSchema } from '@core/patterns/population';
import { type SoldForm, SoldFormSchema, type SoldTable } from '@core/patterns/read-sold';
import type { ToCome } from '@core/patterns/to-come';
import type { WhoHas } from '@core/patterns/who-has';
import { type Result, err, ok } from '@core/quantity/result';
import { SETTING } from '../records/records';
import { resultOf, WorkerClient } from '../threads/worker-client';
import type { TableTrouble } from '../workers/claims.protocol';
import type { FaultAsked, LotOfCase, PatternJobs } from '../workers/patterns.protocol';
import { Cases } from './cases';
import { Clock } from './clock';
import { DeskSettingsStore } from './desk-settings';
import { FactRepository } from './fact-repository';
import type { StoreTrouble } from './store-trouble';

/** What is kept of a house's sales: the table, how the last one was read, and what is taken for granted. */
const KeptSchema = z.strictObject({
  sold: z.array(SoldRowSchema),
  form: SoldFormSchema.optional(),
  assumed: AssumedSchema.default(ASSUMED),
});
type Kept = z.infer<typeof KeptSchema>;
const NOTHING: Kept = { sold: [], assumed: ASSUMED };
/** The invented population that ships: the same everywhere. */
const SEED = 2;

export type PopulationSource = 'desk' | 'invented';

/** What was sold and what came back of it, looked through for patterns in a thread. */
@Injectable({ providedIn: 'root' })
export class PopulationDesk {
  private readonly repository = inject(FactRepository);
  private readonly settings = inject(DeskSettingsStore);
  private readonly cases = inject(Cases);
  private readonly clock = inject(Clock);
  private readonly stop$ = new Subject<void>();
  private readonly kept = signal<Kept>(NOTHING);
  /** True when what was kept of sales cannot be read; the record stays as it is. */
  readonly broken = signal(false);
  readonly sold = computed<readonly SoldRow[]>(() => this.kept().sold);
  readonly assumed = computed<Assumed>(() => this.kept().assumed);
  readonly returns = computed(() => returnsOf(this.cases.summaries()));
  readonly source = signal<PopulationSource>('desk');
  /** Share that is done, while it is looked through. */
  readonly done = signal<number | undefined>(undefined);
  readonly looked = signal<Looked | undefined>(undefined);
  readonly failed = signal('');
  private client = this.thread();

  /** Reads what is kept, and looks through it. */
  async open(): Promise<void> {
    await this.readKept();
    await this.look();
  }

  private async readKept(): Promise<void> {
    const kept = await this.repository.setting(SETTING.sold);
    const read = KeptSchema.safeParse(kept ?? NOTHING);
    this.broken.set(!read.success);
    if (read.success) this.kept.set(read.data);
  }

  choose(source: PopulationSource): Promise<void> {
    this.source.set(source);
    return this.look();
  }

  /** Looks through everything anew; what went on before is put away. */
  async look(): Promise<void> {
    this.halt();
    const source =
      this.source() === 'invented' ? { invented: SEED } : { sold: this.sold(), returns: this.returns() };
    this.looked.set(undefined);
    this.failed.set('');
    this.done.set(0);
    const asked = this.client;
    const answer = await resultOf(
      asked.job('look', { source, today: this.clock.today(), assumed: this.assumed() }),
      { tell: (share) => this.done.set(share), stop$: this.stop$ },
    );
    if (asked !== this.client) return;
    this.done.set(undefined);
    if (answer.ok) this.looked.set(answer.value);
    else if (answer.error.code !== 'cancelled') this.failed.set(answer.error.detail);
  }

  /** Stops looking: the thread ends in the middle, since it hears nothing while it computes. */
  halt(): void {
    if (this.done() === undefined) return;
    this.stop$.next();
    this.client.dispose();
    this.client = this.thread();
    this.done.set(undefined);
  }

  async life(kit: string, lot?: string): Promise<Life | undefined> {
    const answer = await resultOf(this.client.job('life', { kit, ...(lot === undefined ? {} : { lot }) }));
    return answer.ok ? answer.value : undefined;
  }

  async toCome(kit: string, lot: string, months: number): Promise<ToCome | undefined> {
    const answer = await resultOf(this.client.job('toCome', { kit, lot, months }));
    return answer.ok ? answer.value : undefined;
  }

  /** What is known of one lot: who has it, and how it came back month by month. */
  async lot(kit: string, lot: string): Promise<{ has?: WhoHas; months?: LotMonths }> {
    const [has, months] = await Promise.all([
      resultOf(this.client.job('whoHas', { kit, lot })),
      resultOf(this.client.job('lotMonths', { kit, lot })),
    ]);
    return {
      ...(has.ok && has.value ? { has: has.value } : {}),
      ...(months.ok && months.value ? { months: months.value } : {}),
    };
  }

  /** The lot of a case of this desk against the others of its kit, without that case; undefined where sales do not tell. */
  async lotOfCase(kit: string, lot: string, id: string): Promise<LotOfCase | undefined> {
    await this.readKept();
    const asked = { sold: this.sold(), returns: this.returns(), assumed: this.assumed(), kit, lot, case: id };
    const answer = await resultOf(this.client.job('lotOfCase', { ...asked, today: this.clock.today() }));
    return answer.ok ? answer.value : undefined;
  }

  /** The share of a fault by quarters. */
  async quarters(asked: FaultAsked): Promise<ChartSpan[]> {
    const answer = await resultOf(this.client.job('quarters', asked));
    return answer.ok ? answer.value : [];
  }

  /** What bulletins about a kit's step did. */
  async effect(
    all: readonly Bulletin[],
    of: Pick<Bulletin, 'kit' | 'step' | 'code'>,
  ): Promise<BulletinEffect | undefined> {
    const answer = await resultOf(this.client.job('effect', { all, of }));
    return answer.ok ? answer.value : undefined;
  }

  /** Reads a table; the way in which the last one was read goes before its headings. */
  async read(name: string, blob: Blob, form?: SoldForm): Promise<Result<SoldTable, TableTrouble>> {
    const wanted = form ?? this.kept().form;
    const answer = await resultOf(
      this.client.job('readSold', {
        name,
        blob,
        today: this.clock.today(),
        order: this.settings.settings().dateOrder,
        ...(wanted ? { form: wanted } : {}),
      }),
    );
    return answer.ok ? answer.value : err({ code: 'broken_off', detail: answer.error.detail });
  }

  /** Takes a table in place of the one before, and looks through it. */
  async take(table: SoldTable): Promise<Result<true, StoreTrouble>> {
    const kept = { sold: table.rows, form: table.form, assumed: this.assumed() };
    return this.keep(kept);
  }

  /** What is taken for granted from now on; where sales cannot be read it holds until the page is opened anew, and nothing is written over them. */
  async assume(assumed: Assumed): Promise<Result<true, StoreTrouble>> {
    if (this.broken()) {
      this.kept.update((k) => ({ ...k, assumed }));
      await this.look();
      return ok(true as const);
    }
    const kept = { ...this.kept(), assumed };
    return this.keep(kept);
  }

  private async keep(kept: Kept): Promise<Result<true, StoreTrouble>> {
    const done = await this.repository.keepSetting(SETTING.sold, kept);
    if (!done.ok) return done;
    this.kept.set(kept);
    this.broken.set(false);
    await this.look();
    return done;
  }

  private thread(): WorkerClient<PatternJobs> {
    return new WorkerClient<PatternJobs>(
      () => new Worker(new URL('../workers/patterns.worker', import.meta.url), { type: 'module' }),
    );
  }
}
