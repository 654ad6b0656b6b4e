import { must, nth } from '@core/quantity/must';
import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { readSeries, seriesValue, thinned } from '@core/examination/read-series';
import { fitAt, type LeakPoint } from '@core/examination/leak-down';
import type { Observable } from '@core/facts/observable';
import { standing } from '@core/facts/read';
import { Notices } from '../../commands/notices';
import { CaseDesk } from '../../data/case-desk';
import { troubleSentence } from '../../data/store-trouble';
import type { Session } from '../../entry/session';
import { Reader } from '../../instruments/reader';
import { FileButton } from '../../ui/file-button';
import { type Curve, SeriesChart } from '../../ui/series-chart';
import { instrumentWords, leakWords, seriesRemarks, seriesSentence } from '../../messages/leak';
import { InstrumentChoice } from './instrument-choice';
import { InstrumentRow } from './instrument-row';

/** Points that a fitted curve is drawn with. */
const CURVE = 60;
/** A file of readings is no larger than this, bytes. */
const MOST_BYTES = 20_000_000;

/** A leak-down: recorded live or read from a table, and what it comes to. */
@Component({
  selector: 'hs-series-panel',
  imports: [FileButton, InstrumentRow, NzButtonComponent, SeriesChart],
  providers: [InstrumentChoice, Reader],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="field" [attr.data-field]="answer() ? 'known' : 'lacks'">
      <b>{{ observable().wording }}</b>
      <div class="row">
        <hs-instrument-row
          [choice]="choice"
          [reader]="reader"
          [live]="live()"
          connect="Load is on: record"
          (connected)="record()"
        >
          <button nz-button nzType="primary" nzSize="small" (click)="finish()">Stop and keep</button>
        </hs-instrument-row>
        @if (reader.gone() && reader.series().length) {
          <button nz-button nzType="primary" nzSize="small" (click)="finish()">Use what came</button>
        }
        <hs-file-button
          wording="From a table"
          label="Table of the leak-down"
          accept=".csv,.txt,.tsv"
          (chosen)="open($event)"
        />
        @if (answer()) {
          <button nz-button nzSize="small" (click)="strike()">Strike it</button>
        }
      </div>
      <p class="quiet" aria-live="polite">{{ remark() }}</p>
      @if (points().length) {
        <hs-series-chart [label]="chartLabel()" axis="mm" [points]="points()" [curves]="curves()" />
      }
      @for (w of words(); track w; let first = $first) {
        <p [class.says]="first" [class.quiet]="!first" aria-live="polite">{{ w }}</p>
      }
    </div>
  `,
  styles: `
    p {
      margin: 2px 0;
    }
    .says {
      font-weight: 600;
    }
  `,
})
export class SeriesPanel {
  readonly session = input.required<Session>();
  readonly observable = input.required<Observable>();
  readonly about = input<string>();
  protected readonly reader = inject(Reader);
  protected readonly choice = inject(InstrumentChoice);
  private readonly desk = inject(CaseDesk);
  private readonly notices = inject(Notices);
  private readonly told = signal('');
  protected readonly answer = computed(() =>
    this.desk.current()?.answers?.leaks.find((l) => l.about === (this.about() ?? '')),
  );
  /** What is being recorded, else what was. */
  private readonly recording = computed(() => this.reader.listening() || this.reader.gone() !== undefined);
  protected readonly points = computed<readonly LeakPoint[]>(() =>
    this.recording() ? this.reader.series() : (this.answer()?.points ?? []),
  );
  protected readonly curves = computed<Curve[]>(() => {
    const result = this.recording() ? undefined : this.answer()?.result;
    const points = this.points();
    if (!result) return [];
    const [from, to] = [nth(points, Math.min(result.left, points.length - 1)).t, must(points.at(-1)).t];
    const at = Array.from({ length: CURVE }, (_, i) => from + ((to - from) * i) / (CURVE - 1));
    return [{ name: result.chosen.model, points: at.map((t) => ({ t, x: fitAt(result.chosen, t) })) }];
  });
  protected readonly words = computed(() => {
    const a = this.answer();
    return a && !this.recording() ? leakWords(a) : [];
  });
  protected readonly live = computed(() => {
    const p = this.reader.last();
    return p ? `${p.x.toFixed(3)} mm, ${p.t.toFixed(0)} s` : 'waits …';
  });
  protected readonly chartLabel = computed(
    () => `${this.observable().wording}: ${this.points().length} readings over time`,
  );
  protected readonly remark = computed(() => instrumentWords(this.reader.heard()) || this.told());

  constructor() {
    effect(() => this.choice.wanted.set({ dimension: 'length', observe: this.observable().observe }));
    this.choice.inspection();
  }

  protected record(): void {
    this.told.set('');
    const i = this.choice.picked();
    if (i) this.reader.start(i, 'length');
  }

  protected async finish(): Promise<void> {
    this.reader.stop();
    const points = thinned(this.reader.series());
    if (points.length === 0) return this.told.set('Nothing came from the instrument yet.');
    if (await this.file(points)) this.reader.forget();
  }

  protected async open(files: readonly File[]): Promise<void> {
    const [file] = files;
    if (!file) return;
    if (file.size > MOST_BYTES) return this.told.set(`${file.name} is too large for a series of readings.`);
    const read = readSeries(await file.text());
    if (!read.ok) return this.told.set(`${file.name}: ${seriesSentence(read.error)} Nothing was filed.`);
    if (await this.file(thinned(read.value.points))) {
      this.reader.forget();
      this.told.set(seriesRemarks(read.value));
    }
  }

  protected async strike(): Promise<void> {
    const state = this.session().state();
    const fact = state && standing(state, this.observable().key, this.about());
    if (fact) await this.session().strike(fact);
  }

  private async file(points: readonly LeakPoint[]): Promise<boolean> {
    const filed = await this.session().file({
      key: this.observable().key,
      about: this.about(),
      value: seriesValue(points),
      how: 'measured',
    });
    if (!filed.ok) this.notices.refuse(troubleSentence(filed.error));
    return filed.ok;
  }
}
