import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  Injector,
  signal,
  viewChild,
} from '@angular/core';
import { CdkVirtualScrollViewport, ScrollingModule } from '@angular/cdk/scrolling';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzInputDirective } from 'ng-zorro-antd/input';
import { packId } from '@core/catalogue/version';
import { type TableName, TABLES } from '@core/catalogue/pack-issue';
import { COLUMNS } from '@core/catalogue/table-columns';
import { tableCells } from '@core/catalogue/tables';
import type { Hit } from '@core/catalogue/search';
import { Cases } from '../data/cases';
import { Packs } from '../data/packs';
import { Commands } from '../acts/commands';
import { Find } from '../data/find';
import { PackExports } from '../acts/pack-exports';
import { ImportPanel } from './import-panel';

/** The catalogue itself: find anything, look through any table, bring packs in and out. */
@Component({
  selector: 'hs-catalogue-page',
  imports: [ScrollingModule, NzButtonComponent, NzInputDirective, ImportPanel],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './catalogue-page.html',
  styleUrl: './catalogue-page.less',
})
export class CataloguePage {
  protected readonly packs = inject(Packs);
  private readonly find = inject(Find);
  private readonly commands = inject(Commands);
  private readonly exports = inject(PackExports);
  protected readonly tables = TABLES;
  protected readonly table = signal<TableName>('engines');
  protected readonly typed = signal('');
  /** Number of the row that was looked for. */
  protected readonly lit = signal<string | undefined>(undefined);
  private readonly viewport = viewChild(CdkVirtualScrollViewport);
  private readonly injector = inject(Injector);
  protected readonly pack = computed(() => this.packs.newest()?.pack);
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

  constructor() {
    inject(Cases).putBack();
  }

  protected isLit(row: object): boolean {
    return 'number' in row && row.number === this.lit();
  }

  /** Cells of one row; only rows on the screen are ever written out. */
  protected cells(row: object): (string | number)[] {
    return tableCells(this.table(), [row])[1] ?? [];
  }

  protected async open(hit: Hit): Promise<void> {
    if (hit.kind === 'engine') {
      await this.commands.newCase(hit.key);
      return;
    }
    const table =
      hit.kind === 'kit' ? ('kits' as const) : hit.kind === 'part' ? ('parts' as const) : ('cross' as const);
    this.table.set(table);
    this.lit.set(hit.key);
    const at = (this.pack()?.[table] ?? []).findIndex((r) => r.number === hit.key);
    afterNextRender(() => this.viewport()?.scrollToIndex(Math.max(0, at - 3)), { injector: this.injector });
  }

  protected json(): void {
    this.exports.json();
  }

  protected csv(): void {
    this.exports.csv();
  }
}
