import { must } from '@core/quantity/must';
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
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzInputDirective } from 'ng-zorro-antd/input';
import { NzTableComponent, NzTableModule } from 'ng-zorro-antd/table';
import { Router, RouterLink } from '@angular/router';
import { engineOfNumber } from '@core/catalogue/leaf';
import { rowKey } from '@core/catalogue/pack-changes';
import { packId } from '@core/catalogue/version';
import { type TableName, TABLES } from '@core/catalogue/pack-issue';
import { COLUMNS } from '@core/catalogue/table-columns';
import { tableCells } from '@core/catalogue/tables';
import type { Hit } from '@core/catalogue/search';
import { Cases } from '../data/cases';
import { Corrections } from '../data/corrections';
import { Packs } from '../data/packs';
import { Commands } from '../commands/commands';
import { Find } from '../data/find';
import { PackExports } from '../commands/pack-exports';
import { Segmented } from '../ui/segmented';
import { StateCard } from '../ui/state';
import { tallRows } from '../ui/tall-rows';
import { headWords, TABLE_WORDS } from '../messages/column-heads';
import { EngineCards } from './engine-cards';
import { CorrectionsCard } from './corrections-card';
import { ImportPanel } from './import-panel';
import { RowDialog } from './row-dialog';

/** Height of a row and of the heading above them. */
const ROW_PX = 27;
const HEAD_PX = 34;

/** The catalogue itself: find anything, look through any table, bring packs in and out. */
@Component({
  selector: 'hs-catalogue-page',
  imports: [
    NzButtonComponent,
    RouterLink,
    NzInputDirective,
    NzTableModule,
    EngineCards,
    CorrectionsCard,
    ImportPanel,
    RowDialog,
    Segmented,
    StateCard,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './catalogue-page.html',
  styleUrl: './catalogue-page.less',
})
export class CataloguePage {
  protected readonly packs = inject(Packs);
  private readonly find = inject(Find);
  private readonly commands = inject(Commands);
  private readonly exports = inject(PackExports);
  private readonly router = inject(Router);
  protected readonly ways = [
    { value: 'cards' as const, label: 'Drives' },
    { value: 'tables' as const, label: 'Tables' },
  ];
  protected readonly way = signal<'cards' | 'tables'>('cards');
  protected readonly head = headWords;
  protected readonly tableWords = TABLE_WORDS;
  protected readonly table = signal<TableName>('engines');
  protected readonly typed = signal('');
  /** Number of the row that was looked for. */
  protected readonly lit = signal<string | undefined>(undefined);
  private readonly shown = viewChild<NzTableComponent<object>>('shown');
  private readonly grid = viewChild.required<ElementRef<HTMLElement>>('grid');
  protected readonly rowPx = ROW_PX;
  /** Height of the rows: what the window leaves them, below the heading. */
  protected readonly tall = tallRows(this.grid, this.shown, HEAD_PX);
  private readonly injector = inject(Injector);
  protected readonly corrections = inject(Corrections);
  /** The newest catalogue, with what is being corrected in it. */
  protected readonly pack = computed(() => this.corrections.pack());
  /** The row that is corrected now, or none of it for a new one. */
  protected readonly correcting = signal<{ row: object | undefined } | undefined>(undefined);
  private readonly corrected = computed(
    () => new Set(this.corrections.changes().map((c) => `${c.table}|${c.key}`)),
  );
  protected readonly title = computed(() => {
    const p = this.pack();
    return p ? `${packId(p)}, issued ${p.issued}. ${p.source}` : 'No catalogue yet';
  });
  protected readonly hits = computed(() => this.find.hits(this.typed()));
  protected readonly columns = computed(() => COLUMNS[this.table()].map((c) => c.name));
  protected readonly rows = computed<readonly object[]>(() => this.pack()?.[this.table()] ?? []);
  protected readonly counts = computed(
    () =>
      Object.fromEntries(TABLES.map((t) => [t, this.pack()?.[t].length ?? 0])) as Record<TableName, number>,
  );

  /** The tables with how many rows each has. */
  protected readonly choices = computed(() =>
    TABLES.map((t) => ({ value: t, label: `${TABLE_WORDS[t]} ${this.counts()[t]}` })),
  );

  constructor() {
    inject(Cases).putBack();
  }

  protected isLit(row: object): boolean {
    return 'number' in row && row.number === this.lit();
  }

  protected isCorrected(row: object): boolean {
    return this.corrected().has(`${this.table()}|${rowKey(this.table(), row)}`);
  }

  protected correct(row: object | undefined): void {
    this.correcting.set({ row });
  }

  /** Cells of one row; only rows on the screen are ever written out. */
  protected cells(row: object): (string | number)[] {
    return tableCells(this.table(), [row])[1] ?? [];
  }

  protected async open(hit: Hit): Promise<void> {
    if (hit.kind === 'engine') {
      await this.router.navigate(['/catalogue/engine', hit.key]);
      return;
    }
    const table =
      hit.kind === 'kit' ? ('kits' as const) : hit.kind === 'part' ? ('parts' as const) : ('cross' as const);
    this.way.set('tables');
    this.table.set(table);
    this.lit.set(hit.key);
    const at = (this.pack()?.[table] ?? []).findIndex((r) => r.number === hit.key);
    afterNextRender(() => this.shown()?.cdkVirtualScrollViewport?.scrollToIndex(Math.max(0, at - 3)), {
      injector: this.injector,
    });
  }

  /** Page on which a found record stands; none where no engine takes it. */
  protected pageOf(hit: Hit): { code: string; kit: string } | undefined {
    const cat = this.packs.newest();
    if (!cat || hit.kind === 'engine') return undefined;
    const number = hit.kind === 'cross' ? cat.pack.cross.find((c) => c.number === hit.key)?.names : hit.key;
    const code = number === undefined ? undefined : engineOfNumber(cat, number);
    return code === undefined ? undefined : { code, kit: must(number) };
  }

  protected json(): void {
    this.exports.json();
  }

  protected workbook(): void {
    void this.exports.workbook();
  }

  protected csv(): void {
    this.exports.csv();
  }
}
