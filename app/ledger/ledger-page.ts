import {
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  signal,
  viewChild,
} from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzInputDirective } from 'ng-zorro-antd/input';
import { NzTableComponent, NzTableModule } from 'ng-zorro-antd/table';
import { debounceTime } from 'rxjs';
import {
  LEDGER_COLUMNS,
  type LedgerColumn,
  type LedgerQuery,
  type LedgerRow,
  ledgerRows,
  ledgerTotals,
} from '@core/answer/ledger';
import { Cases } from '../data/cases';
import { Clock } from '../data/clock';
import { DeskSettingsStore } from '../data/desk-settings';
import {
  AGE_WORDS,
  causeWords,
  cellValue,
  cellWords,
  decisionWords,
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
const NUMBERS: ReadonlySet<LedgerColumn> = new Set(['asked', 'ours', 'days']);
const FILTERED = ['kind', 'waits', 'decision', 'engine'] as const;
type Filtered = (typeof FILTERED)[number];
const FILTER_WORDS: Record<Filtered, string> = {
  kind: 'Kind',
  waits: 'Stands',
  decision: 'Decision',
  engine: 'Engine',
};

/** Every case in one table: found, sorted and added up from their summaries alone; taken out as it stands. */
@Component({
  selector: 'hs-ledger-page',
  imports: [NzButtonComponent, NzInputDirective, NzTableModule, RouterLink, BarChart, Pick, StateCard],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './ledger-page.html',
  styleUrl: './ledger-page.less',
})
export class LedgerPage {
  private readonly cases = inject(Cases);
  private readonly clock = inject(Clock);
  private readonly settings = inject(DeskSettingsStore);
  private readonly shown = viewChild<NzTableComponent<LedgerRow>>('shown');
  private readonly grid = viewChild.required<ElementRef<HTMLElement>>('grid');
  protected readonly rowPx = ROW_PX;
  /** Height of the rows: what the window leaves them, below the heading. */
  protected readonly tall = tallRows(this.grid, this.shown, HEAD_PX);
  protected readonly columns = LEDGER_COLUMNS;
  protected readonly words = LEDGER_WORDS;
  protected readonly typed = signal('');
  protected readonly narrowed = signal<LedgerQuery['only']>({});
  protected readonly sort = signal<LedgerQuery['sort']>({ by: 'tag', down: true });
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
  }

  protected readonly byId = (_: number, r: LedgerRow): string => r.id;

  protected cell(r: LedgerRow, column: LedgerColumn): string {
    return cellWords(r, column, this.settings.notation(), this.clock.today());
  }

  protected isNumber(column: LedgerColumn): boolean {
    return NUMBERS.has(column);
  }

  protected width(column: LedgerColumn): string {
    return `${WIDTHS[column] ?? 104}px`;
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

  protected clear(): void {
    this.typed.set('');
    this.narrowed.set({});
  }

  /** What is on the screen, row by row in its order. */
  protected csv(): void {
    const today = this.clock.today();
    const head = LEDGER_COLUMNS.map((c) =>
      c === 'asked' || c === 'ours' ? `${LEDGER_WORDS[c]} AC` : LEDGER_WORDS[c],
    );
    const rows = this.rows().map((r) => LEDGER_COLUMNS.map((c) => cellValue(r, c, today)));
    download(`ledger-${today}.csv`, new Blob([writeCsv([head, ...rows])], { type: 'text/csv' }));
  }

  private optionWords(column: Filtered, key: string): string {
    if (column === 'decision') return decisionWords(key);
    if (column !== 'waits') return key;
    const row = { waits: key as LedgerRow['waits'] };
    return waitsWords(row, this.clock.today());
  }
}
