import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import type { RowDifference } from '@core/catalogue/pack-changes';
import { headWords, ROW_TABLE_WORDS } from '../messages/column-heads';

const WORDS = { added: 'new', changed: 'changed', removed: 'taken out' } as const;
/** Longest text of a field that is shown whole. */
const LONG = 60;
const short = (t: string): string =>
  t === '' ? 'nothing' : t.length > LONG ? `${t.slice(0, LONG - 1)}…` : t;

/** Rows of a catalogue that differ from the one before, field by field. */
@Component({
  selector: 'hs-row-differences',
  imports: [NzButtonComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ul aria-label="What differs">
      @for (r of shown(); track r.table + r.key) {
        <li>
          <b>{{ r.key }}</b
          >&ngsp;<span class="quiet">{{ r.table }}, {{ r.is }}</span>
          @for (f of r.fields; track f.field) {
            <div>
              {{ f.field }}: <del>{{ f.before }}</del> → <ins>{{ f.after }}</ins>
            </div>
          }
          @if (mayUndo()) {
            <button
              nz-button
              nzSize="small"
              [attr.aria-label]="'Take back ' + r.key"
              (click)="undone.emit(r.row)"
            >
              Take back
            </button>
          }
        </li>
      }
    </ul>
  `,
  styles: `
    :host {
      display: block;
      max-height: 260px;
      overflow: auto;
      width: 100%;
    }
    ul {
      list-style: none;
      margin: 0;
      padding: 0;
    }
    li {
      border-top: 1px solid var(--rule);
      padding: 3px 0;
      overflow-wrap: anywhere;
    }
    ins {
      text-decoration: none;
      font-weight: 600;
    }
    del {
      color: var(--ink-2);
    }
  `,
})
export class RowDifferences {
  readonly rows = input.required<readonly RowDifference[]>();
  /** Each can be taken back. */
  readonly mayUndo = input(false);
  readonly undone = output<RowDifference>();
  protected readonly shown = computed(() =>
    this.rows().map((row) => ({
      row,
      key: row.key.replace('|', ' on '),
      table: ROW_TABLE_WORDS[row.table],
      is: WORDS[row.is],
      fields: row.fields.map((f) => ({
        field: headWords(f.field),
        before: short(f.before),
        after: short(f.after),
      })),
    })),
  );
}
