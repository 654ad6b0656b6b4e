import * as z from 'zod';
import { inject, Injectable, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { EMPTY, Subject, switchMap } from 'rxjs';
import { resultOf, WorkerClient } from '../threads/worker-client';
import type { ImportPreview, ImportProgress, PackJobs } from '../workers/pack-import.protocol';
import { type TableName, TABLES } from '@core/catalogue/pack-issue';
import { parseJson } from '@core/quantity/parse-json';
import type { NamedAs } from '@core/catalogue/tables';
import { Drafts } from './drafts';
import { FactRepository } from './fact-repository';

/** Half-done work on catalogues is kept as that of a case is. */
export const OF_CATALOGUE = 'catalogue';
const NAMED = 'named|as';
const NamedSchema = z.strictObject({
  tables: z.record(z.string(), z.enum([...TABLES, ''])),
  columns: z.partialRecord(z.enum(TABLES), z.record(z.string(), z.string())),
});
/** What a draft holds as JSON; undefined where it holds none. */
export function parsedDraft(text: string): unknown {
  const read = parseJson(text);
  return read.ok ? read.value : undefined;
}

/** Brings a catalogue in: read in a thread of its own, shown, then taken as a whole or left. */
@Injectable({ providedIn: 'root' })
export class PackImports {
  private readonly repository = inject(FactRepository);
  private readonly drafts = inject(Drafts);
  private readonly client = new WorkerClient<PackJobs>(
    () => new Worker(new URL('../workers/pack-import.worker', import.meta.url), { type: 'module' }),
  );
  readonly progress = signal<ImportProgress | undefined>(undefined);
  readonly preview = signal<ImportPreview | undefined>(undefined);
  readonly failure = signal<string | undefined>(undefined);
  readonly typedHere = signal(false);

  /** Files to be read; undefined for none any more. The last ones count. */
  private readonly chosen = new Subject<PackJobs['read']['input'] | undefined>();
  private files: File[] = [];
  /** What tables and columns are called in the files of this house. */
  readonly as = signal<NamedAs>({ tables: {}, columns: {} });

  constructor() {
    const kept = NamedSchema.safeParse(parsedDraft(this.drafts.read(OF_CATALOGUE, NAMED)));
    if (kept.success) this.as.set(kept.data);
    const read$ = this.chosen.pipe(switchMap((ask) => (ask ? this.client.job('read', ask) : EMPTY)));
    read$.pipe(takeUntilDestroyed()).subscribe((e) => {
      if (e.is === 'progress') return this.progress.set(e.progress);
      if (e.result.ok) {
        this.progress.set(undefined);
        this.preview.set(e.result.value);
      } else if (e.result.error.code === 'failed') this.fail(e.result.error.detail);
    });
  }

  /** @param typedHere it was written here, and mended here if it has faults */
  read(files: File[], typedHere = false): void {
    this.cancel();
    this.typedHere.set(typedHere);
    this.files = files;
    this.again();
  }

  /** Reads the same files again, as their tables and columns are named by now. */
  again(): void {
    this.progress.set({ step: 'opening', done: 0, total: 1 });
    this.chosen.next({ files: this.files, as: this.as() });
  }

  /** Says what a table that came in is, or '' where it is to be left out. */
  nameTable(theirs: string, table: NamedAs['tables'][string]): void {
    this.keep({ ...this.as(), tables: { ...this.as().tables, [theirs]: table } });
  }

  /** Says what a column that came in is, or '' where it is to be left out. */
  nameColumn(table: TableName, theirs: string, column: string): void {
    const { tables, columns } = this.as();
    this.keep({ tables, columns: { ...columns, [table]: { ...columns[table], [theirs]: column } } });
  }

  private keep(as: NamedAs): void {
    this.as.set(as);
    this.drafts.keep(OF_CATALOGUE, NAMED, JSON.stringify(as));
  }

  /** Takes the pack that was shown in; its id. */
  async take(): Promise<string | undefined> {
    const taken = await resultOf(this.client.job('take', undefined));
    if (!taken.ok) {
      this.fail(taken.error.detail);
      return undefined;
    }
    this.repository.tell({ grown: [], summaries: [], packs: [taken.value], extracts: [] });
    this.cancel();
    return taken.value;
  }

  /** Ends the thread. Nothing has been written until a pack is taken. */
  cancel(): void {
    this.chosen.next(undefined);
    this.client.dispose();
    this.progress.set(undefined);
    this.preview.set(undefined);
    this.failure.set(undefined);
  }

  private fail(message: string): void {
    this.cancel();
    this.failure.set(`The catalogue could not be read: ${message}. Nothing was changed.`);
  }
}
