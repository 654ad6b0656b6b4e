import { Directive, ElementRef, inject, input, output, signal } from '@angular/core';
import { num } from '@core/quantity/must';

type Spot = { x: number; y: number };

/** To a hundredth of a pixel: finer than anybody presses. */
const round = ({ x, y }: Spot): Spot => ({ x: Math.round(x * 100) / 100, y: Math.round(y * 100) / 100 });

/** Spots picked on a picture that an SVG shows: by a press, or with a cross that is walked by keys and set with Enter. */
@Directive({
  selector: 'svg[hsPickSpots]',
  exportAs: 'hsPickSpots',
  host: { tabindex: '0', role: 'application', '(click)': 'press($event)', '(keydown)': 'walk($event)' },
})
export class PickSpots {
  /** Size of the picture in its own pixels. */
  readonly size = input.required<{ width: number; height: number }>({ alias: 'hsPickSpots' });
  readonly spot = output<Spot>();
  readonly back = output();
  /** Where the cross stands. */
  readonly at = signal<Spot | undefined>(undefined);
  private readonly host = inject<ElementRef<SVGSVGElement>>(ElementRef);

  protected press(e: MouseEvent): void {
    const to = this.host.nativeElement.getScreenCTM()?.inverse();
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
}
