import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { Cases } from '../../data/cases';
import { TracePage } from './trace-page';

/** The trace bench without a case. */
@Component({
  selector: 'hs-free-trace-page',
  imports: [TracePage],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: '<main><hs-trace-page /></main>',
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
export class FreeTracePage {
  constructor() {
    inject(Cases).putBack();
  }
}
