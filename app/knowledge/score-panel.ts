import { ChangeDetectionStrategy, Component, computed, effect, inject, untracked } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzProgressModule } from 'ng-zorro-antd/progress';
import { NzTableModule } from 'ng-zorro-antd/table';
import { formatNumber } from '@core/quantity/format-quantity';
import { DeskScore, SCORED_RETURNS } from '../data/desk-score';
import { OwnNumbers } from '../data/own-numbers';
import { driveRows, familyRows, pathWords, scoreRows } from '../messages/score';

/** How well these numbers find the cause of returns whose truth is known, since they were drawn from another one. */
@Component({
  selector: 'hs-score-panel',
  imports: [NzButtonComponent, NzProgressModule, NzTableModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="card" aria-label="How often it is right">
      <h2>How often it is right</h2>
      <p class="quiet">
        Virtual returns, drawn from what each cause shows as written down apart from these numbers, with looks
        passed over, misread and never said.
      </p>
      @if (score.done() !== undefined) {
        <div
          role="progressbar"
          aria-label="Judging virtual returns"
          aria-valuemin="0"
          aria-valuemax="100"
          [attr.aria-valuenow]="percent()"
        >
          <nz-progress nzSize="small" [nzPercent]="percent()" [nzShowInfo]="false" />
        </div>
        <button nz-button nzSize="small" (click)="score.halt()">Stop</button>
      } @else {
        <button nz-button nzSize="small" (click)="judge()">Judge {{ returns }} virtual returns</button>
      }
      @if (score.failed(); as why) {
        <p class="caution" role="alert">It could not be finished: {{ why }}. Try again.</p>
      }
      @if (table(); as t) {
        <nz-table nzTemplateMode nzSize="small">
          <thead>
            <tr>
              <th>Boxes</th>
              @for (c of t.columns; track c) {
                <th class="num">{{ c }}</th>
              }
            </tr>
          </thead>
          <tbody>
            @for (r of t.rows; track r.name) {
              <tr>
                <td>{{ r.name }}</td>
                @for (v of r.values; track $index) {
                  <td class="num">{{ v }}</td>
                }
              </tr>
            }
          </tbody>
        </nz-table>
        <p>
          Leader right by family, complete boxes:
          @for (f of t.families; track f.family) {
            {{ f.family }} {{ f.right }}{{ $last ? '.' : ';' }}
          }
        </p>
        <p>
          By kind of drive, each by one design that has it:
          @for (d of t.drives; track d.family) {
            {{ d.family }} {{ d.right }}{{ $last ? '.' : ';' }}
          }
        </p>
        <p>{{ t.paths }}</p>
      }
    </section>
  `,
  styles: `
    nz-table {
      display: block;
      overflow-x: auto;
    }
  `,
})
export class ScorePanel {
  protected readonly score = inject(DeskScore);
  private readonly ownNumbers = inject(OwnNumbers);
  protected readonly returns = formatNumber(SCORED_RETURNS, 0);
  protected readonly percent = computed(() => Math.round(100 * (this.score.done() ?? 0)));
  protected readonly table = computed(() => {
    const [shipped, own] = [this.score.shipped(), this.score.own()];
    if (!shipped) return undefined;
    const by = [
      { name: own ? ', as shipped' : '', pair: shipped },
      ...(own ? [{ name: ', yours', pair: own }] : []),
    ];
    const scores = by.flatMap(({ name, pair }) => [
      { column: `Complete${name}`, score: pair.complete },
      { column: `Half looked at${name}`, score: pair.half },
    ]);
    const rows = scores.map((s) => scoreRows(s.score));
    return {
      columns: scores.map((s) => s.column),
      rows: (rows[0] ?? []).map(({ name }, i) => ({ name, values: rows.map((r) => r[i]?.value ?? '') })),
      families: familyRows((own ?? shipped).complete),
      drives: driveRows((own ?? shipped).complete),
      paths: pathWords((own ?? shipped).paths),
    };
  });

  constructor() {
    // what was found is of the numbers then
    effect(() => {
      this.ownNumbers.changes();
      untracked(() => this.score.forget());
    });
  }

  protected judge(): void {
    void this.score.judge();
  }
}
