import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { NzInputDirective } from 'ng-zorro-antd/input';
import { judgePair, lastTorque, readTorque, type TorqueStage } from '@core/catalogue/torque-plan';
import { extensionSetting, wrenchFit } from '@core/fitting/wrench';
import { formatNumber } from '@core/quantity/format-quantity';
import { DialField } from '../../ui/dial-field';
import { torquePairWords, torqueStagesWords, spokenPlan, WRENCH_WORDS } from '../../messages/torque';
import { FitStore } from './fit-store';

type Row = { number: number; fastener: string; stages: TorqueStage[]; words: string; spoken: string };

/** Torques of this drive to read out; any printed pair held against itself; wrench and extension. */
@Component({
  selector: 'hs-torque-panel',
  imports: [DialField, NzInputDirective],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="card wide" aria-label="Torques of this drive">
      <h2>Torques of this drive</h2>
      @for (r of rows(); track r.number) {
        <button class="pick" [attr.aria-pressed]="picked() === r.number" (click)="take(r)">
          <span class="mono">{{ r.number }}</span> {{ r.fastener }} <b>{{ r.words }}</b>
        </button>
      } @empty {
        <p class="quiet">
          The sheet of this drive gives none, or the design is still open. A torque can be held against itself
          all the same.
        </p>
      }
      @if (spoken(); as s) {
        <p class="say" aria-live="polite">“{{ s }}”</p>
      }
    </section>
    <section class="card" aria-label="A printed pair">
      <h2>A printed pair</h2>
      <label for="pair-a">As printed</label>
      <input
        nz-input
        id="pair-a"
        placeholder="42 N·m"
        autocomplete="off"
        (input)="first.set($any($event.target).value)"
      />
      <label for="pair-b">and</label>
      <input
        nz-input
        id="pair-b"
        placeholder="31 lbf·ft"
        autocomplete="off"
        (input)="second.set($any($event.target).value)"
      />
      <p [class.caution]="pair().bad" aria-live="polite">{{ pair().words }}</p>
    </section>
    <section class="card" aria-label="The wrench">
      <h2>The wrench</h2>
      @for (d of dials; track d.label) {
        <hs-dial-field
          [label]="d.label"
          [unit]="d.unit"
          [min]="d.min"
          [max]="d.max"
          [step]="1"
          [digits]="0"
          [value]="d.value()"
          (turned)="d.value.set($event)"
        />
      }
      <p [class.caution]="wrench().bad" aria-live="polite">{{ wrench().words }}</p>
    </section>
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(300px, 1fr));
      gap: var(--gap);
      align-items: start;
    }
    section {
      display: grid;
      gap: 6px;
    }
    .wide {
      grid-column: 1 / -1;
    }
    .pick {
      display: flex;
      gap: 10px;
      align-items: center;
      text-align: left;
      font: inherit;
      color: inherit;
    }
    .pick b {
      margin-left: auto;
      text-align: right;
    }
    .say {
      font-size: 1.2em;
      margin: 0;
    }
    p {
      margin: 0;
    }
  `,
})
export class TorquePanel {
  private readonly store = inject(FitStore);
  protected readonly picked = signal<number | undefined>(undefined);
  protected readonly first = signal('');
  protected readonly second = signal('');
  private readonly nm = signal<number | undefined>(undefined);
  private readonly from = signal<number | undefined>(undefined);
  private readonly to = signal<number | undefined>(undefined);
  private readonly length = signal<number | undefined>(undefined);
  private readonly extension = signal<number | undefined>(undefined);
  private readonly across = signal<number | undefined>(0);
  protected readonly dials = [
    { label: 'Wanted at the bolt', unit: 'N·m', min: 1, max: 400, value: this.nm },
    { label: 'Wrench from', unit: 'N·m', min: 1, max: 200, value: this.from },
    { label: 'to', unit: 'N·m', min: 1, max: 600, value: this.to },
    { label: 'Wrench, drive to grip', unit: 'mm', min: 50, max: 1200, value: this.length },
    { label: 'Extension', unit: 'mm', min: 0, max: 300, value: this.extension },
    { label: 'Its angle to the wrench', unit: '°', min: 0, max: 180, value: this.across },
  ];
  protected readonly rows = computed<Row[]>(() =>
    (this.store.sheet()?.steps ?? []).flatMap((s) =>
      s.torque
        ? [
            {
              number: s.number,
              fastener: `${s.torque.count ? `${s.torque.count} × ` : ''}${s.torque.fastener}`,
              stages: s.torque.stages,
              words: torqueStagesWords(s.torque.stages) + (s.torque.leftHand ? ', left-hand' : ''),
              spoken: spokenPlan(s.torque),
            },
          ]
        : [],
    ),
  );
  protected readonly spoken = computed(() => this.rows().find((r) => r.number === this.picked())?.spoken);
  protected readonly pair = computed(() => {
    const [a, b] = [this.first(), this.second()];
    if (a.trim() === '' || b.trim() === '')
      return { bad: false, words: 'Two figures that are printed for one bolt: do they say the same?' };
    const [x, y] = [readTorque(a), readTorque(b)];
    if (!x.ok || !y.ok) {
      const bad = x.ok ? b : a;
      return {
        bad: true,
        words: `“${bad}” is no torque with a unit, such as 42 N·m, 31 lbf·ft, 372 lbf·in or 4.3 kgf·m.`,
      };
    }
    const judged = judgePair(x.value, y.value);
    return { bad: !judged.agree, words: `${judged.agree ? '✓' : '✕'} ${torquePairWords(judged)}` };
  });
  protected readonly wrench = computed(() => {
    const nm = this.nm();
    if (nm === undefined) return { bad: false, words: 'Give the torque wanted, or press one of the list.' };
    const [length, extension] = [this.length(), this.extension()];
    const set = length && extension ? extensionSetting(nm, length, extension, this.across() ?? 0) : nm;
    const [from, to] = [this.from(), this.to()];
    const fit = from !== undefined && to !== undefined ? wrenchFit(set, { from, to }) : undefined;
    return {
      bad: fit !== undefined && fit !== 'fits',
      words: `Set ${formatNumber(set, 1)} N·m${set === nm ? '' : ` on the wrench for ${formatNumber(nm, 0)} N·m at the bolt`}. ${fit ? WRENCH_WORDS[fit] : ''}`,
    };
  });

  protected take(r: Row): void {
    this.picked.set(r.number);
    const nm = lastTorque(r.stages);
    if (nm !== undefined) this.nm.set(Math.round(nm));
  }
}
