import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { NzInputDirective } from 'ng-zorro-antd/input';
import { NzSliderModule } from 'ng-zorro-antd/slider';
import { parseQuantity, readNumber } from '@core/quantity/parse-quantity';
import { dimensionOf, fromBase, toBase, unitsOf } from '@core/quantity/units';
import { list } from '../language/list';
import { sayHandle } from './slider-handle';

let serial = 0;

/** A figure to try: a slider for the hand, a box for the exact value. Both always say the same; empty until there is one. */
@Component({
  selector: 'hs-dial-field',
  imports: [FormsModule, NzInputDirective, NzSliderModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label [for]="id + '-box'">{{ label() }}</label>
    <nz-slider
      nzTooltipVisible="never"
      [nzMin]="min()"
      [nzMax]="max()"
      [nzStep]="step()"
      [ngModel]="value() ?? idle()"
      (ngModelChange)="slid($event)"
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
    nz-slider {
      min-width: 0;
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
  readonly value = input.required<number | undefined>();
  readonly turned = output<number>();
  /** Says that what stands in the box cannot be read, so that nothing beside it goes on judging. */
  readonly misread = output<boolean>();
  protected readonly id = `dial-${++serial}`;
  protected readonly wrong = signal('');
  protected readonly shown = computed(() => this.value()?.toFixed(this.digits()) ?? '');
  /** Where the slider stands before there is a value: nearest to nought. */
  protected readonly idle = computed(() => Math.min(this.max(), Math.max(this.min(), 0)));

  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);

  constructor() {
    afterRenderEffect(() => {
      sayHandle(this.host.nativeElement, {
        label: `${this.label()}, slider`,
        min: this.min(),
        max: this.max(),
        now: this.value() ?? this.idle(),
        text: this.value() === undefined ? 'not entered' : `${this.shown()} ${this.unit()}`,
      });
    });
  }

  /** The slider's own word, not the echo of the value that it was given. */
  protected slid(v: number): void {
    if (v !== this.value()) this.put(v);
  }

  protected put(v: number): void {
    this.say('');
    this.turned.emit(v);
  }

  protected type(text: string): void {
    const v = this.read(text);
    if (typeof v === 'string') this.say(v);
    else if (v < this.min() || v > this.max())
      this.say(`${text} is outside ${this.min()} to ${this.max()} ${this.unit()}.`);
    else this.put(v);
  }

  /** The value in the field's unit; any other unit of its dimension may be typed, inches too. */
  private read(text: string): number | string {
    const [unit, typed] = [this.unit(), text.trim().slice(0, 40)];
    const dimension = dimensionOf(unit);
    if (!dimension) return readNumber(text) ?? `“${typed}” is not a number.`;
    const read = parseQuantity(dimension, text, unit);
    if (read.ok) {
      // In its own unit the figure stays as typed, without a way there and back.
      const plain = readNumber(text);
      return plain !== undefined && toBase(dimension, plain, unit) === read.value.value
        ? plain
        : fromBase(dimension, read.value.value, unit);
    }
    return read.error.code === 'unknown_unit'
      ? `“${typed}” has no unit for this. Use ${list(unitsOf(dimension), 'or')}.`
      : `“${typed}” is not a number.`;
  }

  private say(wrong: string): void {
    if ((wrong === '') !== (this.wrong() === '')) this.misread.emit(wrong !== '');
    this.wrong.set(wrong);
  }
}
