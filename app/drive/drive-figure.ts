import { must, nth, num } from '@core/quantity/must';
import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  type ElementRef,
  inject,
  input,
  linkedSignal,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { teethInMesh } from '@core/drive/strands';
import type { DriveState } from '@core/drive/what-if';
import { driveScene, type DriveScene, turnScene } from '../ui/drive-scene';
import { type Label, labelPlaces, stillFree } from '../ui/label-places';
import { DriveStore } from './drive-store';

/** The sheet grows for its names, and they with it: so much more room each is given. */
const ROOM_FOR_NAMES = 1.15;
/** Rounds in which the sheet grows for its names: each adds a tenth of the one before. */
const FITS = 3;

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
  /** Pixels that it has: letters are sized by it. */
  private readonly size = signal({ width: 560, height: 440 });
  protected readonly store = inject(DriveStore);
  private readonly svg = viewChild.required<ElementRef<SVGSVGElement>>('svg');

  /** What stands still is made once for a state; only what turns is made anew while the crank is turned. */
  protected readonly scene = computed(() => driveScene(this.state()));
  protected readonly turned = computed(() => turnScene(this.state(), this.store.driverDeg()));
  protected readonly under = computed(() => {
    const g = this.ghost();
    return g ? driveScene(g) : undefined;
  });
  /** What of the sheet is shown; all of it whenever another drive is laid on. */
  protected readonly box = linkedSignal<string, Box>({
    source: () => `${this.state().layout.id} ${this.size().width} ${this.size().height}`,
    computation: () => untracked(() => this.fitted()),
  });
  protected readonly viewBox = computed(() => {
    const b = this.box();
    return `${b.x} ${b.y} ${b.width} ${b.height}`;
  });
  /** Lines and letters keep their size on the screen while the sheet is zoomed. */
  protected readonly unit = computed(() => this.unitOf(this.box()));
  protected readonly callout = computed(() => {
    const id = this.store.lit();
    const s = this.state();
    const i = s.layout.wheels.findIndex((w) => w.id === id);
    const w = s.layout.wheels[i];
    const c = s.circles[i];
    if (!w || !c) return undefined;
    const wrap = num(s.path.wraps, i);
    const lines = [
      w.name,
      `wrap ${((wrap * 180) / Math.PI).toFixed(1)}°${w.teeth === undefined ? '' : `, ${teethInMesh(w.teeth, wrap).toFixed(1)} of ${w.teeth} teeth in mesh`}`,
      `pitch radius ${c.r.toFixed(2)} mm, centre ${c.x.toFixed(1)}, ${c.y.toFixed(1)} mm`,
      `strand to the next ${nth(s.path.spans, i).lengthMm.toFixed(1)} mm`,
    ];
    return { x: c.x, y: -c.y, lines };
  });
  /** Names where they lie on nothing, except of the wheel that is called out. */
  private readonly places = linkedSignal<{ scene: DriveScene; unit: number }, Label[]>({
    source: () => ({ scene: this.scene(), unit: this.unitOf(this.scene().box) * ROOM_FOR_NAMES }),
    computation: ({ scene: { named, obstacles }, unit }, before) =>
      before?.source.unit === unit && stillFree(before.value, named, obstacles)
        ? before.value
        : labelPlaces(named, obstacles, unit),
  });
  protected readonly names = computed(() => this.places().filter((l) => l.id !== this.store.lit()));
  constructor() {
    const watch = new ResizeObserver(([entry]) => {
      const { width, height } = must(entry).contentRect;
      if (width > 0 && height > 0) this.size.set({ width: Math.round(width), height: Math.round(height) });
    });
    afterNextRender(() => watch.observe(this.svg().nativeElement));
    inject(DestroyRef).onDestroy(() => watch.disconnect());
  }

  private from: { x: number; y: number; turning: boolean; deg: number } | undefined;

  /** The whole drive with its names: they keep their size on the screen while the sheet grows for them. */
  private fitted(): Box {
    const { box } = this.scene();
    const all = this.places();
    let out: Box = box;
    for (let k = 0; k < FITS; k++) {
      const grown = this.unitOf(out) / this.unitOf(box) / ROOM_FOR_NAMES;
      const x0 = Math.min(box.x, ...all.map((l) => l.x - (l.width / 2) * grown));
      const y0 = Math.min(box.y, ...all.map((l) => l.y - (l.height / 2) * grown));
      const x1 = Math.max(box.x + box.width, ...all.map((l) => l.x + (l.width / 2) * grown));
      const y1 = Math.max(box.y + box.height, ...all.map((l) => l.y + (l.height / 2) * grown));
      out = { x: x0, y: y0, width: x1 - x0, height: y1 - y0 };
    }
    return out;
  }

  /** Millimetres of the sheet for one pixel. */
  private unitOf(b: Box): number {
    return Math.max(b.height / this.size().height, b.width / this.size().width);
  }

  /** Shows all of it again. */
  whole(): void {
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
    const c = nth(this.state().circles, 0);
    const turning = Math.hypot(p.x - c.x, p.y + c.y) < c.r + 12;
    this.from = { ...p, turning, deg: this.store.driverDeg() };
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
    const c = nth(this.state().circles, 0);
    const angle = (q: { x: number; y: number }) => Math.atan2(q.y + c.y, q.x - c.x);
    let by = ((angle(p) - angle(from)) * 180) / Math.PI;
    if (by > 180) by -= 360;
    if (by < -180) by += 360;
    // y runs down on the screen: clockwise there is positive.
    this.store.driverDeg.set(from.deg + by * (this.state().layout.runs === 'cw' ? 1 : -1));
    this.from = { ...from, x: p.x, y: p.y, deg: this.store.driverDeg() };
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
