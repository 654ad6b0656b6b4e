import { nth, num } from '@core/quantity/must';
import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  computed,
  type ElementRef,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import type { PicturePoint } from '@core/examination/photo';
import { MARKS, type OnPhoto, type PhotoOverlay } from '@core/examination/photo-overlay';

/** A photograph with what was picked on it; a press, or a cross walked by keys and Enter, picks the next spot. */
@Component({
  selector: 'hs-photo-picture',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg
      #picture
      tabindex="0"
      role="application"
      [attr.aria-label]="'Photograph ' + name() + '. ' + next()"
      [attr.viewBox]="'0 0 ' + size().width + ' ' + size().height"
      [style.width.%]="zoom() * 100"
      (click)="press($event)"
      (keydown)="walk($event)"
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
      @if (at(); as m) {
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
  protected readonly at = signal<PicturePoint | undefined>(undefined);
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

  protected press(e: MouseEvent): void {
    const to = this.picture().nativeElement.getScreenCTM()?.inverse();
    if (to) this.spot.emit(round(new DOMPoint(e.clientX, e.clientY).matrixTransform(to)));
  }

  /** Arrows walk a cross over the picture, with Shift ten times as far; Enter sets a spot, Backspace takes one back. */
  protected walk(e: KeyboardEvent): void {
    const { width, height } = this.size();
    const way = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[e.key];
    const at = this.at() ?? { x: width / 2, y: height / 2 };
    if (way) {
      const step = (width / 400) * (e.shiftKey ? 10 : 1);
      this.at.set(round({ x: at.x + num(way, 0) * step, y: at.y + num(way, 1) * step }));
    } else if (e.key === 'Enter') this.spot.emit(at);
    else if (e.key === 'Backspace') this.back.emit();
    else return;
    e.preventDefault();
    e.stopPropagation();
  }

  protected line(spots: readonly PicturePoint[]): string {
    return spots.map((s) => `${s.x},${s.y}`).join(' ');
  }

  protected cross({ x, y }: PicturePoint): string {
    const r = this.size().width / 80 / this.zoom();
    return `M${x - r} ${y}H${x + r}M${x} ${y - r}V${y + r}`;
  }
}

/** To a hundredth of a pixel: finer than anybody presses. */
const round = ({ x, y }: PicturePoint): PicturePoint => ({
  x: Math.round(x * 100) / 100,
  y: Math.round(y * 100) / 100,
});
