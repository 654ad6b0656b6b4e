import { nth, num } from '@core/quantity/must';
import { ChangeDetectionStrategy, Component, computed, inject, signal, viewChild } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { gapsOver, squareWave, teethOver, turnedOn, VIEW_STEP } from '@core/trace/cycle-view';
import { CYCLE } from '@core/trace/cycle';
import { download } from '../../report/download';
import { writeCsv } from '../../report/csv';
import { CaptureChart } from '../../ui/capture-chart';
import type { CaptureArea, CaptureLine, CaptureRuler } from '../../ui/capture-option';
import { Segmented } from '../../ui/segmented';
import { camName, cursorWords } from '../../messages/trace';
import type { CaptureSlot, TraceRead } from '../../workers/trace.protocol';
import { TraceStore } from './trace-store';

/** How high each signal is drawn over the one below; height of a signal that only the catalogue names, volts. */
const LIFT = 7;
const NAMED_V = 5;
/** The other capture is drawn a little lower, so that both are seen. */
const BELOW = 0.4;
/** The ruler of teeth stands so far above the crank's signal, volts. */
const ABOVE = 0.3;
/** Columns that a stretch of a recording is drawn in: as many as the picture has on a wide screen. */
const COLUMNS = 1000;
type Looked = 'cycle' | CaptureSlot;

