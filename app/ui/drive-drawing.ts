import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { DrivePicture } from './drive-picture';

/** A sign on a drive: what is to be explained there, or what is as it should be. */
export type DrawnMark = { key: string; x: number; y: number; sign: string; bad: boolean };

/** Paints a drive picture to scale. The same facts stand beside it as text for those who do not see it. */
@Component({
  selector: 'hs-drive-drawing',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg [attr.viewBox]="viewBox()" role="img" [attr.aria-label]="picture().title">
      @for (w of picture().wheels; track w.id) {
        @if (w.rim) {
          <circle class="rim" [attr.cx]="w.x" [attr.cy]="w.y" [attr.r]="w.rim" />
        }
        @if (w.shoe) {
          <path class="shoe" [attr.d]="w.shoe" stroke-width="7" />
        } @else {
          <circle class="wheel" [class.toothed]="w.toothed" [attr.cx]="w.x" [attr.cy]="w.y" [attr.r]="w.r" />
        }
      }
      <path class="belt" [attr.d]="picture().belt" [attr.stroke-width]="picture().beltWidth" />
      @for (l of bare() ? [] : picture().leaders; track $index) {
        <line
          class="leader"
          [attr.x1]="l.a.x"
          [attr.y1]="l.a.y"
          [attr.x2]="l.b.x"
          [attr.y2]="l.b.y"
          [attr.stroke-width]="picture().textMm / 14"
        />
      }
      @for (l of bare() ? [] : picture().names; track l.id) {
        <text [attr.x]="l.x" [attr.y]="l.y + picture().textMm * 0.35" [style.font-size.px]="picture().textMm">
          {{ l.name }}
        </text>
      }
      @if (picture().carrier; as c) {
        <line
          class="arm"
          [attr.x1]="c.pivot.x"
          [attr.y1]="c.pivot.y"
          [attr.x2]="c.pointer.x"
          [attr.y2]="c.pointer.y"
        />
        <circle class="pivot" [attr.cx]="c.pivot.x" [attr.cy]="c.pivot.y" r="3" />
      }
      @if (picture().clearance; as g) {
        <line class="gap" [attr.x1]="g.a.x" [attr.y1]="g.a.y" [attr.x2]="g.b.x" [attr.y2]="g.b.y" />
        <circle class="gap-ring" [attr.cx]="(g.a.x + g.b.x) / 2" [attr.cy]="(g.a.y + g.b.y) / 2" r="15" />
      }
      @for (m of marks(); track m.key) {
        <g class="mark" [class.bad]="m.bad" [attr.transform]="'translate(' + m.x + ' ' + m.y + ')'">
          <circle [attr.r]="picture().textMm * 0.95" />
          <text [attr.y]="picture().textMm * 0.36" [style.font-size.px]="picture().textMm">{{ m.sign }}</text>
        </g>
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
    .wheel {
      fill: var(--paper-2);
      stroke: var(--ink);
      stroke-width: 1.2;
    }
    .wheel.toothed {
      stroke-dasharray: 3.2 2;
      stroke-width: 3;
    }
    .mark circle {
      fill: var(--paper-2);
      stroke: var(--verdigris);
      stroke-width: 1.6;
    }
    .mark.bad circle {
      fill: var(--brass-soft);
      stroke: var(--brass);
      stroke-width: 2.6;
    }
    .shoe {
      fill: none;
      stroke: var(--ink-2);
      stroke-linecap: round;
    }
    .rim {
      fill: none;
      stroke: var(--ink-2);
      stroke-width: 0.9;
    }
    .belt {
      fill: none;
      stroke: var(--ink);
      opacity: 0.82;
    }
    .arm {
      stroke: var(--verdigris);
      stroke-width: 2.6;
      stroke-linecap: round;
    }
    .pivot {
      fill: var(--verdigris);
    }
    .gap {
      stroke: var(--brass);
      stroke-width: 3.4;
    }
    .gap-ring {
      fill: none;
      stroke: var(--brass);
      stroke-width: 1.4;
      stroke-dasharray: 2.5 2;
    }
    .leader {
      stroke: var(--ink-2);
    }
    text {
      font-family: var(--sans);
      fill: var(--ink);
      text-anchor: middle;
    }
  `,
})
export class DriveDrawing {
  /** Without names: too small for them to be read. */
  readonly bare = input(false);
  readonly picture = input.required<DrivePicture>();
  /** Signs on it, in the picture's own millimetres. */
  readonly marks = input<readonly DrawnMark[]>([]);
  readonly viewBox = computed(() => {
    const { x, y, width, height } = this.picture().box;
    return `${x} ${y} ${width} ${height}`;
  });
}
