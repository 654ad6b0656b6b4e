import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  signal,
  untracked,
} from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { FAULTS } from '@core/claim/faults';
import type { ChartSpan } from '@core/patterns/charts';
import type { FaultLine } from '@core/patterns/look';
import { PatternPapers } from '../commands/pattern-papers';
import { PopulationDesk } from '../data/population';
import { SPAN_LINES, spansWords } from '../messages/bulletins';
import { faultWording } from '../messages/fitting';
import { shopWords } from '../messages/patterns';
import { BulletinForm } from './bulletin-form';
import { ChartBox } from './chart-box';
import { spanOption, spanTable } from './span-options';

/** One fault of a workshop or of a kit's step, by quarters; the workshop is told by a letter, everybody who fits the kit by a bulletin. */
@Component({
  selector: 'hs-fault-detail',
  imports: [BulletinForm, ChartBox, NzButtonComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="card" [attr.aria-label]="title()">
      <h2>{{ title() }}</h2>
      @if (quarters().length > 0) {
        <hs-chart-box
          [label]="title() + ', by the quarter of fitting'"
          [note]="note()"
          [option]="option()"
          name="quarters"
          [table]="table()"
        />
      }
      @if (row().shop !== undefined) {
        <button nz-button nzSize="small" nzType="primary" [disabled]="papers.making()" (click)="write()">
          Letter to the workshop
        </button>
      }
      @if (row().kit; as kit) {
        <hs-bulletin-form [kit]="kit" [step]="row().step" [code]="row().code" />
      }
    </section>
  `,
  styles: `
    section {
      display: grid;
      gap: 6px;
      grid-template-columns: minmax(0, 1fr);
    }
    section > button {
      justify-self: start;
    }
  `,
})
export class FaultDetail {
  readonly row = input.required<FaultLine>();
  private readonly desk = inject(PopulationDesk);
  protected readonly papers = inject(PatternPapers);
  protected readonly quarters = signal<readonly ChartSpan[]>([]);
  protected readonly title = computed(() => {
    const r = this.row();
    return `${r.shop === undefined ? (r.kit ?? '') : shopWords(r.shop)}: ${faultWording(r.code)}`;
  });
  protected readonly note = computed(() => `${spansWords(this.quarters())} ${SPAN_LINES}`);
  protected readonly option = computed(() => spanOption(this.quarters(), 'found'));
  protected readonly table = computed(() => spanTable(this.quarters()));

  constructor() {
    effect(() => {
      const row = this.row();
      untracked(() => void this.fetch(row));
    });
  }

  private async fetch(row: FaultLine): Promise<void> {
    this.quarters.set([]);
    const { shop, kit, code, step } = row;
    const quarters = await this.desk.quarters({
      ...(shop === undefined ? {} : { shop }),
      ...(kit === undefined ? {} : { kit }),
      code,
      step,
      // half a fault more: a share of none among few is not known to be none
      share: (row.others.faults + 0.5) / (row.others.of + 1),
    });
    if (this.row() === row) this.quarters.set(quarters);
  }

  protected write(): void {
    const [row, quarters] = [this.row(), this.quarters()];
    void this.papers.pdf(`letter-${row.code}`, this.desk.source() === 'invented', (p, head) =>
      p.shopLetter(
        head,
        row,
        quarters,
        FAULTS.find((f) => f.code === row.code),
      ),
    );
  }
}
