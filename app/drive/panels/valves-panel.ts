import { nth } from '@core/quantity/must';
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { NzTableModule } from 'ng-zorro-antd/table';
import { safeCrankRanges, smallestGaps } from '@core/drive/valve-safety';
import { DriveStore } from '../drive-store';

const OUT = [0, 1, -1, 2, -2];

/** Whether pistons and valves meet, now and with whole teeth out. */
@Component({
  selector: 'hs-valves-panel',
  imports: [NzTableModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (table(); as t) {
      <p>
        No piston can reach an open valve, whatever the cams do, with the crank
        <b>{{ t.ranges || 'nowhere' }}</b> after its mark, every turn.
      </p>
      <nz-table nzTemplateMode nzSize="small">
        <caption class="quiet">
          Smallest gap in mm when turned with a cam so many teeth out
        </caption>
        <thead>
          <tr>
            <th>Valves</th>
            @for (k of out; track k) {
              <th class="num">{{ k === 0 ? 'as made' : k > 0 ? k + ' early' : -k + ' late' }}</th>
            }
          </tr>
        </thead>
        <tbody>
          @for (r of t.rows; track r.name) {
            <tr>
              <td>{{ r.name }}</td>
              @for (g of r.gaps; track $index) {
                <td class="num" [class.hit]="g.hit">{{ g.hit ? '✕ ' : '' }}{{ g.mm }}</td>
              }
            </tr>
          }
        </tbody>
      </nz-table>
      <p>In this state: {{ t.now }}</p>
      <p class="quiet">
        Slider-crank without offset; the valve’s path is a sin² stand-in, so gaps near zero are a warning, not
        a promise. ✕ contact is to be expected.
      </p>
    } @else {
      <p>
        ▲ Stroke, rod and valve reach are not in the catalogue for this drive. Interference unknown counts as
        yes: turn no shaft alone, and ask the vehicle maker’s information for a safe position.
      </p>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
      align-content: start;
      grid-template-columns: minmax(0, 1fr);
    }
    .hit {
      font-weight: 600;
      color: var(--bad-ink);
    }
    caption {
      text-align: left;
      caption-side: top;
    }
  `,
})
export class ValvesPanel {
  private readonly store = inject(DriveStore);
  protected readonly out = OUT;
  protected readonly table = computed(() => {
    const layout = this.store.stages()[0]?.layout;
    const g = layout?.valves;
    const z = layout?.wheels[0]?.teeth;
    if (!layout || !g || z === undefined) return undefined;
    const tooth = 360 / z;
    const columns = OUT.map((k) => smallestGaps(g, () => k * tooth));
    const phases = this.store.stageAt() === 0 ? (this.store.state()?.phases ?? []) : [];
    const now = smallestGaps(
      g,
      (wheel) => phases.find((p) => nth(layout.wheels, p.wheel).id === wheel)?.driverDeg ?? 0,
    );
    const hits = now.filter((c) => c.gapMm <= 0);
    return {
      ranges: safeCrankRanges(g)
        .ranges.map((r) => `${r.fromDeg.toFixed(0)}° to ${r.toDeg.toFixed(0)}°`)
        .join(' or '),
      rows: g.valves.map((v, i) => ({
        name: v.name,
        gaps: columns.map((c) => ({ mm: nth(c, i).gapMm.toFixed(1), hit: nth(c, i).gapMm <= 0 })),
      })),
      now: hits.length
        ? hits.map((c) => `✕ ${c.valve} meets the piston of cylinder ${c.cylinder}`).join('; ')
        : `smallest gap ${Math.min(...now.map((c) => c.gapMm)).toFixed(1)} mm.`,
    };
  });
}
