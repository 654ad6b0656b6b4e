import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  Injector,
  signal,
  viewChild,
} from '@angular/core';
import { takeUntilDestroyed, toObservable, toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { RouterLink } from '@angular/router';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzInputDirective } from 'ng-zorro-antd/input';
import { NzSelectModule } from 'ng-zorro-antd/select';
import { NzTableComponent, NzTableModule } from 'ng-zorro-antd/table';
import { concatMap, debounceTime, from, map, Observable, switchMap } from 'rxjs';
import { followUpsOf } from '@core/answer/follow-ups';
import {
  LEDGER_COLUMNS,
  type LedgerColumn,
  type LedgerQuery,
  type LedgerRow,
  ledgerRows,
  ledgerTotals,
  readyOrder,
} from '@core/answer/ledger';
import { Cases } from '../data/cases';
import { DeskPolicy } from '../data/desk-policy';
import { Clock } from '../data/clock';
import { workbookOf } from '../data/workbooks';
import { DeskSettingsStore } from '../data/desk-settings';
import {
  type GroupHead,
  groupRows,
  isHead,
  LEDGER_GROUPS,
  type LedgerLine,
  type LedgerView,
  ledgerLines,
  MOST_VIEWS,
  type RowGroup,
  WHOLE_LEDGER,
} from '@core/answer/ledger-view';
import { canonical } from '@core/facts/canonical';
import {
  AGE_WORDS,
  causeWords,
  cellValue,
  cellWords,
  decisionWords,
  GROUP_WORDS,
  groupName,
  LEDGER_WORDS,
  totalsWords,
} from '../messages/ledger';
import { moneyWords } from '../messages/money';
import { waitsWords } from '../messages/waits';
import { writeCsv } from '../report/csv';
import { download } from '../report/download';
import { BarChart } from '../ui/bar-chart';
import { Pick } from '../ui/pick';
import { StateCard } from '../ui/state';
import { tallRows } from '../ui/tall-rows';

/** Rest of a hand before pictures follow, ms. */
const REST_MS = 120;
/** Height of a row and of the heading above them, px; causes that are drawn. */
const [ROW_PX, HEAD_PX, MOST_CAUSES] = [34, 38, 8];
const WIDTHS: Partial<Record<LedgerColumn, number>> = {
  tag: 58,
  opened: 92,
  who: 132,
  engine: 96,
  waits: 118,
  decision: 92,
  asked: 96,
  ours: 96,
  days: 58,
  cause: 240,
};
const WIDTH = 104;
const NUMBERS: ReadonlySet<LedgerColumn> = new Set(['asked', 'ours', 'days']);
const FILTERED = ['kind', 'waits', 'decision', 'engine'] as const;
type Filtered = (typeof FILTERED)[number];
const FILTER_WORDS: Record<Filtered, string> = {
  kind: 'Kind',
  waits: 'Stands',
  decision: 'Decision',
  engine: 'Engine',
};

/** Once, when the page has nothing else to do. */
const idle = (): Observable<void> =>
  new Observable((to) => {
    const asked = requestIdleCallback(() => {
      to.next();
      to.complete();
    });
    return () => {
      cancelIdleCallback(asked);
    };
  });

