import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { StepPicture } from './step-shape';

/** Paints the drive as it stands at a step; what the picture says stands in its title for those who do not see it. */
@Component({
  selector: 'hs-step-drawing',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg [attr.viewBox]="viewBox()" role="img" [attr.aria-label]="picture().title">
      @for (s of shapes(); track $index) {
        @switch (s.tag) {
          @case ('circle') {
            <circle [attr.class]="s.is" [attr.cx]="s.x" [attr.cy]="s.y" [attr.r]="s.r" />
          }
          @case ('path') {
            <path [attr.class]="s.is" [attr.d]="s.d" />
          }
          @case ('text') {
            <text [attr.class]="s.is" [attr.x]="s.x" [attr.y]="s.y" [style.font-size.px]="picture().textMm">
              {{ s.text }}
            </text>
          }
        }
      }
    </svg>
  `,
  styles: `
    :host {
      display: block;
      min-height: 0;
    }
    svg {
      display: block;
      width: 100%;
      height: 100%;
    }
    .wheel,
    .smooth {
      fill: var(--paper-2);
      stroke: var(--ink);
      stroke-width: 1.1;
    }
    .wheel {
      stroke-width: 2;
    }
    .shoe {
      fill: none;
      stroke: var(--ink-2);
      stroke-width: 6;
      stroke-linecap: round;
    }
    .mark {
      fill: none;
      stroke: var(--ink);
      stroke-width: 1.6;
    }
    .loop {
      fill: none;
      stroke: var(--ink);
      stroke-width: 3.4;
    }
    .slack {
      stroke-dasharray: 9 5;
      stroke-width: 2.2;
    }
    .lit {
      fill: none;
      stroke: var(--brass);
      stroke-width: 3.2;
    }
    .arrow {
      fill: none;
      stroke: var(--verdigris);
      stroke-width: 3;
    }
    .thin {
      stroke-width: 1.8;
    }
    text {
      font-family: var(--sans);
      fill: var(--ink);
      text-anchor: middle;
    }
    .word {
      fill: var(--verdigris-ink);
      font-weight: 600;
      paint-order: stroke;
      stroke: var(--paper-2);
      stroke-width: 3;
    }
    .look {
      fill: var(--brass-ink);
    }
  `,
})
export class StepDrawing {
  readonly picture = input.required<StepPicture>();
  protected readonly shapes = computed(() => {
    const p = this.picture();
    return [...p.base, ...p.loop, ...p.over];
  });
  protected readonly viewBox = computed(() => {
    const { x, y, width, height } = this.picture().box;
    return `${x} ${y} ${width} ${height}`;
  });
}
