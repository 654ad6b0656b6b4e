import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import type { Observable } from '@core/facts/observable';
import { has } from '@core/facts/read';
import { Say } from '../../acts/say';
import { troubleSentence } from '../../data/store-trouble';
import type { Session } from '../../entry/session';
import { Reader } from '../../instruments/reader';
import { Pick } from '../../ui/pick';
import { goneWords } from '../../words/leak';
import { InstrumentChoice } from './instrument-choice';

/** A live reading, and taking it: the mean of the latest with its uncertainty; taken again it joins the others. */
@Component({
  selector: 'hs-instrument-panel',
  imports: [NzButtonComponent, Pick],
  providers: [InstrumentChoice, Reader],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (!shown()) {
      <button nz-button nzSize="small" (click)="show()">Read an instrument</button>
    } @else if (choice.choices().length) {
      <div class="row">
        <hs-pick
          label="Instrument"
          [bare]="true"
          [options]="choice.choices()"
          [value]="choice.picked()?.key"
          (picked)="choice.wished.set($event)"
        />
        @if (reader.listening()) {
          <output class="mono">{{ live() }}</output>
          <button nz-button nzType="primary" nzSize="small" [disabled]="!reader.value()" (click)="take()">
            Take it
          </button>
          <button nz-button nzSize="small" (click)="reader.stop()">Disconnect</button>
        } @else {
          <button nz-button nzSize="small" (click)="connect()">Connect</button>
        }
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
    output {
      font-size: 1.25em;
      min-width: 9ch;
    }
  `,
})
export class InstrumentPanel {
  readonly session = input.required<Session>();
  readonly observable = input.required<Observable>();
  readonly about = input<string>();
  protected readonly reader = inject(Reader);
  protected readonly choice = inject(InstrumentChoice);
  private readonly say = inject(Say);
  protected readonly shown = signal(false);
  private readonly dimension = computed(() => {
    const t = this.observable().type;
    return t.kind === 'number' ? t.dimension : undefined;
  });
  protected readonly live = computed(() => {
    const v = this.reader.value();
    return v ? this.session().show(this.observable(), v.value, v.u) : 'waits …';
  });
  protected readonly remark = computed(() => {
    const { gone, garbage, foreign } = this.reader;
    const why = gone();
    if (why) return goneWords(why, this.reader.series().length);
    if (foreign() > 0) return 'It sends another kind of reading than is wanted here.';
    return garbage() > 0 ? `${garbage()} lines could not be read and were left out.` : '';
  });

  protected show(): void {
    this.shown.set(true);
    const dimension = this.dimension();
    if (dimension) this.choice.wanted.set({ dimension, observe: this.observable().observe });
    this.choice.look();
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
    if (!filed.ok) this.say.refuse(troubleSentence(filed.error));
  }
}
