import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  output,
} from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzInputDirective } from 'ng-zorro-antd/input';
import { rowFromCells, rowKey } from '@core/catalogue/pack-changes';
import type { TableName } from '@core/catalogue/pack-issue';
import { COLUMNS } from '@core/catalogue/table-columns';
import { tableCells } from '@core/catalogue/tables';
import { Corrections } from '../data/corrections';
import { headWords, TABLE_WORDS } from '../messages/column-heads';
import { cellSentence } from '../messages/packs';
import { Modal } from '../ui/modal';
import { Pick } from '../ui/pick';

/** One row of the catalogue, cell by cell, to be corrected, taken out or put in anew. */
@Component({
  selector: 'hs-row-dialog',
  imports: [Modal, NzButtonComponent, NzInputDirective, Pick],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <hs-modal [open]="true" [title]="title()" [width]="640" (closed)="closed.emit()">
      <form (submit)="$event.preventDefault(); keep()">
        @for (f of fields(); track f.name; let i = $index) {
          <div class="field">
            @if (f.choices; as choices) {
              <hs-pick [label]="f.label" [options]="choices" [value]="f.text" (picked)="type(i, $event)" />
            } @else {
              <label [for]="'cell-' + i">{{ f.label }}</label>
              <input
                nz-input
                #box
                [id]="'cell-' + i"
                autocomplete="off"
                [value]="f.text"
                [attr.aria-invalid]="f.fault ? true : null"
                [attr.aria-describedby]="f.fault ? 'fault-' + i : null"
                (input)="type(i, box.value)"
              />
            }
            @if (f.fault) {
              <p class="caution" [id]="'fault-' + i">{{ f.fault }}</p>
            }
          </div>
        }
        <div class="row">
          <button nz-button nzType="primary" [disabled]="!read().ok">Keep the correction</button>
          @if (row()) {
            <button nz-button type="button" (click)="remove()">Take the row out</button>
          }
          <span class="quiet">Nothing answers with it before the next version is taken in.</span>
        </div>
      </form>
    </hs-modal>
  `,
  styles: `
    form {
      display: grid;
      gap: 6px;
      max-height: 66vh;
      overflow: auto;
      padding: 2px;
    }
    .field {
      display: grid;
      grid-template-columns: 150px 1fr;
      gap: 2px 8px;
      align-items: center;
    }
    .field hs-pick {
      grid-column: 1 / -1;
      display: grid;
      grid-template-columns: 150px 1fr;
      gap: 8px;
    }
    .field p {
      grid-column: 2;
      margin: 0;
    }
  `,
})
export class RowDialog {
  readonly table = input.required<TableName>();
  /** The row that is corrected; none for a new one. */
  readonly row = input<object>();
  readonly closed = output();
  private readonly corrections = inject(Corrections);
  private readonly columns = computed(() => COLUMNS[this.table()]);
  protected readonly title = computed(() => {
    const row = this.row();
    return row
      ? `${TABLE_WORDS[this.table()]}: ${rowKey(this.table(), row).replace('|', ' on ')}`
      : `${TABLE_WORDS[this.table()]}: a new row`;
  });
  private readonly cells = linkedSignal<readonly string[]>(() => {
    const row = this.row();
    const written = row && tableCells(this.table(), [row])[1];
    return this.columns().map((_, i) => String(written?.[i] ?? ''));
  });
  protected readonly read = computed(() => rowFromCells(this.table(), this.cells()));
  /** Fields that were touched: an empty new row is not one of so many faults. */
  private readonly touched = linkedSignal<ReadonlySet<number>>(() => {
    this.row();
    return new Set();
  });
  protected readonly fields = computed(() => {
    const read = this.read();
    return this.columns().map((c, i) => {
      const fault = read.ok ? undefined : read.error.find((f) => f.column === c.name);
      const none = c.optional ? [{ key: '', wording: 'nothing' }] : [];
      return {
        name: c.name,
        label: headWords(c.name),
        text: this.cells()[i] ?? '',
        choices: c.allowed && [
          ...none,
          ...c.allowed.map((key) => ({ key, wording: key.replace(/_/g, ' ') })),
        ],
        fault: fault && this.touched().has(i) ? cellSentence(fault.reason) : '',
      };
    });
  });

  protected type(i: number, text: string): void {
    this.cells.update((all) => all.with(i, text));
    this.touched.update((t) => new Set(t).add(i));
  }

  protected keep(): void {
    const read = this.read();
    if (!read.ok) {
      this.touched.set(new Set(this.columns().map((_, i) => i)));
      return;
    }
    const table = this.table();
    const [before, key] = [this.row(), rowKey(table, read.value)];
    // A row with another key is another row: the one before goes.
    if (before && rowKey(table, before) !== key) this.corrections.put({ table, key: rowKey(table, before) });
    this.corrections.put({ table, key, row: read.value });
    this.closed.emit();
  }

  protected remove(): void {
    const row = this.row();
    if (row) this.corrections.put({ table: this.table(), key: rowKey(this.table(), row) });
    this.closed.emit();
  }
}
