import {
  ChangeDetectionStrategy,
  Component,
  computed,
  input,
  linkedSignal,
  output,
  signal,
} from '@angular/core';
import { readyTime } from '@core/drive/heat';
import { coolingSentence, readyWords } from '../messages/drive-results';
import { DialField } from '../ui/dial-field';

/** Two readings of a cooling engine, and when it is cold enough to be set, with what the readings leave open. */
@Component({
  selector: 'hs-cooling-wait',
  imports: [DialField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (d of dials; track d.label) {
      <hs-dial-field
        [label]="d.label"
        [unit]="d.unit"
        [min]="d.min"
        [max]="d.max"
        [step]="1"
        [digits]="d.digits"
        [value]="d.value()"
        (turned)="turn(d.value, $event)"
      />
    }
    <p class="lead" aria-live="polite">{{ words() }}</p>
  `,
  styles: `
    :host {
      display: grid;
      gap: 6px;
      grid-template-columns: minmax(0, 1fr);
    }
    .lead {
      margin: 0;
      font-size: 1.15em;
      font-weight: 600;
    }
  `,
})
export class CoolingWait {
  /** Kelvin within which engine and air count as one temperature, to begin with. */
  readonly within = input(5);
  /** The second reading, so that what it does to the drive can be shown beside. */
  readonly at = output<number | undefined>();
  private readonly first = signal<number | undefined>(undefined);
  private readonly second = signal<number | undefined>(undefined);
  private readonly minutes = signal<number | undefined>(undefined);
  private readonly air = signal<number | undefined>(undefined);
  private readonly each = signal<number | undefined>(0.5);
  private readonly near = linkedSignal<number | undefined>(() => this.within());
  protected readonly dials = [
    { label: 'First reading', unit: '°C', min: 0, max: 130, digits: 1, value: this.first },
    { label: 'Second reading', unit: '°C', min: 0, max: 130, digits: 1, value: this.second },
    { label: 'Minutes between', unit: 'min', min: 1, max: 180, digits: 0, value: this.minutes },
    { label: 'Air', unit: '°C', min: -20, max: 45, digits: 1, value: this.air },
    { label: 'Each reading ±', unit: 'K', min: 0, max: 5, digits: 1, value: this.each },
    { label: 'Cold enough within', unit: 'K', min: 1, max: 15, digits: 0, value: this.near },
  ];
  protected readonly words = computed(() => {
    const [first, second, minutes, air] = [this.first(), this.second(), this.minutes(), this.air()];
    const near = this.near() ?? this.within();
    if (first === undefined || second === undefined || minutes === undefined || air === undefined)
      return 'Two readings of the cooling engine, the minutes between them and the air give the wait.';
    const ready = readyTime({ s: 0, c: first }, { s: minutes * 60, c: second }, air, near, this.each() ?? 0);
    return ready.ok ? readyWords(ready.value, near) : coolingSentence(ready.error);
  });

  protected turn(value: ReturnType<typeof signal<number | undefined>>, v: number | undefined): void {
    value.set(v);
    if (value === this.second) this.at.emit(v);
  }
}
