import {
  ChangeDetectionStrategy,
  Component,
  computed,
  type ElementRef,
  inject,
  input,
  linkedSignal,
  viewChild,
} from '@angular/core';
import { teethInMesh } from '@core/drive/strands';
import type { DriveState } from '@core/drive/what-if';
import { driveScene } from '../ui/drive-scene';
import { BenchStore } from './bench-store';

type Box = { x: number; y: number; width: number; height: number };

/** The drive to scale. Drag the driving wheel to turn it, drag elsewhere to move the sheet, wheel or + and − to zoom. */
@Component({
  selector: 'hs-drive-figure',
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './drive-figure.html',
  styleUrl: './drive-figure.less',
})
export class DriveFigure {
  readonly state = input.required<DriveState>();
  readonly ghost = input<DriveState | undefined>();
  readonly title = input('');
  /** Pixels of width that it can count on: letters are sized by it. */
  readonly room = input(560);
  protected readonly bench = inject(BenchStore);
  private readonly svg = viewChild.required<ElementRef<SVGSVGElement>>('svg');

  protected readonly scene = computed(() => driveScene(this.state(), this.bench.driverDeg()));
  protected readonly under = computed(() => {
    const g = this.ghost();
    return g ? driveScene(g, this.bench.driverDeg()) : undefined;
  });
  /** What of the sheet is shown; all of it whenever another drive is laid on. */
  protected readonly box = linkedSignal<string, Box>({
    source: () => this.state().layout.id,
    computation: () => this.fitted(),
  });
  protected readonly viewBox = computed(() => {
    const b = this.box();
    return `${b.x} ${b.y} ${b.width} ${b.height}`;
  });
  /** Lines and letters keep their size on the screen while the sheet is zoomed. */
  protected readonly unit = computed(() => Math.max(this.box().height / 460, this.box().width / this.room()));
  protected readonly callout = computed(() => {
    const id = this.bench.lit();
    const s = this.state();
    const i = s.layout.wheels.findIndex((w) => w.id === id);
    const w = s.layout.wheels[i];
    const c = s.circles[i];
    if (!w || !c) return undefined;
    const wrap = s.path.wraps[i]!;
    const lines = [
      w.name,
      `wrap ${((wrap * 180) / Math.PI).toFixed(1)}°${w.teeth === undefined ? '' : `, ${teethInMesh(w.teeth, wrap).toFixed(1)} of ${w.teeth} teeth in mesh`}`,
      `pitch radius ${c.r.toFixed(2)} mm, centre ${c.x.toFixed(1)}, ${c.y.toFixed(1)} mm`,
      `strand to the next ${s.path.spans[i]!.lengthMm.toFixed(1)} mm`,
    ];
    return { x: c.x, y: -c.y, lines };
  });
  /** Names beside the wheels, except of the one that is called out. */
  protected readonly names = computed(() =>
    this.scene()
      .wheels.filter((w) => w.id !== this.bench.lit())
      .map((w) =>
        w.shoe
          ? { id: w.id, name: w.name, ...w.label! }
          : { id: w.id, name: w.name, x: w.x, y: w.y + w.r * 0.5 },
      ),
  );
  private from: { x: number; y: number; turning: boolean; deg: number } | undefined;

  private fitted(): Box {
    const b = this.scene().box;
    return { ...b };
  }

  fit(): void {
    this.box.set(this.fitted());
  }

  zoom(by: number, at?: { x: number; y: number }): void {
    const b = this.box();
    const c = at ?? { x: b.x + b.width / 2, y: b.y + b.height / 2 };
    this.box.set({
      x: c.x - (c.x - b.x) * by,
      y: c.y - (c.y - b.y) * by,
      width: b.width * by,
      height: b.height * by,
    });
  }

  protected scroll(e: WheelEvent): void {
    e.preventDefault();
    this.zoom(e.deltaY > 0 ? 1.15 : 1 / 1.15, this.place(e));
  }

  protected down(e: PointerEvent): void {
    const p = this.place(e);
    const c = this.state().circles[0]!;
    const turning = Math.hypot(p.x - c.x, p.y + c.y) < c.r + 12;
    this.from = { ...p, turning, deg: this.bench.driverDeg() };
    this.svg().nativeElement.setPointerCapture(e.pointerId);
  }

  protected move(e: PointerEvent): void {
    const from = this.from;
    if (!from) return;
    const p = this.place(e);
    if (!from.turning) {
      const b = this.box();
      this.box.set({ ...b, x: b.x + from.x - p.x, y: b.y + from.y - p.y });
      return;
    }
    const c = this.state().circles[0]!;
    const angle = (q: { x: number; y: number }) => Math.atan2(q.y + c.y, q.x - c.x);
    let by = ((angle(p) - angle(from)) * 180) / Math.PI;
    if (by > 180) by -= 360;
    if (by < -180) by += 360;
    // y runs down on the screen: clockwise there is positive.
    this.bench.driverDeg.set(from.deg + by * (this.state().layout.runs === 'cw' ? 1 : -1));
    this.from = { ...from, x: p.x, y: p.y, deg: this.bench.driverDeg() };
  }

  protected up(): void {
    this.from = undefined;
  }

  /** Sheet coordinates under the pointer. */
  private place(e: MouseEvent): { x: number; y: number } {
    const matrix = this.svg().nativeElement.getScreenCTM();
    const p = matrix ? new DOMPoint(e.clientX, e.clientY).matrixTransform(matrix.inverse()) : { x: 0, y: 0 };
    return { x: p.x, y: p.y };
  }
}
