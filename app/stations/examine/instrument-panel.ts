import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import type { Observable } from '@core/facts/observable';
import { has } from '@core/facts/read';
import { Notices } from '../../commands/notices';
import { troubleSentence } from '../../data/store-trouble';
import type { Session } from '../../entry/session';
import { Reader } from '../../instruments/reader';
import { instrumentWords } from '../../messages/leak';
import { InstrumentChoice } from './instrument-choice';
import { InstrumentRow } from './instrument-row';

/** A live reading, and taking it: the mean of the latest with its uncertainty; taken again it joins the others. */
@Component({
  selector: 'hs-instrument-panel',
  imports: [InstrumentRow, NzButtonComponent],
  providers: [InstrumentChoice, Reader],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (!shown()) {
      <button nz-button nzSize="small" (click)="show()">Read an instrument</button>
    } @else if (choice.choices().length) {
      <div class="row">
        <hs-instrument-row
          [choice]="choice"
          [reader]="reader"
          [live]="live()"
          connect="Connect"
          (connected)="connect()"
        >
          <button nz-button nzType="primary" nzSize="small" [disabled]="!reader.value()" (click)="take()">
            Take it
          </button>
          <button nz-button nzSize="small" (click)="reader.stop()">Disconnect</button>
        </hs-instrument-row>
      </div>
      <p class="quiet" aria-live="polite">{{ remark() }}</p>
    } @else {
      <p class="quiet">No instrument here measures this. Type the reading, or let a caliper type it.</p>
    }
  `,
  styles: `
    p {
      margin: 2px 0 0;
    }
  `,
})
export class InstrumentPanel {
  readonly session = input.required<Session>();
  readonly observable = input.required<Observable>();
  readonly about = input<string>();
  protected readonly reader = inject(Reader);
  protected readonly choice = inject(InstrumentChoice);
  private readonly notices = inject(Notices);
  protected readonly shown = signal(false);
  private readonly dimension = computed(() => {
    const t = this.observable().type;
    return t.kind === 'number' ? t.dimension : undefined;
  });
  protected readonly live = computed(() => {
    const v = this.reader.value();
    return v ? this.session().show(this.observable(), v.value, v.u) : 'waits …';
  });
  protected readonly remark = computed(() => instrumentWords(this.reader.heard()));

  protected show(): void {
    this.shown.set(true);
    const dimension = this.dimension();
    if (dimension) this.choice.wanted.set({ dimension, observe: this.observable().observe });
    this.choice.inspection();
  }

  protected connect(): void {
    const i = this.choice.picked();
    const dimension = this.dimension();
    if (i && dimension) this.reader.start(i, dimension);
  }

  protected async take(): Promise<void> {
    const v = this.reader.value();
    const { key } = this.observable();
    const state = this.session().state();
    if (!v || !state) return;
    const filed = await this.session().file({
      key,
      about: this.about(),
      value: v.value,
      ...(v.u === undefined ? {} : { u: v.u }),
      how: 'measured',
      repeat: has(state, key, this.about()),
    });
    if (!filed.ok) this.notices.refuse(troubleSentence(filed.error));
  }
}
