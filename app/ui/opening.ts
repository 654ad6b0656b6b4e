import { ChangeDetectionStrategy, Component, input } from '@angular/core';

/** What a station says first: so what, and what to do next. What it stands on follows below. */
@Component({
  selector: 'hs-opening',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { role: 'region', 'aria-label': 'In short' },
  template: `
    <p class="says">{{ says() }}</p>
    @if (next(); as n) {
      <p class="next">{{ n }}</p>
    }
    <ng-content />
  `,
  styles: `
    :host {
      display: flex;
      flex-wrap: wrap;
      gap: 2px 14px;
      align-items: baseline;
      margin-bottom: 8px;
    }
    p {
      margin: 0;
      max-width: 92ch;
    }
    .says {
      font-size: 1.35em;
      font-weight: 600;
      line-height: 1.3;
    }
    .next {
      color: var(--ink-2);
    }
  `,
})
export class Opening {
  readonly says = input.required<string>();
  readonly next = input('');
}
