import { ChangeDetectionStrategy, Component, input } from '@angular/core';

/** A grade as it is drawn, in a box of 64 by 40: a base and marks on it. */
export type TilePicture = {
  base: string;
  dashed: boolean;
  faint: boolean;
  /** line, bold, solid, soft; a hole is cut out of the base. */
  marks: readonly { d: string; style: string }[];
};

/** One grade drawn: what it looks like, told by shape alone. */
@Component({
  selector: 'hs-tile-drawing',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg viewBox="-1 -1 66 42" aria-hidden="true">
      <path
        class="base"
        [class.dashed]="picture().dashed"
        [class.faint]="picture().faint"
        [attr.d]="picture().base"
      />
      @for (m of picture().marks; track $index) {
        <path [class]="m.style" [attr.d]="m.d" />
      }
    </svg>
  `,
  styles: `
    :host {
      display: block;
    }
    svg {
      display: block;
      width: 66px;
      height: 42px;
    }
    path {
      fill: none;
      stroke: var(--ink);
      stroke-width: 1.3;
      stroke-linejoin: round;
      stroke-linecap: round;
    }
    .dashed {
      stroke-dasharray: 3 3;
    }
    .faint {
      stroke-opacity: 0.4;
    }
    .line {
      stroke: var(--brass-ink);
      stroke-width: 1.5;
    }
    .bold {
      stroke: var(--brass-ink);
      stroke-width: 2.6;
    }
    .solid {
      fill: var(--brass-ink);
      stroke: var(--brass-ink);
    }
    .soft {
      fill: var(--brass-ink);
      fill-opacity: 0.3;
      stroke: var(--brass-ink);
    }
    .hole {
      fill: var(--paper);
      stroke: var(--brass-ink);
      stroke-dasharray: 2 2;
      stroke-width: 1.5;
    }
  `,
})
export class TileDrawing {
  readonly picture = input.required<TilePicture>();
}
