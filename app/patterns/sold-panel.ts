import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import {
  clashes,
  SOLD_COLUMNS,
  type SoldColumn,
  type SoldForm,
  type SoldTable,
} from '@core/patterns/read-sold';
import { Notices } from '../commands/notices';
import { PopulationDesk } from '../data/population';
import { troubleSentence } from '../data/store-trouble';
import { counted } from '../language/plural';
import { tableSentence } from '../messages/claims';
import { clashWords, lackingWords, SOLD_COLUMN_WORDS, soldFaultWords, soldWords } from '../messages/patterns';
import { writeCsv } from '../report/csv';
import { download } from '../report/download';
import { FileButton } from '../ui/file-button';
import { Pick } from '../ui/pick';
import { StateCard } from '../ui/state';

/** Faults and clashes that are named at once. */
const MOST = 12;

/** What was sold, by kit, lot, month and market: brought in as a table, looked through before it is taken. */
@Component({
  selector: 'hs-sold-panel',
  imports: [FileButton, NzButtonComponent, Pick, StateCard],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="card" aria-label="What was sold">
      <h2>What was sold</h2>
      <p>{{ now() }}</p>
      <div class="row">
        <hs-file-button
          wording="Choose a table"
          label="Table of what was sold"
          accept=".csv,.xlsx,.txt"
          type="primary"
          (chosen)="read($event[0])"
        />
        <button nz-button nzSize="small" (click)="empty()">Empty table to fill in</button>
      </div>
      @if (trouble()) {
        <hs-state kind="failed" [title]="trouble()" />
      }
      @if (table(); as t) {
        <h3>{{ file()?.name }}</h3>
        <div class="row">
          @for (c of columns; track c) {
            <hs-pick
              [label]="names[c]"
              placeholder="none"
              [options]="heads()"
              [value]="t.form[c] === undefined ? undefined : '' + t.form[c]"
              (picked)="choose(c, $event)"
            />
          }
        </div>
        @if (t.lacking.length) {
          <p class="caution">{{ lacking() }}</p>
        } @else {
          <p>
            <b>{{ counted(t.rows.length, 'row', 'rows') }} can be taken</b
            >{{ t.faults.length ? ', ' + t.faults.length + ' cannot:' : '.' }}
          </p>
          <ul>
            @for (f of faults(); track f.row) {
              <li>Row {{ f.row }}: {{ f.words }}</li>
            }
            @if (t.faults.length > faults().length) {
              <li>and {{ t.faults.length - faults().length }} more</li>
            }
          </ul>
          @if (clashing().length) {
            <p class="caution">It does not agree with what came back:</p>
            <ul>
              @for (c of clashing(); track c) {
                <li>{{ c }}</li>
              }
            </ul>
          }
          <div class="row">
            <button
              nz-button
              nzSize="small"
              nzType="primary"
              [disabled]="t.rows.length === 0"
              (click)="take(t)"
            >
              {{ t.faults.length ? 'Take the others, leave these out' : 'Take it' }}
            </button>
            <button nz-button nzSize="small" (click)="table.set(undefined)">Take nothing</button>
          </div>
        }
      }
    </section>
  `,
  styles: `
    section {
      display: grid;
      gap: 8px;
      justify-items: start;
    }
    p,
    ul {
      margin: 0;
    }
  `,
})
export class SoldPanel {
  protected readonly desk = inject(PopulationDesk);
  private readonly notices = inject(Notices);
  protected readonly columns = SOLD_COLUMNS;
  protected readonly names = SOLD_COLUMN_WORDS;
  protected readonly counted = counted;
  protected readonly file = signal<File | undefined>(undefined);
  protected readonly table = signal<SoldTable | undefined>(undefined);
  protected readonly trouble = signal('');
  protected readonly now = computed(() => {
    return this.desk.broken()
      ? 'What was kept of it cannot be read; it stays as it is until a table is taken.'
      : soldWords(this.desk.sold());
  });
  protected readonly heads = computed(() =>
    (this.table()?.head ?? []).map((h, i) => ({ key: String(i), wording: h || `column ${i + 1}` })),
  );
  protected readonly lacking = computed(() => lackingWords(this.table()?.lacking ?? []));
  protected readonly faults = computed(() =>
    (this.table()?.faults ?? []).slice(0, MOST).map((f) => ({ row: f.row, words: soldFaultWords(f) })),
  );
  protected readonly clashing = computed(() => {
    const t = this.table();
    return t ? clashes(t.rows, this.desk.returns()).slice(0, MOST).map(clashWords) : [];
  });

  protected async read(file: File | undefined, form?: SoldForm): Promise<void> {
    if (!file) return;
    this.file.set(file);
    const got = await this.desk.read(file.name, file, form);
    this.trouble.set(got.ok ? '' : tableSentence(got.error));
    this.table.set(got.ok ? got.value : undefined);
  }

  protected choose(column: SoldColumn, at: string): void {
    const form = { ...this.table()?.form, [column]: Number(at) };
    void this.read(this.file(), form);
  }

  protected async take(t: SoldTable): Promise<void> {
    const done = await this.desk.take(t);
    if (done.ok) this.table.set(undefined);
    else this.notices.refuse(troubleSentence(done.error));
  }

  protected empty(): void {
    const head = SOLD_COLUMNS.map((c) => SOLD_COLUMN_WORDS[c]);
    download('sold.csv', new Blob([writeCsv([head])], { type: 'text/csv' }));
  }
}