/** Every case in one table: found, sorted and added up from their summaries alone; taken out as it stands. */
@Component({
  selector: 'hs-ledger-page',
  imports: [
    FormsModule,
    NzButtonComponent,
    NzInputDirective,
    NzSelectModule,
    NzTableModule,
    RouterLink,
    BarChart,
    Pick,
    StateCard,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './ledger-page.html',
  styleUrl: './ledger-page.less',
})
export class LedgerPage {
  private readonly cases = inject(Cases);
  private readonly clock = inject(Clock);
  private readonly settings = inject(DeskSettingsStore);
  private readonly policy = inject(DeskPolicy);
  private readonly shown = viewChild<NzTableComponent<LedgerLine>>('shown');
  private readonly grid = viewChild.required<ElementRef<HTMLElement>>('grid');
  private readonly named = viewChild<ElementRef<HTMLInputElement>>('named');
  private readonly injector = inject(Injector);
  protected readonly rowPx = ROW_PX;
  /** Height of the rows: what the window leaves them, below the heading. */
  protected readonly tall = tallRows(this.grid, this.shown, HEAD_PX);
  protected readonly words = LEDGER_WORDS;
  protected readonly typed = signal('');
  protected readonly narrowed = signal<LedgerQuery['only']>({});
  protected readonly sort = signal<LedgerQuery['sort']>(WHOLE_LEDGER.sort);
  protected readonly columns = signal<readonly LedgerColumn[]>(LEDGER_COLUMNS);
  protected readonly group = signal<LedgerView['group']>('');
  /** Groups whose rows are shown. */
  private readonly unfolded = signal<ReadonlySet<string>>(new Set());
  protected readonly allColumns = LEDGER_COLUMNS.filter((c) => c !== 'tag').map((key) => ({
    key,
    wording: LEDGER_WORDS[key],
  }));
  protected readonly groupings = [
    { key: '', wording: 'nothing' },
    ...LEDGER_GROUPS.map((key) => ({ key, wording: GROUP_WORDS[key] })),
  ];
  private readonly view = computed<LedgerView>(() => ({
    typed: this.typed(),
    only: this.narrowed(),
    sort: this.sort(),
    columns: [...this.columns()],
    group: this.group(),
  }));
  /** The kept view that is looked at just so, by its name. */
  protected readonly viewName = computed(() => {
    const mine = canonical(this.view());
    return this.settings.settings().ledgerViews.find((v) => canonical(v.view) === mine)?.name ?? '';
  });
  protected readonly views = computed(() =>
    this.settings.settings().ledgerViews.map((v) => ({ key: v.name, wording: v.name })),
  );
  /** The name under which this view is to be kept, while it is typed. */
  protected readonly naming = signal<string | undefined>(undefined);
  protected readonly tooMany = computed(() => this.views().length >= MOST_VIEWS);
  protected readonly failed = signal('');
  protected readonly filtered = computed(
    () => this.typed().trim() !== '' || Object.keys(this.narrowed()).length > 0,
  );
  protected readonly rows = computed(() =>
    ledgerRows(
      this.cases.summaries(),
      { typed: this.typed(), only: this.narrowed(), sort: this.sort() },
      this.clock.today(),
    ),
  );
  private readonly groups = computed(() => {
    const by = this.group();
    if (by === '') return [];
    const groups = groupRows(this.rows(), by, this.sort());
    if (by === 'month' || NUMBERS.has(this.sort().by)) return groups;
    // As they are read, what lacks it last.
    const today = this.clock.today();
    const named = groups.map((g) => ({ g, name: groupName(by, g, today).toLowerCase() }));
    const last = (x: { g: RowGroup }) => (x.g.key === '' ? 1 : 0);
    return named.sort((a, b) => last(a) - last(b) || (a.name < b.name ? -1 : 1)).map((x) => x.g);
  });
  /** What stands in the table, line by line. */
  protected readonly lines = computed((): readonly LedgerLine[] =>
    this.group() === '' ? this.rows() : ledgerLines(this.groups(), this.unfolded()),
  );
  /** Width that the columns need. */
  protected readonly wide = computed(
    () => `${this.columns().reduce((sum, c) => sum + (WIDTHS[c] ?? WIDTH), 0)}px`,
  );
  protected readonly allUnfolded = computed(() => this.groups().every((g) => this.unfolded().has(g.key)));
  protected readonly totals = computed(() => ledgerTotals(this.rows()));
  protected readonly says = computed(() => totalsWords(this.totals()));
  /** What each column can be narrowed to: what stands there in any case. */
  protected readonly picks = computed(() => {
    const all = ledgerRows(
      this.cases.summaries(),
      { typed: '', only: {}, sort: { by: 'tag', down: true } },
      this.clock.today(),
    );
    return FILTERED.map((column) => ({
      column,
      label: FILTER_WORDS[column],
      options: [
        { key: '', wording: 'all' },
        ...[...new Set(all.map((r) => r[column]))]
          .filter(Boolean)
          .sort()
          .map((key) => ({ key, wording: this.optionWords(column, key) })),
      ],
    }));
  });
  /** What the pictures show: it follows once the hand rests, so that no key waits for a picture. */
  private readonly rested = toSignal(toObservable(this.totals).pipe(debounceTime(REST_MS)), {
    initialValue: ledgerTotals([]),
  });
  protected readonly decisions = computed(() =>
    [...this.rested().decisions]
      .map(([key, d]) => ({ name: decisionWords(key), value: d.cases }))
      .sort((a, b) => b.value - a.value),
  );
  protected readonly money = computed(() =>
    [...this.rested().decisions]
      .filter(([, d]) => d.asked > 0)
      .map(([key, d]) => ({
        name: decisionWords(key),
        ours: moneyWords(d.ours),
        asked: moneyWords(d.asked),
      })),
  );
  protected readonly causes = computed(() =>
    [...this.rested().causes]
      .map(([key, value]) => ({ name: causeWords(key), value }))
      .sort((a, b) => b.value - a.value)
      .slice(0, MOST_CAUSES),
  );
  protected readonly ages = computed(() =>
    this.rested().ages.map((value, i) => ({ name: AGE_WORDS[i] ?? '', value })),
  );

  constructor() {
    this.cases.putBack();
    // Orders are made ready one after the other while nobody waits, so that any heading answers at once.
    toObservable(this.cases.summaries)
      .pipe(
        debounceTime(REST_MS),
        switchMap((all) =>
          from(LEDGER_COLUMNS).pipe(concatMap((by) => idle().pipe(map(() => ({ all, by }))))),
        ),
        takeUntilDestroyed(),
      )
      .subscribe(({ all, by }) => readyOrder(all, by, this.clock.today()));
  }

  /** By its place: what is found next is written into the rows that stand there, which is quicker than making new ones. */
  protected readonly byPlace = (at: number): number => at;

  protected cell(r: LedgerRow, column: LedgerColumn): string {
    return cellWords(r, column, this.settings.notation(), this.clock.today());
  }

  protected isNumber(column: LedgerColumn): boolean {
    return NUMBERS.has(column);
  }

  protected width(column: LedgerColumn): string {
    return `${WIDTHS[column] ?? WIDTH}px`;
  }

  /** The same column again turns it round; figures begin with the largest. */
  protected order(by: LedgerColumn): void {
    this.sort.update((s) =>
      s.by === by ? { by, down: !s.down } : { by, down: NUMBERS.has(by) || by === 'opened' },
    );
  }

  protected sortOf(column: LedgerColumn): string | null {
    const s = this.sort();
    return s.by === column ? (s.down ? 'descending' : 'ascending') : null;
  }

  protected arrow(column: LedgerColumn): string {
    const s = this.sort();
    return s.by === column ? (s.down ? '↓' : '↑') : '';
  }

  protected pick(column: Filtered, value: string): void {
    this.narrowed.update((before) => {
      const rest = Object.fromEntries(Object.entries(before).filter(([c]) => c !== column));
      return value === '' ? rest : { ...rest, [column]: value };
    });
  }

  /** Every case again; columns and groups stay. */
  protected clear(): void {
    this.typed.set('');
    this.narrowed.set({});
  }

  protected headOf(line: LedgerLine): GroupHead | undefined {
    return isHead(line) ? line : undefined;
  }

  protected groupWords({ group }: GroupHead): string {
    const by = this.group();
    return by === '' ? '' : groupName(by, group, this.clock.today());
  }

  protected sumOf({ group }: GroupHead): string {
    return totalsWords(group.totals);
  }

  protected gather(by: string): void {
    this.group.set(LEDGER_GROUPS.find((g) => g === by) ?? '');
    this.unfolded.set(new Set());
  }

  protected fold({ group }: GroupHead): void {
    this.unfolded.update((before) => {
      const next = new Set(before);
      if (!next.delete(group.key)) next.add(group.key);
      return next;
    });
  }

  protected foldAll(open: boolean): void {
    this.unfolded.set(new Set(open ? this.groups().map((g) => g.key) : []));
  }

  /** Columns stay in their order, whichever was chosen last. */
  protected show(columns: readonly LedgerColumn[]): void {
    this.columns.set(LEDGER_COLUMNS.filter((c) => c === 'tag' || columns.includes(c)));
  }

  protected look(name: string): void {
    const kept = this.settings.settings().ledgerViews.find((v) => v.name === name);
    if (kept) this.put(kept.view);
  }

  protected name(): void {
    this.naming.set('');
    afterNextRender(() => this.named()?.nativeElement.focus(), { injector: this.injector });
  }

  /** Keeps this view under a name; one that had the name is replaced. */
  protected keepView(): void {
    const name = (this.naming() ?? '').trim();
    if (name === '') return;
    const others = this.settings.settings().ledgerViews.filter((v) => v.name !== name);
    this.settings.change({ ledgerViews: [...others, { name, view: this.view() }].slice(-MOST_VIEWS) });
    this.naming.set(undefined);
  }

  protected forgetView(): void {
    const name = this.viewName();
    this.settings.change({
      ledgerViews: this.settings.settings().ledgerViews.filter((v) => v.name !== name),
    });
  }

  /** What is on the screen, row by row in its order, in the columns that are shown. */
  protected csv(): void {
    download(`ledger-${this.clock.today()}.csv`, new Blob([writeCsv(this.table())], { type: 'text/csv' }));
  }

  protected async workbook(): Promise<void> {
    const made = await workbookOf([{ sheet: 'Ledger', rows: this.table() }]);
    if ('blob' in made) download(`ledger-${this.clock.today()}.xlsx`, made.blob);
    this.failed.set('failed' in made ? made.failed : '');
  }

  /** Calls that were promised, and claims that the house promised to answer by a day, of the rows that are shown. */
  protected async calendar(): Promise<void> {
    const { followUpsCalendar } = await import('../report/call-back-event');
    const due = followUpsOf(this.rows(), this.cases.summaries(), this.policy.rules().promiseDays);
    if (due.length === 0) {
      this.failed.set('none of these cases waits for a call or an answer');
      return;
    }
    const made = followUpsCalendar(due.map((d) => ({ ...d, what: d.claim, at: this.clock.now() })));
    if (made.ok)
      download(`follow-ups-${this.clock.today()}.ics`, new Blob([made.value], { type: 'text/calendar' }));
    this.failed.set(made.ok ? '' : made.error);
  }

  private table(): (string | number)[][] {
    const today = this.clock.today();
    const columns = this.columns();
    const head = columns.map((c) =>
      c === 'asked' || c === 'ours' ? `${LEDGER_WORDS[c]} AC` : LEDGER_WORDS[c],
    );
    const rows = this.group() === '' ? this.rows() : this.groups().flatMap((g) => g.rows);
    return [head, ...rows.map((r) => columns.map((c) => cellValue(r, c, today)))];
  }

  private put({ typed, only, sort, columns, group }: LedgerView): void {
    this.typed.set(typed);
    this.narrowed.set(only);
    this.sort.set(sort);
    this.show(columns);
    this.gather(group);
  }

  private optionWords(column: Filtered, key: string): string {
    if (column === 'decision') return decisionWords(key);
    if (column !== 'waits') return key;
    const row = { waits: key as LedgerRow['waits'] };
    return waitsWords(row, this.clock.today());
  }
}
