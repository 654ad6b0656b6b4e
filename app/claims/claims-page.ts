import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  linkedSignal,
  signal,
  untracked,
} from '@angular/core';
import { ScrollingModule } from '@angular/cdk/scrolling';
import { Router, RouterLink } from '@angular/router';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzCheckboxModule } from 'ng-zorro-antd/checkbox';
import { registryFor, worldOf } from '@core/answer/world';
import { claimColumns, columnName, CURRENCY } from '@core/intake/claims-form';
import { type ClaimsForm, DECIMAL_SIGNS } from '@core/intake/kept-form';
import type { RowState } from '@core/intake/claims-table';
import { Notices } from '../commands/notices';
import { Cases } from '../data/cases';
import { ClaimsTables, type ShownRow } from '../data/claims-tables';
import { Packs } from '../data/packs';
import { counted } from '../language/plural';
import {
  cellTrouble,
  claimsWords,
  columnWords,
  CURRENCY_WORDS,
  DECIMAL_WORDS,
  namesNoClaim,
  NOT_READ,
  ORDER_WORDS,
  STATE_WORDS,
  stoppedWords,
  tableSentence,
} from '../messages/claims';
import { writeCsv } from '../report/csv';
import { download } from '../report/download';
import { FileButton } from '../ui/file-button';
import { Pick } from '../ui/pick';
import { Segmented } from '../ui/segmented';
import { StateCard } from '../ui/state';

/** Height of a row. */
const ROW_PX = 68;
type Which = RowState | 'all';

