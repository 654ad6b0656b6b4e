import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';

/** A mechanism as it is drawn: how surely it is at work, and what shows it. */
export type ChainLink = { name: string; p: number; share: string; shows: readonly string[] };

const [MIDDLE, RADIUS] = [10, 7];
/** A whole disc has an arc that ends where it begins: it is drawn with a hair left open. */
const MOST = 0.995;

/** From the primary cause through its mechanisms to what follows, each filled by how surely it is at work, with the evidence on it. */
@Component({
  selector: 'hs-cause-chain',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ol aria-label="How it works, first to last">
      <li class="end">
        <span class="sign" aria-hidden="true">◆</span><b>{{ cause() }}</b>
      </li>
      @for (l of drawn(); track $index) {
        <li [class.unseen]="l.shows.length === 0">
          <svg viewBox="0 0 20 20" aria-hidden="true">
            <circle [attr.cx]="middle" [attr.cy]="middle" [attr.r]="radius" />
            <path [attr.d]="l.pie" />
          </svg>
          <span
            >{{ l.name }} <span class="mono">{{ l.share }}</span></span
          >
          <span class="shows">
            @for (s of l.shows; track $index) {
              <span>● {{ s }}</span>
            } @empty {
              <span class="quiet">○ not seen</span>
            }
          </span>
        </li>
      }
      <li class="end">
        <span class="sign" aria-hidden="true">▸</span><span>{{ consequence() }}</span>
      </li>
    </ol>
  `,
  styles: `
    ol {
      list-style: none;
      margin: 0;
      padding: 0;
    }
    li {
      position: relative;
      display: grid;
      grid-template-columns: 20px minmax(0, 5fr) minmax(0, 4fr);
      gap: 0 8px;
      padding-bottom: 8px;
    }
    .end > :last-child {
      grid-column: 2 / -1;
    }
    li:last-child {
      padding-bottom: 0;
    }
    /* what leads from one to the next; broken where the next was not seen */
    li:not(:last-child)::before {
      content: '';
      position: absolute;
      left: 9px;
      top: 19px;
      bottom: -1px;
      border-left: 2px solid var(--verdigris);
    }
    li:has(+ .unseen)::before {
      border-left-style: dashed !important;
    }
    svg {
      width: 20px;
      height: 20px;
    }
    circle {
      fill: var(--paper);
      stroke: var(--verdigris);
      stroke-width: 1.5;
    }
    path {
      fill: var(--verdigris);
    }
    .mono {
      white-space: nowrap;
    }
    .sign {
      text-align: center;
      color: var(--verdigris);
    }
    .shows {
      display: grid;
      align-content: start;
    }
  `,
})
export class CauseChain {
  readonly cause = input.required<string>();
  readonly links = input.required<readonly ChainLink[]>();
  readonly consequence = input.required<string>();
  protected readonly middle = MIDDLE;
  protected readonly radius = RADIUS;
  protected readonly drawn = computed(() => this.links().map((l) => ({ ...l, pie: pie(l.p) })));
}

/** A share of a disc, from the top with the clock. */
function pie(share: number): string {
  const angle = 2 * Math.PI * Math.min(share, MOST);
  const [x, y] = [MIDDLE + RADIUS * Math.sin(angle), MIDDLE - RADIUS * Math.cos(angle)];
  const large = angle > Math.PI ? 1 : 0;
  return `M${MIDDLE} ${MIDDLE}V${MIDDLE - RADIUS}A${RADIUS} ${RADIUS} 0 ${large} 1 ${x.toFixed(2)} ${y.toFixed(2)}Z`;
}
