import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { Cases } from '../data/cases';
import { DrivePage } from './drive-page';

/** The drive bench without a case: what would happen if. */
@Component({
  selector: 'hs-free-drive-page',
  imports: [DrivePage],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: '<main><hs-drive-page /></main>',
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
export class FreeDrivePage {
  constructor() {
    inject(Cases).putBack();
  }
}
