import { ChangeDetectionStrategy, Component, output } from '@angular/core';
import { NzInputDirective } from 'ng-zorro-antd/input';

/** Filters the rack by anything in any fact. Fetched once the rack stands: whoever types needs it later than whoever looks. */
@Component({
  selector: 'hs-rack-filter',
  imports: [NzInputDirective],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<input
    nz-input
    #find
    type="search"
    placeholder="Filter by any fact"
    aria-label="Filter cases by any fact"
    (input)="typed.emit(find.value)"
  />`,
})
export class RackFilter {
  readonly typed = output<string>();
}
