import { highest, lowest } from '@core/quantity/judge';
import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { formatNumber } from '@core/quantity/format-quantity';

/** A value against its limits: window as a box, nominal as a notch, end as a bar, value as a pin with its ±2u. */
export type Strip = {
  label: string;
  min: number;
  max: number;
  window?: { from: number; to: number } | undefined;
  nominal?: number | undefined;
  end?: number | undefined;
  /** Further marks by name, for example the reading of the wrong setting. */
  marks?: { at: number; name: string }[] | undefined;
  value?: number | undefined;
  u?: number | undefined;
  /** Single readings of which the value is the mean. */
  ticks?: readonly number[] | undefined;
  /** What stands at both ends of the scale, where it is more than whole numbers. */
  ends?: readonly [string, string] | undefined;
  /** Value with unit, and the verdict in words. */
  text: string;
  good?: boolean | undefined;
};

@Component({
  selector: 'hs-limit-strip',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="head">
      <span>{{ strip().label }}</span
      ><b [class.look]="strip().good === false"
        >{{ strip().good === false ? '▲ ' : strip().good ? '✓ ' : '' }}{{ strip().text }}</b
      >
    </div>
    <svg viewBox="0 0 300 30" role="img" [attr.aria-label]="strip().label + ': ' + strip().text">
      <line class="base" x1="0" x2="300" y1="15" y2="15" />
      @if (strip().window; as w) {
        <rect class="window" [attr.x]="at(w.from)" y="8" [attr.width]="at(w.to) - at(w.from)" height="14" />
      }
      @if (strip().nominal !== undefined) {
        <line
          class="nominal"
          [attr.x1]="at(strip().nominal!)"
          [attr.x2]="at(strip().nominal!)"
          y1="6"
          y2="24"
        />
      }
      @if (strip().end !== undefined) {
        <line class="end" [attr.x1]="at(strip().end!)" [attr.x2]="at(strip().end!)" y1="3" y2="27" />
      }
      @for (m of strip().marks ?? []; track m.name) {
        <path class="mark" [attr.d]="'M' + (at(m.at) - 5) + ' 27h10l-5 -8z'">
          <title>{{ m.name }}</title>
        </path>
      }
      @for (t of strip().ticks ?? []; track $index) {
        <line class="tick" [attr.x1]="at(t)" [attr.x2]="at(t)" y1="4" y2="13" />
      }
      @if (strip().value !== undefined) {
        @if (strip().u) {
          <line class="spread" [attr.x1]="spread()[0]" [attr.x2]="spread()[1]" y1="15" y2="15" />
        }
        <circle class="pin" [attr.cx]="at(strip().value!)" cy="15" r="5" />
      }
    </svg>
    <div class="scale">
      <span>{{ strip().ends?.[0] ?? words(strip().min) }}</span
      ><span class="legend">{{ legend() }}</span
      ><span>{{ strip().ends?.[1] ?? words(strip().max) }}</span>
    </div>
  `,
  styles: `
    :host {
      display: block;
      max-width: 560px;
    }
    .head {
      display: flex;
      justify-content: space-between;
      gap: 12px;
    }
    .look {
      color: var(--brass-ink);
    }
    svg {
      display: block;
      width: 100%;
      overflow: visible;
    }
    .base {
      stroke: var(--rule-strong);
      stroke-width: 1.5;
    }
    .window {
      fill: var(--verdigris-soft);
      stroke: var(--verdigris);
    }
    .nominal {
      stroke: var(--verdigris);
      stroke-width: 2;
    }
    .end {
      stroke: var(--ink);
      stroke-width: 3;
    }
    .mark {
      fill: none;
      stroke: var(--brass-ink);
      stroke-width: 1.5;
    }
    .tick {
      stroke: var(--ink);
      stroke-width: 1.5;
    }
    .spread {
      stroke: var(--ink);
      stroke-width: 5;
      opacity: 0.35;
    }
    .pin {
      fill: var(--ink);
      stroke: var(--paper);
      stroke-width: 1.5;
    }
    .scale {
      display: grid;
      grid-template-columns: 1fr auto;
      color: var(--ink-2);
      font: 11px var(--mono);
    }
    .legend {
      grid-row: 2;
      grid-column: 1 / -1;
    }
  `,
})
export class LimitStrip {
  readonly strip = input.required<Strip>();
  readonly spread = computed(() => {
    const { value = 0, u = 0 } = this.strip();
    return [this.at(lowest({ value, u })), this.at(highest({ value, u }))] as const;
  });
  readonly legend = computed(() => {
    const s = this.strip();
    return [
      s.window ? 'box: window' : '',
      s.end !== undefined ? 'bar: end' : '',
      s.ticks?.length ? 'ticks: readings' : '',
      s.marks?.length ? `△ ${s.marks.map((m) => m.name).join(', ')}` : '',
    ]
      .filter(Boolean)
      .join(' · ');
  });

  protected words(v: number): string {
    return formatNumber(v, 0);
  }

  at(v: number): number {
    const { min, max } = this.strip();
    return Math.max(0, Math.min(300, ((v - min) / (max - min)) * 300));
  }
}
