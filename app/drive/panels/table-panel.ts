import { nth, num } from '@core/quantity/must';
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { NzTableModule } from 'ng-zorro-antd/table';
import { strandKinds, teethInMesh } from '@core/drive/strands';
import { turnedBy } from '@core/drive/turned';
import { signed, STRAND_WORDS } from '../../messages/drive-results';
import { clearanceWords } from '../../messages/drive';
import { DriveStore } from '../drive-store';

/** The drawing in figures: for the keyboard, for the screen reader, for copying. */
@Component({
  selector: 'hs-table-panel',
  imports: [NzTableModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (table(); as t) {
      <p>{{ t.head }}</p>
      <nz-table nzTemplateMode nzSize="small">
        <thead>
          <tr>
            <th>Wheel</th>
            <th class="num">wrap °</th>
            <th class="num">mesh</th>
            <th class="num">turn °</th>
            <th class="num">mark</th>
          </tr>
        </thead>
        <tbody>
          @for (r of t.rows; track r.id) {
            <tr
              tabindex="0"
              [class.lit]="store.lit() === r.id"
              (focus)="store.lit.set(r.id)"
              (pointerenter)="store.lit.set(r.id)"
            >
              <td>
                {{ r.name }} <small>at {{ r.at }} mm, then {{ r.strand }}</small>
              </td>
              <td class="num">{{ r.wrap }}</td>
              <td class="num">{{ r.mesh }}</td>
              <td class="num">{{ r.turned }}</td>
              <td class="num">{{ r.mark }}</td>
            </tr>
          }
        </tbody>
      </nz-table>
    }
  `,
  styles: `
    table {
      table-layout: fixed;
      width: 100%;
    }
    th:first-child {
      width: 36%;
    }
    td small {
      display: block;
    }
    .lit td {
      background: var(--verdigris-soft);
    }
  `,
})
export class TablePanel {
  protected readonly store = inject(DriveStore);
  protected readonly table = computed(() => {
    const s = this.store.state();
    if (!s) return undefined;
    const kinds = strandKinds(s.layout);
    const turned = turnedBy(s.layout, s.circles, this.store.driverDeg());
    const unit = s.layout.kind === 'chain' ? 'links' : 'teeth';
    return {
      head: `${s.layout.count} ${unit} × ${s.layout.pitchMm} mm; path ${s.path.lengthMm.toFixed(2)} mm. Marks in teeth. ${s.clearance ? `Smallest clearance ${s.clearance.mm.toFixed(1)} mm ${clearanceWords(s.layout, s.clearance)}.` : ''}`,
      rows: s.layout.wheels.map((w, i) => {
        const wrap = num(s.path.wraps, i);
        const phase = s.phases.find((p) => p.wheel === i);
        return {
          id: w.id,
          name: w.name,
          at: `${nth(s.circles, i).x.toFixed(1)}, ${nth(s.circles, i).y.toFixed(1)}`,
          wrap: ((wrap * 180) / Math.PI).toFixed(1),
          mesh: w.teeth === undefined ? '' : teethInMesh(w.teeth, wrap).toFixed(1),
          turned: w.arc ? '' : num(turned.wheelDeg, i).toFixed(1),
          mark: phase ? signed(phase.teeth) : '',
          strand: `${STRAND_WORDS[nth(kinds, i)]} strand, ${nth(s.path.spans, i).lengthMm.toFixed(1)} mm`,
        };
      }),
    };
  });
}
