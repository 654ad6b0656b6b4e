import { num } from '@core/quantity/must';
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { isSafe, safeCrankRanges } from '@core/drive/valve-safety';
import { DriveStore } from './drive-store';

/** Where over two turns of the crank no piston can reach an open valve, and where the crank stands now. */
@Component({
  selector: 'hs-valve-band',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (band(); as b) {
      <svg viewBox="0 0 720 34" preserveAspectRatio="none" role="img" [attr.aria-label]="b.label">
        <rect class="reach" x="0" y="6" width="720" height="22" />
        @for (r of b.rects; track $index) {
          <rect class="safe" [attr.x]="r.x" y="6" [attr.width]="r.width" height="22" />
        }
        <path class="room" [attr.d]="b.room" />
        <path class="now" [attr.d]="'M' + b.at + ' 2v30'" />
      </svg>
      <div class="legend">
        <span>0°</span>
        <span
          >{{ b.safe ? '✓' : '▲' }} crank at {{ b.at.toFixed(0) }}°:
          {{
            b.safe ? 'no piston can reach a valve' : 'pistons reach open valves: turn no shaft alone'
          }}</span
        >
        <span>720°</span>
      </div>
    } @else {
      <p class="quiet">
        ▲ Valve reach is not in the catalogue: it counts as an interference engine at every angle.
      </p>
    }
  `,
  styles: `
    svg {
      display: block;
      width: 100%;
      height: 34px;
    }
    .reach {
      fill: var(--brass-soft);
      stroke: var(--brass);
    }
    .safe {
      fill: var(--verdigris-soft);
      stroke: var(--verdigris);
    }
    .room {
      fill: none;
      stroke: var(--ink-2);
      stroke-width: 1;
      vector-effect: non-scaling-stroke;
    }
    .now {
      stroke: var(--ink);
      stroke-width: 3;
      vector-effect: non-scaling-stroke;
    }
    .legend {
      display: flex;
      justify-content: space-between;
      gap: 8px;
      font-size: 0.92em;
    }
    p {
      margin: 0;
    }
  `,
})
export class ValveBand {
  private readonly store = inject(DriveStore);
  private readonly computed = computed(() => {
    const g = this.store.stages()[0]?.layout.valves;
    return g ? { g, safe: safeCrankRanges(g) } : undefined;
  });
  protected readonly band = computed(() => {
    const c = this.computed();
    if (!c) return undefined;
    const at = (((this.store.driverDeg() / this.store.ratio()) % 720) + 720) % 720;
    const twice = [0, 360].flatMap((by) =>
      c.safe.ranges.map((r) => ({ from: r.fromDeg + by, to: r.toDeg + by })),
    );
    const rects = twice.flatMap((r) => {
      const wrapped = [
        [r.from, Math.min(720, r.to)],
        [0, r.to - 720],
      ] as const;
      return wrapped.filter(([a, b]) => b > a).map(([a, b]) => ({ x: a, width: b - a }));
    });
    const top = Math.max(...c.safe.roomMm.map(Math.abs));
    const room = Array.from({ length: 121 }, (_, k) => k * 6)
      .map((d) => `${d === 0 ? 'M' : 'L'}${d} ${(17 - (num(c.safe.roomMm, d % 360) / top) * 10).toFixed(1)}`)
      .join('');
    const words = c.safe.ranges.map((r) => `${r.fromDeg.toFixed(0)}° to ${r.toDeg.toFixed(0)}°`).join(', ');
    return {
      at,
      rects,
      room,
      safe: isSafe(c.safe.ranges, at),
      label: `Crank ranges without contact, whatever the cams do: ${words || 'none'}.`,
    };
  });
}
