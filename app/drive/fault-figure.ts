import { nth } from '@core/quantity/must';
import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Layout } from '@core/drive/layout';
import { circlesOf } from '@core/drive/path';
import { boxOf, shoeShape } from '../ui/drive-shapes';

/** The wheels of a layout that has no path, where they were put, with the ones at fault marked. */
@Component({
  selector: 'hs-fault-figure',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg [attr.viewBox]="viewBox()" role="img" [attr.aria-label]="label()">
      @for (w of wheels(); track w.id) {
        @if (w.shoe) {
          <path class="wheel" [class.faulty]="w.bad" [attr.d]="w.shoe" stroke-width="7" />
        } @else {
          <circle class="wheel" [class.faulty]="w.bad" [attr.cx]="w.x" [attr.cy]="w.y" [attr.r]="w.r" />
        }
        <text [attr.x]="w.x" [attr.y]="w.y">{{ w.bad ? '▲ ' : '' }}{{ w.name }}</text>
      }
    </svg>
  `,
  styles: `
    svg {
      display: block;
      width: 100%;
      height: 100%;
    }
    .wheel {
      fill: none;
      stroke: var(--ink-2);
      stroke-width: 1.2;
    }
    .faulty {
      stroke: var(--bad-ink);
      stroke-width: 4;
      stroke-dasharray: 6 3;
    }
    text {
      font: 11px var(--sans);
      fill: var(--ink);
      text-anchor: middle;
    }
  `,
})
export class FaultFigure {
  readonly layout = input.required<Layout>();
  readonly faulty = input.required<ReadonlySet<string>>();
  private readonly circles = computed(() => circlesOf(this.layout()));
  protected readonly viewBox = computed(() => {
    const b = boxOf(this.layout(), this.circles());
    return `${b.x} ${b.y} ${b.width} ${b.height}`;
  });
  protected readonly wheels = computed(() =>
    this.layout().wheels.map((w, i) => {
      const c = nth(this.circles(), i);
      const shoe = shoeShape(c, w.outsideMm ?? c.r);
      const at = shoe?.label ?? { x: c.x, y: -c.y };
      return {
        id: w.id,
        name: w.name,
        ...at,
        r: Math.max(0.1, c.r),
        shoe: shoe?.d,
        bad: this.faulty().has(w.id),
      };
    }),
  );
  protected readonly label = computed(
    () =>
      `This drive cannot exist. At fault: ${this.wheels()
        .filter((w) => w.bad)
        .map((w) => w.name)
        .join(', ')}.`,
  );
}
