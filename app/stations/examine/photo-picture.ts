import { nth } from '@core/quantity/must';
import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  computed,
  type ElementRef,
  input,
  output,
  viewChild,
} from '@angular/core';
import type { PicturePoint } from '@core/examination/photo';
import { PickSpots } from '../../ui/pick-spots';
import { MARKS, type OnPhoto, type PhotoOverlay } from '@core/examination/photo-overlay';

/** A photograph with what was picked on it; a press, or a cross walked by keys and Enter, picks the next spot. */
@Component({
  selector: 'hs-photo-picture',
  imports: [PickSpots],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg
      #picture
      #picks="hsPickSpots"
      [hsPickSpots]="size()"
      [attr.aria-label]="'Photograph ' + name() + '. ' + next()"
      [attr.viewBox]="'0 0 ' + size().width + ' ' + size().height"
      [style.width.%]="zoom() * 100"
      (spot)="spot.emit($event)"
      (back)="back.emit()"
    >
      <image [attr.href]="url()" [attr.width]="size().width" [attr.height]="size().height" />
      <polyline class="scale" [attr.points]="scaleLine()" />
      @if (what() === 'area') {
        <polygon class="spots" [attr.points]="line(overlay().spots)" />
      } @else if (what() !== 'count') {
        <polyline class="spots" [attr.points]="line(overlay().spots)" />
      }
      @for (m of overlay().marks; track $index) {
        <path class="scale" [attr.d]="cross(m)" />
      }
      @for (m of overlay().spots; track $index) {
        <path class="spots" [attr.d]="cross(m)" />
        @if (what() === 'count') {
          <text [attr.x]="m.x" [attr.y]="m.y" [attr.font-size]="size().width / 60 / zoom()">
            {{ $index + 1 }}
          </text>
        }
      }
      @if (picks.at(); as m) {
        <path class="at" [attr.d]="cross(m)" />
      }
    </svg>
  `,
  styles: `
    :host {
      display: block;
      max-height: 52vh;
      overflow: auto;
      border: 1px solid var(--rule-strong);
    }
    svg {
      display: block;
      cursor: crosshair;
    }
    path,
    polygon,
    polyline {
      fill: none;
      vector-effect: non-scaling-stroke;
      stroke-width: 2;
    }
    .scale {
      stroke: var(--verdigris);
    }
    .spots {
      stroke: var(--brass);
      stroke-dasharray: 6 3;
    }
    text {
      fill: var(--ink);
      stroke: var(--paper);
      stroke-width: 3;
      paint-order: stroke;
      vector-effect: non-scaling-stroke;
    }
    .at {
      stroke: var(--ink);
    }
  `,
})
export class PhotoPicture {
  readonly url = input.required<string>();
  readonly size = input.required<{ width: number; height: number }>();
  readonly name = input.required<string>();
  /** What the next press sets. */
  readonly next = input.required<string>();
  readonly overlay = input.required<PhotoOverlay>();
  readonly what = input.required<OnPhoto>();
  readonly zoom = input(1);
  readonly spot = output<PicturePoint>();
  readonly back = output();
  /** Width on the screen, pixels, whenever it changes. */
  readonly shown = output<number>();
  private readonly picture = viewChild.required<ElementRef<SVGSVGElement>>('picture');
  protected readonly scaleLine = computed(() => {
    const { marks, scale } = this.overlay();
    const closed = scale === 'rectangle' && marks.length === MARKS.rectangle;
    return this.line(closed ? [...marks, nth(marks, 0)] : marks);
  });

  constructor() {
    afterRenderEffect(() => {
      this.zoom();
      this.shown.emit(this.picture().nativeElement.getBoundingClientRect().width);
    });
  }

  protected line(spots: readonly PicturePoint[]): string {
    return spots.map((s) => `${s.x},${s.y}`).join(' ');
  }

  protected cross({ x, y }: PicturePoint): string {
    const r = this.size().width / 80 / this.zoom();
    return `M${x - r} ${y}H${x + r}M${x} ${y - r}V${y + r}`;
  }
}
