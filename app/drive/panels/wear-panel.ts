import { must, nth } from '@core/quantity/must';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { NzTableModule } from 'ng-zorro-antd/table';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import type { ExtensionAnswer } from '@core/examination/extension';
import { limitsOf, readingUnit } from '@core/drive/carrier';
import { tensionerIndex } from '@core/drive/layout';
import { crankOffsets } from '@core/drive/stages';
import { extensionRemainder, type WearReading, wearState } from '@core/drive/wear';
import { CaseDesk } from '../../data/case-desk';
import { DialField } from '../../ui/dial-field';
import { DeskSession } from '../../entry/desk-session';
import { Field } from '../../entry/field';
import { extensionWords, guideWearWords, readingWords, settingsSentence } from '../../messages/drive';
import { endsWords, signed } from '../../messages/drive-results';
import { elongationWords } from '../../messages/reuse';
import { DriveStore } from '../drive-store';

/** How well a reading is taken that is only tried, degrees or mm. */
const TRIED_U = 0.2;
/** Standard uncertainty of an elongation that is only tried. */
const TRIED_SHARE = 0.0002;

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
      [value]="store.what().elongation * 100"
      (turned)="store.set({ elongation: $event / 100 })"
    />
    @if (store.inCase() && plunger()) {
      <hs-field [session]="session" key="tensioner.extension" [about]="thing('tensioner')" />
      <hs-field [session]="session" key="chain.length" [about]="thing('chain')" />
      <hs-field [session]="session" key="chain.links_over" [about]="thing('chain')" />
      @if (measured(); as m) {
        <p>
          Measured: <b>{{ m.words }}</b
          >.
          <button nz-button (click)="store.set({ elongation: m.value })">Draw it so</button>
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
      <p>
        <b>{{ r.words }}</b>
      </p>
      @if (r.wear) {
        <p>{{ r.wearWords }}</p>
        @if (store.inCase()) {
          <button nz-button nzType="primary" (click)="file(r.wear, r.facts)">File the guide wear</button>
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
  protected readonly store = inject(DriveStore);
  private readonly desk = inject(CaseDesk);
  /** Reading found, tried without a case. */
  protected readonly found = signal<number | undefined>(undefined);
  protected readonly carrier = computed(() => {
    const layout = this.store.layout();
    return layout?.wheels[tensionerIndex(layout)]?.carrier;
  });
  protected readonly plunger = computed(() => this.unit() === 'mm');
  protected readonly unit = computed(() => (this.carrier() ? readingUnit(must(this.carrier())) : ''));
  protected readonly range = computed(() => {
    const c = this.carrier();
    if (!c) return { min: 0, max: 1 };
    return c.kind === 'eccentric' ? { min: -180, max: 180 } : { min: 0, max: limitsOf(c).end + 10 };
  });
  /** What the case's answers say of this stage: the same elongation and extension as at every station. */
  private readonly own = computed(() => {
    const drive = this.store.inCase() ? this.desk.current()?.answers?.drive : undefined;
    const at = this.store.stageAt();
    return {
      length: drive?.elongations.find((e) => e.stage === at),
      extension: drive?.extensions.find((e) => e.stage === at),
      tensioner: drive?.tensioners.find((t) => t.stage === at),
    };
  });
  protected readonly measured = computed(() => {
    const e = this.own().length;
    return e && { value: e.elongation.value, words: elongationWords(e) };
  });
  private readonly wear = computed(() => {
    const layout = this.store.layout();
    return layout ? wearState(layout, this.store.what().elongation) : undefined;
  });
  protected readonly trouble = computed(() => {
    const [w, layout] = [this.wear(), this.store.layout()];
    return w && !w.ok && layout ? settingsSentence(layout, w.error) : '';
  });
  protected readonly words = computed(() => {
    const [w, layout, c] = [this.wear(), this.store.layout(), this.carrier()];
    if (!w?.ok || !layout) return [];
    const out: string[] = [];
    if (w.value.reading && c)
      out.push(
        `Tensioner: ${readingWords(c, w.value.reading.fresh)} new, ${readingWords(c, w.value.reading.worn)} in this state.`,
      );
    if (w.value.endsAt !== undefined) out.push(endsWords(layout, w.value));
    if (layout.elongationLimit !== undefined) {
      const past = this.store.what().elongation > layout.elongationLimit;
      out.push(`${past ? '▲ Past' : 'Within'} the limit of ${(layout.elongationLimit * 100).toFixed(2)} %.`);
    }
    return out;
  });
  /** Every stage worn alike: what a cam loses is its own stage's part and what its shaft brings along. */
  protected readonly cams = computed(() => {
    const stages = this.store.stages();
    const e = this.store.what().elongation;
    const phases = stages.map((s) => {
      const w = wearState(s.layout, e);
      return w.ok ? w.value.cams : [];
    });
    return crankOffsets(stages, phases).flatMap((o) => {
      const wheel = nth(nth(stages, o.stage).layout.wheels, o.wheel);
      return wheel.role === 'cam' ? [{ name: wheel.name, deg: signed(o.crankDeg, 2) }] : [];
    });
  });
  protected readonly rest = computed(() => {
    const answer = this.store.inCase() ? this.own().extension : this.tried();
    const [layout, rest] = [this.store.layout(), answer?.rest];
    if (!layout || !answer || !rest) return undefined;
    const wear = rest.verdict === 'more' ? rest.guideWear : undefined;
    return {
      words: extensionWords(layout, answer),
      wear,
      wearWords: guideWearWords(answer),
      facts: answer.facts,
    };
  });
  /** A reading tried without a case, against the elongation that is tried. */
  private readonly tried = computed((): ExtensionAnswer | undefined => {
    const [layout, value] = [this.store.layout(), this.found()];
    if (!layout || value === undefined) return undefined;
    const reading = { value, u: TRIED_U };
    const rest = extensionRemainder(layout, reading, { value: this.store.what().elongation, u: TRIED_SHARE });
    return { about: '', stage: 0, facts: [], reading, ...(rest.ok ? { rest: rest.value } : {}) };
  });

  /** The returned part of that kind that belongs to this stage; a further stage's is named there. */
  protected thing(kind: 'tensioner' | 'chain'): string | undefined {
    const { length, tensioner } = this.own();
    const about = kind === 'chain' ? length?.about : tensioner?.about;
    return about === undefined || about === '' ? undefined : about;
  }

  protected file({ value, u }: WearReading, basis: readonly string[]): void {
    const round = (v: number) => Math.round(v * 100) / 100;
    void this.desk.file({
      key: 'guide.wear',
      value: round(value),
      u: round(u),
      how: 'computed',
      basis: [...basis],
    });
  }
}
