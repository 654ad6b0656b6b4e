import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { counted } from '../language/plural';
import { Corrections } from '../data/corrections';
import { PackImports } from '../data/pack-imports';
import { RowDifferences } from './row-differences';

/** Rows that are being corrected, until they are taken in together as the next version. */
@Component({
  selector: 'hs-corrections-card',
  imports: [NzButtonComponent, RowDifferences],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (corrections.changes().length > 0) {
      <section class="card" aria-label="Corrections">
        <h2>{{ title() }}</h2>
        <hs-row-differences
          [rows]="corrections.differences()"
          [mayUndo]="true"
          (undone)="corrections.undo($event.table, $event.key)"
        />
        <div class="row">
          <button nz-button nzType="primary" [disabled]="busy()" (click)="corrections.check()">
            Check as version {{ corrections.next() }}
          </button>
          <button nz-button (click)="corrections.undo()">Take all back</button>
        </div>
      </section>
    }
  `,
})
export class CorrectionsCard {
  protected readonly corrections = inject(Corrections);
  private readonly imports = inject(PackImports);
  protected readonly busy = computed(() => this.imports.progress() !== undefined);
  protected readonly title = computed(() =>
    counted(this.corrections.changes().length, 'row corrected', 'rows corrected'),
  );
}
