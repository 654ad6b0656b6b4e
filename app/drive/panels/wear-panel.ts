import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { NzTableModule } from 'ng-zorro-antd/table';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { elongationOf } from '@core/bench/extension';
import { limitsOf, readingUnit } from '@core/drive/carrier';
import { tensionerIndex } from '@core/drive/layout';
import { crankOffsets } from '@core/drive/stages';
import { extensionRemainder, wearState } from '@core/drive/wear';
import { measuredOf, standing } from '@core/facts/read';
import { CaseDesk } from '../../data/case-desk';
import { DialField } from '../../ui/dial-field';
import { DeskSession } from '../../entry/desk-session';
import { Field } from '../../entry/field';
import { readingWords, settingsSentence } from '../../words/drive';
import { endsWords, signed } from '../../words/drive-bench';
import { BenchStore } from '../bench-store';

/** How well a reading is taken that is only tried, degrees or mm. */
const TRIED_U = 0.2;

const VERDICTS = {
  explained: '✓ The length of the chain explains the reading.',
  more: '▲ More than its length explains: worn guides, a wrong part, or a mounting that slipped.',
  less: '▲ Less than its length needs: a ratchet that let go, or a plunger that did not follow.',
};

/** Elongation against cams and tensioner, stage by stage; what is left over is guide wear. */
@Component({
  selector: 'hs-wear-panel',
  imports: [NzTableModule, NzButtonComponent, DialField, Field],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <hs-dial-field
      label="Longer than new by"
      unit="%"
      [min]="0"
      [max]="1.2"
      [step]="0.01"
      [value]="bench.what().elongation * 100"
      (turned)="bench.set({ elongation: $event / 100 })"
    />
    @if (bench.inCase() && plunger()) {
      <hs-field [session]="session" key="tensioner.extension" />
      <hs-field [session]="session" key="chain.length" />
      <hs-field [session]="session" key="chain.links_over" />
      @if (measured(); as m) {
        <p>
          Measured elongation <b>{{ m.words }}</b
          >.
          <button nz-button (click)="bench.set({ elongation: m.value })">Draw it so</button>
        </p>
      }
    } @else if (carrier()) {
      <hs-dial-field
        label="Reading found"
        [unit]="unit()"
        [min]="range().min"
        [max]="range().max"
        [step]="0.1"
        [digits]="1"
        [value]="found()"
        (turned)="found.set($event)"
      />
    }
    @if (trouble()) {
      <p class="caution">{{ trouble() }}</p>
    }
    @for (w of words(); track $index) {
      <div>{{ w }}</div>
    }
    <nz-table nzTemplateMode nzSize="small">
      <thead>
        <tr>
          <th>Late by wear, all stages</th>
          <th class="num">crank °</th>
        </tr>
      </thead>
      <tbody>
        @for (r of cams(); track r.name) {
          <tr>
            <td>{{ r.name }}</td>
            <td class="num">{{ r.deg }}</td>
          </tr>
        }
      </tbody>
    </nz-table>
    @if (rest(); as r) {
      <h3>Reading against elongation</h3>
      <div>Explained by elongation: {{ r.expected }}. Left over: {{ r.remainder }}.</div>
      <p>
        <b>{{ r.verdict }}</b>
      </p>
      @if (r.wear) {
        <p>
          As even wear of the guides it is <b>{{ r.wear.words }}</b
          >.
        </p>
        @if (bench.inCase()) {
          <button nz-button nzType="primary" (click)="file(r.wear.mm, r.wear.u)">File the guide wear</button>
        }
        <p class="caution">
          What is worn off a guide lies in the sump or the oil pickup: clean both before the engine runs.
        </p>
      }
    }
  `,
  styles: ':host { display: grid; gap: 8px; align-content: start; grid-template-columns: minmax(0, 1fr); }',
})
export class WearPanel {
  protected readonly session = inject(DeskSession);
  protected readonly bench = inject(BenchStore);
  private readonly desk = inject(CaseDesk);
  /** Reading found, tried without a case. */
  protected readonly found = signal<number | undefined>(undefined);
  protected readonly carrier = computed(() => {
    const layout = this.bench.layout();
    return layout?.wheels[tensionerIndex(layout)]?.carrier;
  });
  protected readonly plunger = computed(() => this.unit() === 'mm');
  protected readonly unit = computed(() => (this.carrier() ? readingUnit(this.carrier()!) : ''));
  protected readonly range = computed(() => {
    const c = this.carrier();
    if (!c) return { min: 0, max: 1 };
    return c.kind === 'eccentric' ? { min: -180, max: 180 } : { min: 0, max: limitsOf(c).end + 10 };
  });
  private readonly own = computed(() => {
    const [state, layout] = [this.desk.current()?.state, this.bench.layout()];
    return this.bench.inCase() && state && layout
      ? elongationOf(state, this.desk.registry(), layout.pitchMm)
      : undefined;
  });
  protected readonly measured = computed(() => {
    const e = this.own();
    return e && { value: e.value, words: `${(e.value * 100).toFixed(2)} ± ${(e.u * 100).toFixed(2)} %` };
  });
  private readonly wear = computed(() => {
    const layout = this.bench.layout();
    return layout ? wearState(layout, this.bench.what().elongation) : undefined;
  });
  protected readonly trouble = computed(() => {
    const [w, layout] = [this.wear(), this.bench.layout()];
    return w && !w.ok && layout ? settingsSentence(layout, w.error) : '';
  });
  protected readonly words = computed(() => {
    const [w, layout, c] = [this.wear(), this.bench.layout(), this.carrier()];
    if (!w?.ok || !layout) return [];
    const out: string[] = [];
    if (w.value.reading && c)
      out.push(
        `Tensioner: ${readingWords(c, w.value.reading.fresh)} new, ${readingWords(c, w.value.reading.worn)} in this state.`,
      );
    if (w.value.endsAt !== undefined) out.push(endsWords(layout, w.value));
    if (layout.elongationLimit !== undefined) {
      const past = this.bench.what().elongation > layout.elongationLimit;
      out.push(`${past ? '▲ Past' : 'Within'} the limit of ${(layout.elongationLimit * 100).toFixed(2)} %.`);
    }
    return out;
  });
  /** Every stage worn alike: what a cam loses is its own stage's part and what its shaft brings along. */
  protected readonly cams = computed(() => {
    const stages = this.bench.stages();
    const e = this.bench.what().elongation;
    const phases = stages.map((s) => {
      const w = wearState(s.layout, e);
      return w.ok ? w.value.cams : [];
    });
    return crankOffsets(stages, phases).flatMap((o) => {
      const wheel = stages[o.stage]!.layout.wheels[o.wheel]!;
      return wheel.role === 'cam' ? [{ name: wheel.name, deg: signed(o.crankDeg, 2) }] : [];
    });
  });
  protected readonly rest = computed(() => {
    const [layout, c] = [this.bench.layout(), this.carrier()];
    if (!layout || !c) return undefined;
    const state = this.desk.current()?.state;
    const inCase = this.bench.inCase();
    const measured =
      inCase && state ? measuredOf(state, this.desk.registry(), 'tensioner.extension') : undefined;
    const value = inCase ? measured?.value : this.found();
    const u = measured?.u ?? TRIED_U;
    const e = inCase ? this.own() : { value: this.bench.what().elongation, u: 0.0002 };
    if (value === undefined || !e || (inCase && !this.plunger())) return undefined;
    const r = extensionRemainder(layout, { value, u }, e);
    if (!r.ok) return undefined;
    const pm = (m: { value: number; u: number }) =>
      `${m.value.toFixed(1)} ± ${m.u.toFixed(1)} ${this.unit()}`;
    const { expected, remainder, verdict, guideWear } = r.value;
    return {
      expected: pm(expected),
      remainder: pm(remainder),
      verdict: VERDICTS[verdict],
      wear:
        verdict === 'more' && guideWear
          ? {
              mm: guideWear.value,
              u: guideWear.u,
              words: `${guideWear.value.toFixed(1)} mm (${Math.max(0, guideWear.value - 2 * guideWear.u).toFixed(1)} to ${(guideWear.value + 2 * guideWear.u).toFixed(1)} mm)`,
            }
          : undefined,
    };
  });

  protected file(mm: number, u: number): void {
    const state = this.desk.current()?.state;
    const basis = ['tensioner.extension', 'chain.length', 'chain.links_over']
      .map((k) => state && standing(state, k)?.id)
      .filter((id) => id !== undefined);
    const round = (v: number) => Math.round(v * 100) / 100;
    void this.desk.file({ key: 'guide.wear', value: round(mm), u: round(u), how: 'computed', basis });
  }
}
