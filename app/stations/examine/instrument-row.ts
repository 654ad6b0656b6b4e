import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import type { Reader } from '../../instruments/reader';
import { Pick } from '../../ui/pick';
import type { InstrumentChoice } from './instrument-choice';

/** Which instrument is listened to, and what it says now; what can be done with it stands behind. */
@Component({
  selector: 'hs-instrument-row',
  imports: [NzButtonComponent, Pick],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <hs-pick
      label="Instrument"
      [bare]="true"
      [options]="choice().choices()"
      [value]="choice().picked()?.key"
      (picked)="choice().wished.set($event)"
    />
    @if (reader().listening()) {
      <output class="mono">{{ live() }}</output>
      <ng-content />
    } @else {
      <button
        nz-button
        class="entry"
        nzSize="small"
        [disabled]="!choice().picked()"
        (click)="connected.emit()"
      >
        {{ connect() }}
      </button>
    }
  `,
  styles: `
    :host {
      display: contents;
    }
    output {
      font-size: 1.25em;
      min-width: 10ch;
    }
  `,
})
export class InstrumentRow {
  readonly choice = input.required<InstrumentChoice>();
  readonly reader = input.required<Reader>();
  readonly live = input.required<string>();
  readonly connect = input.required<string>();
  readonly connected = output();
}
