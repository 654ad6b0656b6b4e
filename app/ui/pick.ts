import { ChangeDetectionStrategy, Component, inject, input, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { NzSelectModule } from 'ng-zorro-antd/select';
import { English } from './english';
import type { TileChoice } from './letters';

let serial = 0;
/** From so many on a list is searched by typing. */
const SEARCHED = 8;

/** One of a list, by name. */
@Component({
  selector: 'hs-pick',
  imports: [FormsModule, NzSelectModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label [for]="id" [class.hidden-text]="bare()">{{ label() }}</label>
    <nz-select
      [nzId]="id"
      [nzShowSearch]="options().length >= searched"
      [nzDropdownMatchSelectWidth]="false"
      [nzPlaceHolder]="placeholder()"
      [ngModel]="value()"
      (ngModelChange)="picked.emit($event)"
    >
      @for (o of options(); track o.key) {
        <nz-option [nzValue]="o.key" [nzLabel]="o.wording" />
      }
    </nz-select>
  `,
  styles: `
    :host {
      display: inline-flex;
      gap: 6px;
      align-items: center;
      min-width: 0;
      position: relative;
    }
    nz-select {
      min-width: 96px;
      width: 100%;
    }
    label {
      white-space: nowrap;
    }
  `,
})
export class Pick {
  readonly label = input.required<string>();
  /** The label is read only, not seen. */
  readonly bare = input(false);
  readonly options = input.required<readonly TileChoice[]>();
  readonly value = input.required<string | undefined>();
  readonly placeholder = input('');
  readonly picked = output<string>();
  protected readonly id = `pick-${++serial}`;
  protected readonly searched = SEARCHED;

  constructor() {
    inject(English);
  }
}