/** A table of claims from elsewhere: what its columns are, what each row says, opened as cases. Nothing is filed by reading. */
@Component({
  selector: 'hs-claims-page',
  imports: [
    NzButtonComponent,
    NzCheckboxModule,
    RouterLink,
    ScrollingModule,
    FileButton,
    Pick,
    Segmented,
    StateCard,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './claims-page.html',
  styleUrl: './claims-page.less',
})
export class ClaimsPage {
  protected readonly table = inject(ClaimsTables);
  private readonly packs = inject(Packs);
  private readonly cases = inject(Cases);
  private readonly notices = inject(Notices);
  private readonly router = inject(Router);
  protected readonly rowPx = ROW_PX;
  protected readonly which = signal<Which>('all');
  protected readonly counts = computed(() => {
    const counts: Record<RowState, number> = { ready: 0, gaps: 0, stopped: 0, here: 0 };
    for (const r of this.table.rows()) counts[r.state]++;
    return counts;
  });
  protected readonly says = computed(() => claimsWords(this.counts()));
  protected readonly whiches = computed((): { value: Which; label: string }[] => [
    { value: 'all', label: 'All' },
    ...(['ready', 'gaps', 'stopped', 'here'] as const)
      .filter((s) => this.counts()[s] > 0)
      .map((s) => ({ value: s, label: `${STATE_WORDS[s]} ${this.counts()[s]}` })),
  ]);
  protected readonly rows = computed(() => {
    const which = this.which();
    return this.table.rows().filter((r) => which === 'all' || r.state === which);
  });
  /** What every column can be, in the order of its name. */
  protected readonly meanings = computed(() => {
    const catalogue = this.packs.newest();
    if (!catalogue) return [];
    const columns = claimColumns(registryFor(worldOf(catalogue)))
      .map((o) => ({ key: o.key, wording: columnWords(o) }))
      .sort((a, b) => (a.wording < b.wording ? -1 : 1));
    return [{ key: '', wording: NOT_READ }, ...columns, { key: CURRENCY, wording: CURRENCY_WORDS }];
  });
  protected readonly orders = (['dmy', 'mdy', 'ymd'] as const).map((key) => ({
    key,
    wording: ORDER_WORDS[key],
  }));
  protected readonly signs = DECIMAL_SIGNS.map((key) => ({ key, wording: DECIMAL_WORDS[key] }));
  protected readonly distances = (['km', 'mi'] as const).map((key) => ({ key, wording: key }));
  protected readonly columns = computed(() => {
    const [came, form] = [this.table.came(), this.table.form()];
    if (!came || !form) return [];
    return came.head.map((_, i) => ({
      i,
      name: columnName(came.head, i),
      examples: (came.examples[i] ?? []).join(' · '),
      key: form.columns[i] ?? '',
      count: came.columns[i] ?? { read: 0, refused: 0 },
    }));
  });
  protected readonly noClaims = computed(() => {
    const form = this.table.form();
    return form !== undefined && namesNoClaim(form);
  });
  protected readonly troubleSays = computed(() => {
    const trouble = this.table.trouble();
    return trouble && tableSentence(trouble);
  });
  /** Numbers of rows that are chosen: all that are ready when a table was read, until somebody says otherwise. */
  private readonly picked = linkedSignal<unknown, ReadonlySet<number>>({
    source: () => this.table.came()?.rows,
    computation: () =>
      new Set(untracked(this.table.rows).flatMap((r) => (r.state === 'ready' ? [r.row.no] : []))),
  });
  protected readonly chosen = computed(() =>
    this.table.rows().filter((r) => canOpen(r) && this.picked().has(r.row.no)),
  );
  private readonly free = computed(() => this.rows().filter(canOpen));
  protected readonly allChosen = computed(
    () => this.free().length > 0 && this.free().every((r) => this.picked().has(r.row.no)),
  );
  protected readonly openWords = computed(() => {
    const [at, of] = [this.table.opening(), this.chosen().length];
    if (at !== undefined) return `${at} of ${of} opened`;
    return of === 0 ? 'Open what is chosen' : `Open ${counted(of, 'case', 'cases')}`;
  });

  constructor() {
    this.cases.putBack();
  }

  protected readonly byNo = (_: number, r: ShownRow): number => r.row.no;
  protected readonly canOpen = canOpen;

  protected stateWords(state: RowState): string {
    return STATE_WORDS[state];
  }

  protected whyOf({ row }: ShownRow): string {
    if (row.stopped) return stoppedWords(row.stopped);
    const head = this.table.came()?.head ?? [];
    return (row.problems ?? []).map((p) => cellTrouble(p, head)).join(' ');
  }

  protected tag(id: string): string {
    return this.cases.summaries().find((s) => s.id === id)?.tag ?? 'a case';
  }

  protected isChosen(r: ShownRow): boolean {
    return this.picked().has(r.row.no);
  }

  protected choose(r: ShownRow, on: boolean): void {
    this.picked.update((before) => {
      const next = new Set(before);
      if (on) next.add(r.row.no);
      else next.delete(r.row.no);
      return next;
    });
  }

  /** Chooses the rows that are shown, and no others. */
  protected chooseAll(on: boolean): void {
    this.picked.update((before) => {
      const next = new Set(before);
      for (const r of this.free()) {
        if (on) next.add(r.row.no);
        else next.delete(r.row.no);
      }
      return next;
    });
  }

  protected files([file]: readonly File[]): void {
    if (file) void this.table.read(file.name, file);
  }

  /** What a column is now; what was that before is kept as a note. */
  protected mean(column: number, key: string): void {
    const form = this.table.form();
    if (!form) return;
    const columns = form.columns.map((k, i) => (i === column ? key : k === key ? '' : k));
    void this.table.choose({ ...form, columns });
  }

  protected write(part: Partial<ClaimsForm>): void {
    const form = this.table.form();
    if (form) void this.table.choose({ ...form, ...part });
  }

  protected async openOne(r: ShownRow): Promise<void> {
    await this.opened([r.row.no]);
    const id = this.table.rows().find((x) => x.row.no === r.row.no)?.here;
    if (id !== undefined) await this.router.navigate(['/case', id, 'settle']);
  }

  protected async openChosen(): Promise<void> {
    const done = await this.opened(this.chosen().map((r) => r.row.no));
    if (done > 0)
      await this.notices.say('success', `${counted(done, 'case', 'cases')} opened. They stand on the rack.`);
  }

  private async opened(rows: readonly number[]): Promise<number> {
    const opened = await this.table.open(rows);
    if (!opened.ok) {
      this.notices.refuse(`Not all of them were opened. ${tableSentence(opened.error)}`);
      return 0;
    }
    return opened.value;
  }

  /** Rows that were not read whole, as they came, with the reason beside each: to be mended where they came from. */
  protected async refusedOut(): Promise<void> {
    const bad = this.table.rows().filter((r) => r.state === 'gaps' || r.state === 'stopped');
    const got = await this.table.cells(bad.map((r) => r.row.no));
    if (!got.ok) {
      this.notices.refuse(tableSentence(got.error));
      return;
    }
    const { head, rows } = got.value;
    const lines = rows.map(({ no, cells }, i) => {
      const row = bad[i];
      return [no, row ? this.whyOf(row) : '', ...head.map((_, k) => cells[k] ?? '')];
    });
    const csv = writeCsv([['Row', 'Why', ...head], ...lines]);
    download(
      `not-read-${this.table.name().replace(/\.[^.]*$/, '')}.csv`,
      new Blob([csv], { type: 'text/csv' }),
    );
  }
}

const canOpen = (r: ShownRow): boolean => r.state === 'ready' || r.state === 'gaps';
