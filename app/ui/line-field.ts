import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { NzInputDirective } from 'ng-zorro-antd/input';

let serial = 0;

/** A line of a form, its label above it: every key is given out, so that nothing half-typed is lost. */
@Component({
  selector: 'hs-line-field',
  imports: [NzInputDirective],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label [for]="id" [class.hidden-text]="bare()">{{ label() }}</label>
    <input
      nz-input
      #box
      autocomplete="off"
      [id]="id"
      [value]="value()"
      [placeholder]="example()"
      (input)="typed.emit(box.value)"
    />
  `,
  styles: `
    :host {
      display: grid;
      gap: 2px;
      min-width: 0;
      position: relative;
    }
    label {
      font-weight: 600;
    }
  `,
})
export class LineField {
  readonly label = input.required<string>();
  /** The label is read only, not seen: a heading stands above. */
  readonly bare = input(false);
  readonly example = input('');
  readonly value = input.required<string>();
  readonly typed = output<string>();
  protected readonly id = `line-${++serial}`;
}
