import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';

/** One mark: where a right fitting shows it and where it was seen, degrees of its wheel, ahead positive. */
export type MarkDial = {
  name: string;
  teeth: number;
  predictedDeg: number;
  seenDeg?: number | undefined;
  says: string;
  verdict: 'right' | 'wrong' | 'unsure' | 'unseen';
};

const SIGNS = { right: '✓', wrong: '✕', unsure: '?', unseen: '' } as const;
/** Marks lie close together: angles are drawn larger so that half a tooth can be seen, and the drawing says so. */
const DRAWN = 3;

/** A dial for every mark: the fixed mark on top, where it must stand, and where it was seen. */
@Component({
  selector: 'hs-mark-dials',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (d of dials(); track d.name) {
      <figure [class]="d.verdict">
        <svg viewBox="-44 -52 88 92" role="img" [attr.aria-label]="d.name + ': ' + d.says">
          <circle r="34" class="wheel" />
          <path d="M -5 -50 L 5 -50 L 0 -41 Z" class="fixed" />
          <line y1="-34" y2="-20" class="must" [attr.transform]="d.must" />
          @if (d.seen) {
            <line y1="-34" y2="-12" class="seen" [attr.transform]="d.seen" />
            <circle cy="-12" r="3" class="dot" [attr.transform]="d.seen" />
          }
          <text y="16" class="sign">{{ d.sign }}</text>
        </svg>
        <figcaption>
          <b>{{ d.name }}</b>
          {{ d.says }}
        </figcaption>
      </figure>
    }
    <p class="quiet">
      ▾ fixed mark · short line: where a right fitting shows it · long line with dot: what was told. Angles
      are drawn {{ drawn }} times as wide.
    </p>
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(118px, 1fr));
      gap: 6px;
    }
    figure {
      margin: 0;
      text-align: center;
    }
    svg {
      width: 96px;
      height: 100px;
    }
    figcaption {
      font-size: 0.92em;
      line-height: 1.25;
    }
    figcaption b {
      display: block;
    }
    .wheel {
      fill: none;
      stroke: var(--ink);
      stroke-width: 1;
    }
    .fixed {
      fill: var(--ink);
    }
    .must {
      stroke: var(--verdigris);
      stroke-width: 3;
    }
    .seen {
      stroke: var(--ink);
      stroke-width: 2.5;
    }
    .dot {
      fill: var(--ink);
    }
    .sign {
      text-anchor: middle;
      font-size: 16px;
      fill: var(--ink);
    }
    .wrong .seen,
    .unsure .seen {
      stroke: var(--brass);
    }
    .wrong .dot,
    .unsure .dot {
      fill: var(--brass);
    }
    .unseen figcaption {
      color: var(--ink-2);
    }
    p {
      grid-column: 1 / -1;
      margin: 0;
    }
  `,
})
export class MarkDials {
  readonly marks = input.required<readonly MarkDial[]>();
  protected readonly drawn = DRAWN;
  protected readonly dials = computed(() =>
    this.marks().map((m) => ({
      ...m,
      sign: SIGNS[m.verdict],
      must: turn(m.predictedDeg),
      seen: m.seenDeg === undefined ? undefined : turn(m.seenDeg),
    })),
  );
}

/** Ahead is drawn clockwise, whichever way the wheel runs: the caption says which it is. */
const turn = (deg: number): string => `rotate(${Math.max(-170, Math.min(170, deg * DRAWN))})`;
