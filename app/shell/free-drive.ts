import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { RouterOutlet } from '@angular/router';
import { Cases } from '../data/cases';

/** A bench without a case: what would happen if, or a capture of nobody's claim. The case in hand is put back. */
@Component({
  selector: 'hs-free-bench',
  imports: [RouterOutlet],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: '<main><router-outlet /></main>',
  styles: `
    :host {
      display: block;
      height: 100%;
    }
    main {
      height: 100%;
      padding: 12px 14px;
      overflow: auto;
    }
  `,
})
export class FreeDrive {
  constructor() {
    inject(Cases).putBack();
  }
}
