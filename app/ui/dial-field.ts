import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { NzInputDirective } from 'ng-zorro-antd/input';
import { readNumber } from '@core/quantity/parse-quantity';

let serial = 0;

/** A figure to try: a slider for the hand, a box for the exact value. Both always say the same. */
@Component({
  selector: 'hs-dial-field',
  imports: [NzInputDirective],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label [for]="id + '-box'">{{ label() }}</label>
    <input
      type="range"
      #slide
      [attr.aria-label]="label() + ', slider'"
      [attr.aria-valuetext]="shown() + ' ' + unit()"
      [min]="min()"
      [max]="max()"
      [step]="step()"
      [value]="value()"
      (input)="put(slide.valueAsNumber)"
    />
    <span class="typed">
      <input
        nz-input
        #box
        class="mono"
        inputmode="decimal"
        autocomplete="off"
        [id]="id + '-box'"
        [value]="shown()"
        [attr.aria-invalid]="wrong() ? true : null"
        [attr.aria-describedby]="wrong() ? id + '-says' : null"
        (change)="type(box.value)"
        (keydown.enter)="type(box.value)"
      />
      <span>{{ unit() }}</span>
    </span>
    @if (wrong()) {
      <span class="says" [id]="id + '-says'">▲ {{ wrong() }}</span>
    }
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: minmax(92px, 1fr) minmax(70px, 1.1fr) auto;
      gap: 0 8px;
      align-items: center;
    }
    input[type='range'] {
      width: 100%;
      min-height: var(--target);
      accent-color: var(--verdigris);
    }
    .typed {
      display: flex;
      align-items: center;
      gap: 4px;
    }
    .typed input {
      width: 74px;
      text-align: right;
    }
    .typed span {
      min-width: 32px;
    }
    .says {
      grid-column: 1 / -1;
      color: var(--bad-ink);
    }
  `,
})
export class DialField {
  readonly label = input.required<string>();
  readonly unit = input('');
  readonly min = input.required<number>();
  readonly max = input.required<number>();
  readonly step = input(0.01);
  readonly digits = input(2);
  readonly value = input.required<number>();
  readonly turned = output<number>();
  protected readonly id = `dial-${++serial}`;
  protected readonly wrong = signal('');
  protected readonly shown = computed(() => this.value().toFixed(this.digits()));

  protected put(v: number): void {
    this.wrong.set('');
    this.turned.emit(v);
  }

  protected type(text: string): void {
    const v = readNumber(text);
    if (v === undefined) this.wrong.set(`“${text}” is not a number.`);
    else if (v < this.min() || v > this.max())
      this.wrong.set(`${text} is outside ${this.min()} to ${this.max()} ${this.unit()}.`);
    else this.put(v);
  }
}
