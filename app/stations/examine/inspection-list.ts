import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  inject,
  input,
  output,
} from '@angular/core';
import type { LimitedInspection, ExaminedThing } from '@core/answer/examined';
import type { Session } from '../../entry/session';
import { signOf } from '../../messages/examination';
import { shownOf } from './shown-value';

/** The inspections of the thing in hand, in the order of the work; one is open. Arrows walk. */
@Component({
  selector: 'hs-inspection-list',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(keydown)': 'walk($event)' },
  template: `
    <ol>
      @for (l of thing().inspections; track l.inspection.key; let i = $index) {
        <li [attr.data-field]="fieldOf(l)" [attr.data-row]="l.inspection.key">
          <button
            type="button"
            class="entry"
            [tabindex]="l.inspection.key === inspection() ? 0 : -1"
            [attr.aria-current]="l.inspection.key === inspection() ? 'step' : null"
            [class.bad]="l.abnormal"
            (click)="opened.emit(l.inspection.key)"
          >
            <span class="sign" aria-hidden="true">{{ sign(l)[0] }}</span>
            <span class="name">{{ l.observable.wording }}</span>
            <span class="hidden-text">, {{ sign(l)[1] }}</span>
            @if (value(l); as v) {
              <small>{{ v }}</small>
            }
          </button>
        </li>
      }
    </ol>
  `,
  styles: `
    ol {
      margin: 0;
      padding: 0;
      list-style: none;
    }
    button {
      display: grid;
      grid-template-columns: 14px 1fr;
      column-gap: 4px;
      width: 100%;
      min-height: 24px;
      padding: 2px 6px;
      border: 0;
      border-left: 3px solid transparent;
      background: none;
      text-align: left;
      line-height: 1.25;
      cursor: pointer;
    }
    [aria-current] {
      border-left-color: var(--verdigris);
      background: var(--verdigris-soft);
    }
    .sign {
      font-size: 10px;
      line-height: 1.7;
      color: var(--ink-2);
    }
    .bad .sign,
    .bad small {
      color: var(--brass-ink);
    }
    small {
      grid-column: 2;
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
  `,
})
export class InspectionList {
  readonly thing = input.required<ExaminedThing>();
  readonly inspection = input<string>();
  readonly session = input.required<Session>();
  readonly opened = output<string>();
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  protected readonly sign = signOf;

  constructor() {
    // The inspection in hand stays in sight of its list, and nothing else moves: measured when the frame is laid out anyway.
    afterRenderEffect(() => {
      this.inspection();
      this.thing();
      requestAnimationFrame(() => this.keepInSight());
    });
  }

  private keepInSight(): void {
    const row = this.host.querySelector<HTMLElement>('[aria-current]');
    const box = this.host.parentElement;
    if (!row || !box) return;
    const [r, b] = [row.getBoundingClientRect(), box.getBoundingClientRect()];
    if (r.bottom > b.bottom) box.scrollTop += r.bottom - b.bottom;
    else if (r.top < b.top) box.scrollTop -= b.top - r.top;
  }

  /** What the walk over what is lacking goes to: held ones wait. */
  protected fieldOf(l: LimitedInspection): string {
    return l.status === 'open' ? 'lacks' : l.status === 'held' ? 'held' : 'known';
  }

  protected value(l: LimitedInspection): string {
    return shownOf(this.session(), l, this.thing().about);
  }

  protected walk(e: KeyboardEvent): void {
    const by = { ArrowDown: 1, ArrowUp: -1 }[e.key];
    if (by === undefined) return;
    e.preventDefault();
    const rows = [...this.host.querySelectorAll('button')];
    const at = rows.indexOf(document.activeElement as HTMLButtonElement);
    rows[Math.max(0, Math.min(rows.length - 1, at + by))]?.focus();
  }
}
