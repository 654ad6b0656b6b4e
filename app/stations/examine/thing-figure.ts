import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { ThingPicture } from '../../part-drawings/picture';

/** A thing as drawn, to scale in its own box. */
@Component({
  selector: 'hs-thing-figure',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let p = picture();
    <svg [attr.viewBox]="view()" role="img" [attr.aria-label]="label()">
      @for (s of p.shapes; track $index) {
        <path [class]="s.look" [attr.d]="s.d">
          @if (s.title) {
            <title>{{ s.title }}</title>
          }
        </path>
      }
      @for (w of p.words; track $index) {
        <text [attr.x]="w.x" [attr.y]="w.y" [attr.font-size]="p.box.h * 0.06">{{ w.text }}</text>
      }
    </svg>
  `,
  styles: `
    :host {
      display: block;
    }
    svg {
      display: block;
      width: 100%;
      height: 100%;
      overflow: visible;
    }
    path {
      fill: none;
      vector-effect: non-scaling-stroke;
      stroke: var(--ink);
      stroke-width: 1.4;
    }
    .body {
      fill: var(--paper-3);
    }
    .fine {
      stroke: var(--ink-2);
      stroke-width: 1;
    }
    .ghost {
      stroke: var(--ink-2);
      stroke-dasharray: 4 3;
    }
    .window {
      stroke: var(--verdigris);
      stroke-width: 5;
      stroke-opacity: 0.75;
    }
    .found {
      fill: var(--brass-soft);
      stroke: var(--brass-ink);
      stroke-width: 2.2;
    }
    text {
      fill: var(--ink-2);
      text-anchor: middle;
    }
  `,
})
export class ThingFigure {
  readonly picture = input.required<ThingPicture>();
  readonly label = input.required<string>();
  protected readonly view = computed(() => {
    const b = this.picture().box;
    return `${b.x} ${b.y} ${b.w} ${b.h}`;
  });
}
