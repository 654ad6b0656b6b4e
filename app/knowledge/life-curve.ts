import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { runBy, survival } from '@core/cause/life';
import type { LifeTime } from '@core/cause/cause-data';
import { formatNumber } from '@core/quantity/format-quantity';

const [WIDE, HIGH, FOOT] = [420, 70, 14];
/** Far enough that all lives of the knowledge have ended for the most part. */
const TO_KM = 300_000;
const STEPS = 120;
const TICKS = [0, 100_000, 200_000, 300_000];

/** What share still runs after a distance, with the distances by which a tenth, a half and nine tenths have come. */
@Component({
  selector: 'hs-life-curve',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg [attr.viewBox]="box" role="img" [attr.aria-label]="words()">
      <path class="under" [attr.d]="under()" />
      <path class="edge" [attr.d]="edge()" />
      @for (t of ticks; track t.x) {
        <text [attr.x]="t.x" [attr.y]="base + 11" [attr.text-anchor]="t.anchor">{{ t.text }}</text>
      }
    </svg>
    <small>{{ words() }}</small>
  `,
  styles: `
    svg {
      display: block;
      width: 100%;
      max-width: 480px;
    }
    .under {
      fill: var(--verdigris-soft);
    }
    .edge {
      fill: none;
      stroke: var(--verdigris);
      stroke-width: 1.5;
    }
    text {
      font-size: 10px;
      fill: var(--ink-2);
    }
  `,
})
export class LifeCurve {
  readonly life = input.required<LifeTime>();
  protected readonly box = `0 0 ${WIDE} ${HIGH + FOOT}`;
  protected readonly base = HIGH;
  protected readonly ticks = TICKS.map((km, i) => ({
    x: (km / TO_KM) * WIDE,
    text: `${formatNumber(km, 0)}${i === 0 ? '' : ' km'}`,
    anchor: i === 0 ? 'start' : i === TICKS.length - 1 ? 'end' : 'middle',
  }));
  protected readonly edge = computed(() => {
    const points = Array.from({ length: STEPS + 1 }, (_, i) => {
      const km = (i / STEPS) * TO_KM;
      return `${((km / TO_KM) * WIDE).toFixed(1)} ${(HIGH - (HIGH - 2) * survival(km, this.life())).toFixed(1)}`;
    });
    return `M${points.join('L')}`;
  });
  protected readonly under = computed(() => `${this.edge()}L${WIDE} ${HIGH}L0 ${HIGH}Z`);
  protected readonly words = computed(() => {
    const by = (share: number) => formatNumber(Math.round(runBy(share, this.life()) / 100) * 100, 0);
    return `Noticed by ${by(0.1)} km in a tenth, by ${by(0.5)} km in half, by ${by(0.9)} km in nine tenths.`;
  });
}
