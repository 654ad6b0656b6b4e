import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  input,
  output,
  viewChild,
} from '@angular/core';
import { placesAlong } from '@core/drive/along';
import { circlesOf, type Path } from '@core/drive/path';
import type { MeasuredDrive } from '@core/examination/drive-photo';
import type { PicturePoint } from '@core/examination/photo';
import type { DrivePhoto } from '@core/examination/photo-sheet';
import { nth } from '@core/quantity/must';
import { PickSpots } from '../../ui/pick-spots';

/** Points along the belt that are drawn on the picture. */
const FINE = 400;

/** The photograph of a drive with what was picked on it, and with the rims and the belt where they were computed to be. */
@Component({
  selector: 'hs-drive-photo-picture',
  imports: [PickSpots],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg
      #picks="hsPickSpots"
      [hsPickSpots]="size()"
      [attr.aria-label]="'Photograph of the drive. ' + next()"
      [attr.viewBox]="'0 0 ' + size().width + ' ' + size().height"
      [style.width.%]="zoom() * 100"
      [style.height.%]="zoom() * 100"
      (spot)="spot.emit($event)"
      (back)="back.emit()"
    >
      <image [attr.href]="url()" [attr.width]="size().width" [attr.height]="size().height" />
      @if (belt()) {
        <polygon class="under" [attr.points]="belt()" />
        <polygon class="belt" [class.open]="!closes()" [attr.points]="belt()" />
      }
      @for (r of rims(); track $index) {
        <polygon class="rim" [attr.points]="r" />
      }
      <polyline class="scale" [attr.points]="scaleLine()" />
      @for (m of photo().marks; track $index) {
        <path class="scale" [attr.d]="cross(m)" />
      }
      @for (w of photo().wheels; track w.id; let i = $index) {
        @for (m of w.spots; track $index) {
          <path class="spot" [class.here]="i === wheel()" [attr.d]="cross(m)" />
        }
        @if (w.eccentric?.pivot; as p) {
          <circle class="spot" [attr.cx]="p.x" [attr.cy]="p.y" [attr.r]="reach()" />
        }
        @if (w.spots[0]; as m) {
          <text [attr.x]="middle(w.spots).x" [attr.y]="middle(w.spots).y" [attr.font-size]="reach() * 2.4">
            {{ i + 1 }}
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
      overflow: auto;
      border: 1px solid var(--rule-strong);
      min-height: 0;
    }
    svg {
      display: block;
      cursor: crosshair;
    }
    path,
    polygon,
    polyline,
    circle {
      fill: none;
      vector-effect: non-scaling-stroke;
      stroke-width: 2;
    }
    .scale {
      stroke: #7fe0c4;
    }
    .rim {
      stroke: #ffd27a;
      stroke-dasharray: 5 3;
    }
    .under {
      stroke: rgba(0, 0, 0, 0.6);
      stroke-width: 5;
    }
    .belt {
      stroke: #7fe0c4;
      stroke-width: 2.5;
    }
    .belt.open {
      stroke: #ffb0a0;
      stroke-dasharray: 8 5;
    }
    .spot {
      stroke: #ffd27a;
    }
    .spot.here {
      stroke: #fff;
      stroke-width: 3;
    }
    text {
      fill: #fff;
      stroke: #000;
      stroke-width: 3;
      paint-order: stroke;
      text-anchor: middle;
      dominant-baseline: middle;
      vector-effect: non-scaling-stroke;
    }
    .at {
      stroke: #fff;
    }
  `,
})
export class DrivePhotoPicture {
  readonly url = input.required<string>();
  readonly size = input.required<{ width: number; height: number }>();
  /** What the next press picks. */
  readonly next = input.required<string>();
  readonly photo = input.required<DrivePhoto>();
  /** Wheel in hand. */
  readonly wheel = input<number>();
  readonly drive = input<MeasuredDrive>();
  readonly path = input<Path>();
  readonly closes = input(false);
  readonly zoom = input(1);
  readonly spot = output<PicturePoint>();
  readonly back = output();
  /** Pixels of the screen for one of the picture, whenever that changes. */
  readonly shown = output<number>();
  private readonly picks = viewChild.required<unknown, ElementRef<SVGSVGElement>>('picks', {
    read: ElementRef,
  });
  protected readonly reach = computed(() => this.size().width / 90 / this.zoom());
  protected readonly scaleLine = computed(() => {
    const { marks, scale } = this.photo();
    const closed = scale === 'rectangle' && marks.length === 4;
    return line(closed ? [...marks, nth(marks, 0)] : marks);
  });
  protected readonly rims = computed(() => {
    const drive = this.drive();
    if (!drive) return [];
    return drive.wheels.flatMap(({ x, y, rimMm }) => {
      if (rimMm === undefined) return [];
      const round = Array.from({ length: 72 }, (_, k) => k).flatMap((k) => {
        const a = (k * Math.PI) / 36;
        return drive.seen({ x: x + rimMm * Math.cos(a), y: y + rimMm * Math.sin(a) }) ?? [];
      });
      return [line(round)];
    });
  });
  protected readonly belt = computed(() => {
    const [drive, path] = [this.drive(), this.path()];
    return drive && path
      ? line(placesAlong(circlesOf(drive.layout), path, FINE, 0).flatMap((p) => drive.seen(p) ?? []))
      : '';
  });

  constructor() {
    afterRenderEffect(() => {
      this.zoom();
      this.size();
      // How many pixels of the screen one of the picture takes, however it is fitted in.
      this.shown.emit(this.picks().nativeElement.getScreenCTM()?.a ?? 0);
    });
  }

  protected middle(spots: readonly PicturePoint[]): PicturePoint {
    const of = (pick: (s: PicturePoint) => number) => spots.reduce((a, s) => a + pick(s), 0) / spots.length;
    return { x: of((s) => s.x), y: of((s) => s.y) };
  }

  protected cross({ x, y }: PicturePoint): string {
    const r = this.reach();
    return `M${x - r} ${y}H${x + r}M${x} ${y - r}V${y + r}`;
  }
}

const line = (points: readonly PicturePoint[]): string =>
  points.map((p) => `${p.x.toFixed(1)},${p.y.toFixed(1)}`).join(' ');