/** Both captures over one cycle of the crank, or one of them over its whole time; taken out as picture, drawing and table. */
@Component({
  selector: 'hs-trace-view',
  imports: [CaptureChart, NzButtonComponent, Segmented],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (choices().length > 1) {
      <hs-segmented label="What is shown" [options]="choices()" [value]="looked()" (picked)="look($event)" />
    }
    <hs-capture-chart
      [label]="looked() === 'cycle' ? 'Cursor over one cycle of the crank' : 'Cursor over the recording'"
      [lines]="looked() === 'cycle' ? cycleLines() : recordLines()"
      [range]="range()"
      [axis]="looked() === 'cycle' ? '° of the crank' : 's'"
      [step]="looked() === 'cycle' ? step : (range()[1] - range()[0]) / 1000"
      [stops]="looked() === 'cycle' ? stops() : []"
      [areas]="looked() === 'cycle' ? areas() : []"
      [ruler]="looked() === 'cycle' ? ruler() : undefined"
      [said]="said()"
      (moved)="at.set($event)"
      (seen)="seen($event)"
    />
    <p class="quiet" aria-live="polite">{{ said() }}</p>
    <div class="row">
      <ng-content />
      <button nz-button nzSize="small" (click)="png()">Picture</button>
      <button nz-button nzSize="small" (click)="svg()">Drawing</button>
      @if (store.compared().length) {
        <button nz-button nzSize="small" (click)="edgeTable()">Edges as a table</button>
      }
    </div>
  `,
  styles: `
    :host {
      display: grid;
      gap: 4px;
      justify-items: start;
      min-width: 0;
    }
    hs-capture-chart {
      width: 100%;
    }
    p {
      margin: 0;
    }
  `,
})
export class TraceView {
  protected readonly store = inject(TraceStore);
  private readonly chart = viewChild.required(CaptureChart);
  protected readonly step = VIEW_STEP;
  private readonly chosen = signal<Looked>('cycle');
  protected readonly at = signal<{ at: number | undefined; mark: number | undefined }>({
    at: undefined,
    mark: undefined,
  });
  private readonly stretches = signal<{
    slot: CaptureSlot;
    from: number;
    to: number;
    values: Float32Array[];
  }>({
    slot: 'mine',
    from: 0,
    to: 0,
    values: [],
  });

  protected readonly choices = computed(() => [
    { value: 'cycle' as const, label: 'One cycle' },
    ...(this.store.mine().read ? [{ value: 'mine' as const, label: 'The whole recording' }] : []),
    ...(this.store.against() !== 'catalogue' && this.store.reference().read
      ? [{ value: 'reference' as const, label: 'The other recording' }]
      : []),
  ]);
  protected readonly looked = computed(
    (): Looked => (this.choices().some((c) => c.value === this.chosen()) ? this.chosen() : 'cycle'),
  );
  private readonly read = computed((): TraceRead | undefined =>
    this.looked() === 'reference' ? this.store.reference().read : this.store.mine().read,
  );
  protected readonly range = computed((): readonly [number, number] => {
    const r = this.read();
    return this.looked() === 'cycle' || !r ? [0, CYCLE] : [r.startS, r.startS + r.samples * r.stepS];
  });

  protected readonly cycleLines = computed((): CaptureLine[] => {
    const [a, b] = [this.store.mine().read, this.store.reference().read];
    const line = (
      name: string,
      values: Float32Array,
      lift: number,
      look: CaptureLine['look'],
    ): CaptureLine => ({
      name,
      values,
      from: 0,
      step: VIEW_STEP,
      lift,
      look,
    });
    const out: CaptureLine[] = [];
    if (a) {
      out.push(line(a.channels[a.roles.crank] ?? 'Crank', a.view.crank, 0, 'crank'));
      const places = this.store.placesOf('mine');
      a.view.cams.forEach((values, i) =>
        out.push(line(nth(a.cams, i).name, values, LIFT * (num(places, i) + 1), 'mine')),
      );
    }
    const aligned = (i: number) => this.store.compared().find((c) => c.cam === i)?.shift?.aligned ?? 0;
    if (this.store.against() === 'catalogue')
      this.store.catalogue()?.cams.forEach(({ at, pattern }) => {
        const name = `${this.store.teeth().cams[at]?.name ?? camName(at)}, by the catalogue`;
        if (a)
          out.push(
            line(
              name,
              turnedOn(squareWave(pattern, 0, NAMED_V), aligned(at)),
              LIFT * (at + 1) - BELOW,
              'other',
            ),
          );
      });
    else {
      const places = this.store.placesOf('reference');
      b?.view.cams.forEach((values, i) => {
        const at = num(places, i);
        const name = `${nth(b.cams, i).name}, the other capture`;
        out.push(line(name, turnedOn(values, aligned(at)), LIFT * (at + 1) - BELOW, 'other'));
      });
    }
    return out;
  });

  private readonly recorded = computed(() => this.stretches().slot === this.looked());
  protected readonly recordLines = computed((): CaptureLine[] => {
    const [r, s] = [this.read(), this.stretches()];
    if (!r || !this.recorded()) return [];
    return s.values.map((values, k): CaptureLine => {
      const cam = r.roles.cams.indexOf(k);
      return {
        name: nth(r.channels, k),
        values,
        from: s.from,
        step: (s.to - s.from) / COLUMNS,
        lift: k === r.roles.crank ? 0 : LIFT * (cam < 0 ? r.roles.cams.length + 1 : cam + 1),
        look: k === r.roles.crank ? 'crank' : 'mine',
      };
    });
  });

  protected readonly stops = computed(() =>
    (this.store.mine().read?.cams[0]?.pattern?.edges ?? []).map((e) => ({
      at: e.deg,
      text: `${e.deg.toFixed(1)}°`,
    })),
  );
  protected readonly ruler = computed((): CaptureRuler | undefined => {
    const r = this.store.mine().read;
    if (!r) return undefined;
    const top = r.view.crank.reduce((m, v) => (v > m ? v : m), -Infinity);
    return { at: top + ABOVE, teeth: teethOver(r.teeth) };
  });
  /** Gaps of the wheel, and how far each edge stands off the other side's. */
  protected readonly areas = computed((): CaptureArea[] => {
    const r = this.store.mine().read;
    if (!r) return [];
    const offs = this.store.compared().flatMap((c) =>
      (c.shift?.edges ?? []).map((e): CaptureArea => {
        const [low, high] = [LIFT * (c.cam + 1) - BELOW, LIFT * (c.cam + 1) + NAMED_V];
        const [from, to] = [e.deg - e.shift, e.deg].sort((p, q) => p - q) as [number, number];
        return { from, to, look: 'off', low, high };
      }),
    );
    return [...gapsOver(r.teeth).map((g): CaptureArea => ({ ...g, look: 'gap' })), ...offs];
  });

  protected readonly said = computed(() => {
    const { at, mark } = this.at();
    if (at === undefined)
      return 'Press on the picture, or keys there: ← → cursor, shift faster, n and b next edge and back, m mark, + and − zoom.';
    if (this.looked() !== 'cycle')
      return `${at.toFixed(4)} s${mark === undefined ? '' : `, ${((at - mark) * 1000).toFixed(2)} ms from the mark`}`;
    return cursorWords(at, mark, this.store.teeth().zCrank, this.store.teeth().unit);
  });

  protected look(at: Looked): void {
    this.chosen.set(at);
    if (at !== 'cycle') void this.fetch(at, this.range());
  }

  protected seen(range: readonly [number, number]): void {
    const looked = this.looked();
    if (looked !== 'cycle') void this.fetch(looked, range);
  }

  /** Asks the thread for what is seen; what was asked before and comes later is dropped. */
  private asked = 0;
  private async fetch(slot: CaptureSlot, [from, to]: readonly [number, number]): Promise<void> {
    const r = slot === 'mine' ? this.store.mine().read : this.store.reference().read;
    if (!r) return;
    const mine = ++this.asked;
    const sample = (s: number) => (s - r.startS) / r.stepS;
    const values = await this.store.stretch(slot, sample(from), sample(to), COLUMNS);
    if (mine === this.asked) this.stretches.set({ slot, from, to, values });
  }

  protected edgeTable(): void {
    const rows = this.store
      .compared()
      .flatMap((c) =>
        (c.shift?.edges ?? []).map((e) => [
          c.name,
          Number(e.deg.toFixed(3)),
          e.rising ? 'rising' : 'falling',
          Number(e.shift.toFixed(3)),
          e.out ? 'left out' : '',
        ]),
      );
    const head = ['cam', 'crank_deg', 'edge', 'late_deg', 'remark'];
    download('cam-edges.csv', new Blob([writeCsv([head, ...rows])], { type: 'text/csv' }));
  }

  protected async png(): Promise<void> {
    const url = this.chart().png();
    if (url) download('capture.png', await (await fetch(url)).blob());
  }

  protected async svg(): Promise<void> {
    const svg = await this.chart().svg();
    if (svg) download('capture.svg', new Blob([svg], { type: 'image/svg+xml' }));
  }
}
