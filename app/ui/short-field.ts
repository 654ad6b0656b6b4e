import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { NzInputDirective } from 'ng-zorro-antd/input';

let serial = 0;

/** A short figure or name in a sheet of many: what was typed is given out when it is left or Enter is pressed. */
@Component({
  selector: 'hs-short-field',
  imports: [NzInputDirective],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label [for]="id" [class.hidden-text]="bare()">{{ label() }}</label>
    <input
      nz-input
      #box
      autocomplete="off"
      [id]="id"
      [class.wide]="wide()"
      [value]="value()"
      (change)="typed.emit(box.value)"
    />
    @if (unit()) {
      <span>{{ unit() }}</span>
    }
  `,
  styles: `
    :host {
      display: inline-flex;
      gap: 6px;
      align-items: center;
      position: relative;
    }
    input {
      width: 52px;
    }
    .wide {
      width: 100px;
    }
  `,
})
export class ShortField {
  readonly label = input.required<string>();
  /** The label is read only, not seen. */
  readonly bare = input(false);
  readonly wide = input(false);
  readonly unit = input('');
  readonly value = input.required<string | number>();
  readonly typed = output<string>();
  protected readonly id = `short-${++serial}`;
}
