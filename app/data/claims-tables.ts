import { computed, inject, Injectable, signal } from '@angular/core';
import { Subject } from 'rxjs';
import { type ClaimsForm, MOST_FORMS } from '@core/intake/kept-form';
import { type ClaimRow, type RowState, rowState } from '@core/intake/claims-table';
import { type Result, err, ok } from '@core/quantity/result';
import { resultOf, type WorkerError } from '../threads/worker-client';
import type { ClaimCellsAnswer, ClaimsAsk, ClaimsCame, TableTrouble } from '../workers/claims.protocol';
import { Cases } from './cases';
import { Clock } from './clock';
import { deskThread } from './desk-job';
import { DeskSettingsStore } from './desk-settings';
import { FactRepository } from './fact-repository';

const brokenOff = ({ detail }: WorkerError): TableTrouble => ({ code: 'broken_off', detail });
/** A row as it is shown, with the case that has it. */
export type ShownRow = { row: ClaimRow; says: string; state: RowState; here?: string };

/** A table of claims that came in: read in a thread, looked through, and opened as cases. */
@Injectable({ providedIn: 'root' })
export class ClaimsTables {
  private readonly settings = inject(DeskSettingsStore);
  private readonly clock = inject(Clock);
  private readonly cases = inject(Cases);
  private readonly repository = inject(FactRepository);
  private readonly source = signal<{ name: string; blob: Blob } | undefined>(undefined);
  private readonly chosen = signal<ClaimsForm | undefined>(undefined);
  private readonly asked$ = new Subject<void>();
  private readonly stopped$ = new Subject<void>();

  readonly name = computed(() => this.source()?.name ?? '');
  readonly reading = signal(false);
  readonly trouble = signal<TableTrouble | undefined>(undefined);
  /** What was read; it stays while the same table is read in another way. */
  readonly came = signal<ClaimsCame | undefined>(undefined);
  /** How many are open, while that goes on. */
  readonly opening = signal<number | undefined>(undefined);
  readonly form = computed(() => this.chosen() ?? this.came()?.guess.form);
  readonly rows = computed<ShownRow[]>(() => {
    const came = this.came();
    if (!came) return [];
    const here = new Map(came.here);
    const says = came.says.split('\n');
    return came.rows.map((row, i) => {
      // A row whose claim stands above is where that one is.
      const id =
        here.get(row.no) ?? (row.stopped?.code === 'twice' ? here.get(row.stopped.first) : undefined);
      return {
        row,
        says: says[i] ?? '',
        state: rowState(row, id),
        ...(id === undefined ? {} : { here: id }),
      };
    });
  });

  /** Reads a table that came in. */
  read(name: string, blob: Blob): Promise<void> {
    this.source.set({ name, blob });
    this.chosen.set(undefined);
    this.came.set(undefined);
    return this.again();
  }

  /** Reads it another way; the next table with these headings is read so as well. */
  choose(form: ClaimsForm): Promise<void> {
    this.chosen.set(form);
    this.keep(form);
    return this.again();
  }

  /** Reads no further; what was read before stays. */
  cancel(): void {
    this.asked$.next();
    this.reading.set(false);
  }

  /** Opens rows as cases: all of them, or those before it was stopped. How many. */
  async open(rows: readonly number[]): Promise<Result<number, TableTrouble>> {
    const [ask, form] = [this.ask(), this.form()];
    if (!ask || !form || this.opening() !== undefined) return ok(0);
    this.keep(form);
    this.opening.set(0);
    const thread = deskThread();
    const { by } = this.settings.settings();
    const tag = this.cases.nextNumber();
    const mark = this.cases.mark() ?? '';
    const before = this.cases.summaries().length;
    const answer = await resultOf(
      thread.job('openClaims', { ...ask, form, rows: [...rows], by, at: this.clock.now(), tag, mark }),
      {
        tell: (n) => this.opening.set(n),
        stop$: this.stopped$,
      },
    );
    thread.dispose();
    if (answer.ok && answer.value.ok) {
      const { summaries, opened } = answer.value.value;
      const grown = summaries.map((s) => s.id);
      this.repository.tell({ grown, summaries, packs: [], extracts: [] });
      this.came.update((c) => c && { ...c, here: [...c.here, ...opened] });
      this.opening.set(undefined);
      return ok(opened.length);
    }
    // Stopped or broken off: what is on the disk by then is whole, and read again.
    this.repository.tell({ grown: [], summaries: [], packs: [], extracts: [], allSummaries: true });
    await this.cases.load();
    await this.again();
    this.opening.set(undefined);
    if (!answer.ok)
      return answer.error.code === 'cancelled'
        ? ok(this.cases.summaries().length - before)
        : err(brokenOff(answer.error));
    return answer.value.ok ? ok(0) : answer.value;
  }

  stop(): void {
    this.stopped$.next();
  }

  /** The cells of some rows, as they came. */
  async cells(rows: readonly number[]): Promise<ClaimCellsAnswer> {
    const ask = this.ask();
    if (!ask) return err({ code: 'no_rows', name: '' });
    const thread = deskThread();
    const answer = await resultOf(thread.job('claimCells', { ...ask, rows: [...rows] }));
    thread.dispose();
    return answer.ok ? answer.value : err(brokenOff(answer.error));
  }

  private ask(): ClaimsAsk | undefined {
    const [source, form] = [this.source(), this.chosen()];
    return (
      source && {
        ...source,
        ...(form ? { form } : {}),
        kept: this.settings.settings().claimForms,
        notation: this.settings.notation(),
        today: this.clock.today(),
      }
    );
  }

  /** Reads what is there; what is asked for next ends what is asked for now. */
  private async again(): Promise<void> {
    const ask = this.ask();
    if (!ask) return;
    this.asked$.next();
    this.reading.set(true);
    this.trouble.set(undefined);
    const thread = deskThread();
    const answer = await resultOf(thread.job('claims', ask), { stop$: this.asked$ });
    thread.dispose();
    if (!answer.ok && answer.error.code === 'cancelled') return;
    this.reading.set(false);
    if (answer.ok && answer.value.ok) this.came.set(answer.value.value);
    else if (!answer.ok) this.trouble.set(brokenOff(answer.error));
    else if (!answer.value.ok) this.trouble.set(answer.value.error);
  }

  private keep(form: ClaimsForm): void {
    const head = this.came()?.head;
    if (!head) return;
    const same = (h: readonly string[]) => h.length === head.length && h.every((x, i) => x === head[i]);
    const others = this.settings.settings().claimForms.filter((k) => !same(k.head));
    this.settings.change({ claimForms: [{ head, form }, ...others].slice(0, MOST_FORMS) });
  }
}
