import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';

/** A shape in millimetres around its own middle. */
type Shape = { d: string; w: number; h: number };

/** Two parts laid over each other at one scale: the first in full lines, the second dashed; with a rule of ten millimetres. */
@Component({
  selector: 'hs-overlaid',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg role="img" [attr.aria-label]="label()" [attr.viewBox]="box()">
      @for (s of first(); track $index) {
        <path class="first" [attr.d]="s.d" />
      }
      @for (s of second(); track $index) {
        <path class="second" [attr.d]="s.d" />
      }
      <path class="rule" [attr.d]="rule()" />
    </svg>
    <small
      ><span class="first">━</span> {{ firstName() }}
      @if (second().length) {
        <span class="second">╌</span> {{ secondName() }}
      }
      · the rule is 10 mm</small
    >
  `,
  styles: `
    :host {
      display: grid;
      gap: 2px;
      justify-items: start;
    }
    svg {
      height: 130px;
      max-width: 100%;
    }
    path {
      fill: none;
      vector-effect: non-scaling-stroke;
      stroke-width: 1.6;
    }
    path.first {
      stroke: var(--ink);
      fill: var(--paper-3);
    }
    path.second {
      stroke: var(--brass-ink);
      stroke-width: 2;
      stroke-dasharray: 5 4;
    }
    .rule {
      stroke: var(--ink-2);
    }
    small .second {
      color: var(--brass-ink);
      font-weight: 700;
    }
  `,
})
export class Overlaid {
  readonly label = input.required<string>();
  readonly first = input.required<readonly Shape[]>();
  readonly firstName = input.required<string>();
  readonly second = input<readonly Shape[]>([]);
  readonly secondName = input('');
  private readonly room = computed(() => {
    const all = [...this.first(), ...this.second()];
    return { w: Math.max(12, ...all.map((s) => s.w)) * 1.08, h: Math.max(6, ...all.map((s) => s.h)) * 1.08 };
  });
  protected readonly box = computed(() => {
    const { w, h } = this.room();
    return `${-w / 2} ${-h / 2} ${w} ${h + 0.12 * Math.max(w, h) + 1}`;
  });
  protected readonly rule = computed(() => {
    const { w, h } = this.room();
    const y = h / 2 + 0.06 * Math.max(w, h);
    return `M${-w / 2} ${y}h10`;
  });
}
