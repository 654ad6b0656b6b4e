import { ChangeDetectionStrategy, Component, computed, inject, output } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzProgressModule } from 'ng-zorro-antd/progress';
import { NzTableModule } from 'ng-zorro-antd/table';
import { type TableName, TABLES } from '@core/catalogue/pack-issue';
import { COLUMNS } from '@core/catalogue/table-columns';
import { own } from '@core/quantity/own';
import { PackImports } from '../data/pack-imports';
import { counted } from '../language/plural';
import { Notices } from '../commands/notices';
import { headWords, ROW_TABLE_WORDS, TABLE_WORDS } from '../messages/column-heads';
import { issueSentence } from '../messages/packs';
import { Pick } from '../ui/pick';
import { RowDifferences } from './row-differences';

const LEFT_OUT = '';
const LEAVE = { key: LEFT_OUT, wording: 'leave it out' };

/** A catalogue that came in: how far it is read, every bad row, names that are not known here, what would differ; then all or nothing. */
@Component({
  selector: 'hs-pack-preview',
  imports: [NzButtonComponent, NzProgressModule, NzTableModule, Pick, RowDifferences],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (imports.progress(); as p) {
      <div
        role="progressbar"
        aria-valuemin="0"
        [attr.aria-label]="'Reading ' + p.step"
        [attr.aria-valuemax]="p.total"
        [attr.aria-valuenow]="p.done"
      >
        Reading {{ p.step }}…
        <nz-progress nzSize="small" [nzPercent]="percent(p.done, p.total)" [nzShowInfo]="false" />
      </div>
      <button nz-button (click)="imports.cancel()">Cancel</button>
    } @else if (imports.preview(); as p) {
      @if (p.issueCount) {
        @if (p.unread.length || strange().length) {
          <p role="alert">
            <b>▲ Some names are not known here. Nothing was changed.</b> Say once what they are; it is kept
            for the next file.
          </p>
          @for (t of p.unread; track t) {
            <hs-pick
              [label]="'“' + t + '” is the table of'"
              placeholder="which?"
              [options]="tableChoices"
              [value]="named.tables(t)"
              (picked)="nameTable(t, $event)"
            />
          }
          @for (s of strange(); track s.table + s.heading) {
            <hs-pick
              [label]="'“' + s.heading + '” in ' + words[s.table] + ' is'"
              placeholder="which?"
              [options]="s.choices"
              [value]="named.column(s.table, s.heading)"
              (picked)="imports.nameColumn(s.table, s.heading, $event)"
            />
          }
          <div class="row">
            <button nz-button nzType="primary" (click)="imports.again()">Read it again</button>
            <button nz-button (click)="imports.cancel()">Close</button>
          </div>
        } @else {
          <p role="alert">
            <b>▲ {{ counted(p.issueCount, 'fault', 'faults') }}. Nothing was changed.</b>
            Mend {{ source() }} and try again.
          </p>
          <button nz-button (click)="imports.cancel()">Close</button>
        }
        <ol class="faults" aria-label="Faults">
          @for (s of sentences(); track $index) {
            <li>{{ s }}</li>
          }
        </ol>
      } @else if (p.versionTaken) {
        <p role="alert">
          <b>▲ {{ p.id }} is here already with other content.</b> Give the catalogue a new version. Nothing
          was changed.
        </p>
        <button nz-button (click)="imports.cancel()">Close</button>
      } @else {
        <p>
          <b>{{ p.id }}</b
          >, issued {{ p.issued }}. {{ p.source }}<br /><small>against {{ p.against ?? 'nothing' }}</small>
        </p>
        @if (moved().length === 0) {
          <p>Nothing in it differs from what is here.</p>
        }
        <nz-table nzTemplateMode nzSize="small">
          <thead>
            <tr>
              <th>Table</th>
              <th class="num">Rows</th>
              <th class="num">New</th>
              <th class="num">Changed</th>
              <th class="num">Removed</th>
            </tr>
          </thead>
          <tbody>
            @for (d of moved(); track d.table) {
              <tr>
                <td>{{ rowWords[d.table] }}</td>
                <td class="num">{{ d.rows }}</td>
                <td class="num">{{ d.added }}</td>
                <td class="num">{{ d.changed }}</td>
                <td class="num">{{ d.removed }}</td>
              </tr>
            }
          </tbody>
        </nz-table>
        @if (p.against && p.rows.length) {
          <hs-row-differences [rows]="p.rows" />
        }
        <div class="row">
          <button nz-button nzType="primary" (click)="take()">Take it in</button>
          <button nz-button (click)="imports.cancel()">Leave it</button>
        </div>
      }
    } @else if (imports.failure(); as f) {
      <p role="alert">▲ {{ f }}</p>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 6px;
      justify-items: start;
      width: 100%;
    }
    :host:empty {
      display: none;
    }
    p {
      margin: 0;
    }
    [role='progressbar'],
    nz-table {
      width: 100%;
    }
    .faults {
      max-height: 300px;
      overflow: auto;
      padding-left: 22px;
      margin: 0;
    }
  `,
})
export class PackPreview {
  protected readonly counted = counted;
  protected readonly words = TABLE_WORDS;
  protected readonly rowWords: Readonly<Record<string, string>> = ROW_TABLE_WORDS;
  protected readonly imports = inject(PackImports);
  private readonly notices = inject(Notices);
  /** The catalogue that was taken in. */
  readonly taken = output<string>();
  protected readonly tableChoices = [
    ...TABLES.map((key): { key: string; wording: string } => ({ key, wording: TABLE_WORDS[key] })),
    LEAVE,
  ];
  protected readonly sentences = computed(() => (this.imports.preview()?.issues ?? []).map(issueSentence));
  /** Tables of which any row differs. */
  protected readonly moved = computed(() =>
    (this.imports.preview()?.diff ?? []).filter((d) => d.added + d.changed + d.removed > 0),
  );
  /** What has to be mended: a file that came in, or what was typed here. */
  protected readonly source = computed(() => (this.imports.typedHere() ? 'what was typed' : 'the file'));
  /** Headings that are not known, with the columns of their table that nothing was given for. */
  protected readonly strange = computed(() => {
    const issues = this.imports.preview()?.issues ?? [];
    return issues.flatMap((i) => {
      const table = TABLES.find((t) => t === i.table);
      if (i.reason.code !== 'unknown_column' || table === undefined) return [];
      const lacking = issues.flatMap((x) =>
        x.table === table && x.reason.code === 'missing_column' ? [x.reason.column] : [],
      );
      const may = COLUMNS[table].filter((c) => c.optional).map((c) => c.name);
      const choices = [...lacking, ...may].map((key) => ({ key, wording: headWords(key) }));
      return [{ table, heading: i.reason.column, choices: [...choices, LEAVE] }];
    });
  });
  protected readonly named = {
    tables: (theirs: string) => own(this.imports.as().tables, theirs),
    column: (table: TableName, theirs: string) => own(this.imports.as().columns[table], theirs),
  };

  protected nameTable(theirs: string, picked: string): void {
    this.imports.nameTable(theirs, TABLES.find((t) => t === picked) ?? LEFT_OUT);
  }

  protected percent(done: number, total: number): number {
    return Math.round((100 * done) / Math.max(1, total));
  }

  protected async take(): Promise<void> {
    const id = await this.imports.take();
    if (id === undefined) return;
    await this.notices.say('success', `${id} is here. New cases answer with it.`);
    this.taken.emit(id);
  }
}
