import { must, nth } from '@core/quantity/must';
import { own } from '@core/quantity/own';
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { NzTableModule } from 'ng-zorro-antd/table';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { bankThing } from '@core/facts/thing';
import { limitsOf } from '@core/drive/carrier';
import { compensate, type CompensationStep, compensatingIdlers } from '@core/drive/compensate';
import { moveBanks } from '@core/drive/move';
import { estimateBanks, stackEffect } from '@core/drive/stack-height';
import { CaseDesk } from '../../data/case-desk';
import { DialField } from '../../ui/dial-field';
import { settingsSentence } from '../../messages/drive';
import { inverseSentence, signed } from '../../messages/drive-results';
import { list } from '../../language/list';
import { DriveStore } from '../drive-store';

/** Heads, block and gasket: what machining does to each cam, how much it was, and what idlers can put right. */
@Component({
  selector: 'hs-heads-panel',
  imports: [NzTableModule, NzButtonComponent, DialField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (b of banks(); track b.id) {
      <hs-dial-field
        [label]="b.name + ' nearer by'"
        unit="mm"
        [min]="-2"
        [max]="3"
        [step]="0.05"
        [value]="b.mm"
        (turned)="machine(b.id, $event)"
      />
    } @empty {
      <p class="quiet">This stage has no head that could come nearer.</p>
    }
    @if (banks().length) {
      <p class="quiet">Head, block and gasket together. A thicker gasket counts minus.</p>
      @if (effect(); as e) {
        <nz-table nzTemplateMode nzSize="small">
          <thead>
            <tr>
              <th>Cam</th>
              <th class="num">wheel °</th>
              <th class="num">crank °</th>
              <th class="num">teeth</th>
            </tr>
          </thead>
          <tbody>
            @for (r of e.rows; track r.name) {
              <tr>
                <td>{{ r.name }}</td>
                <td class="num">{{ r.wheel }}</td>
                <td class="num">{{ r.crank }}</td>
                <td class="num">{{ r.teeth }}</td>
              </tr>
            }
          </tbody>
        </nz-table>
        <p>{{ e.words }}</p>
      }
      @if (trouble()) {
        <p class="caution">{{ trouble() }}</p>
      }
      <h3>How much was taken off?</h3>
      <p>{{ inverse().words }}</p>
      @if (inverse().mm; as mm) {
        <div class="row">
          <button nz-button (click)="use(mm)">Try this</button>
          @if (store.inCase()) {
            <button nz-button nzType="primary" (click)="file(mm)">File it</button>
          }
        </div>
      }
      <h3>Put right with eccentric idlers</h3>
      @if (idlers().length === 0) {
        <p class="quiet">No eccentric idler in this stage.</p>
      } @else {
        @for (i of idlers(); track i.id) {
          <hs-dial-field
            [label]="i.name"
            unit="°"
            [min]="i.from"
            [max]="i.to"
            [step]="0.5"
            [digits]="1"
            [value]="i.reading"
            (turned)="turnIdler(i.id, $event)"
          />
        }
        <button nz-button nzType="primary" (click)="compensate()">Compute and set the idlers</button>
        <ol>
          @for (s of plan(); track $index) {
            <li [class.out]="!s.inRange">{{ stepWords(s) }}</li>
          }
        </ol>
      }
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
      align-content: start;
      grid-template-columns: minmax(0, 1fr);
    }
    ol {
      margin: 0;
      padding-left: 20px;
    }
    .out {
      font-weight: 600;
      color: var(--brass-ink);
    }
  `,
})
export class HeadsPanel {
  protected readonly store = inject(DriveStore);
  private readonly desk = inject(CaseDesk);
  protected readonly banks = computed(() =>
    (this.store.layout()?.banks ?? []).map((b) => ({ ...b, mm: own(this.store.what().nearerMm, b.id) ?? 0 })),
  );
  private readonly computed = computed(() => {
    const layout = this.store.layout();
    return layout ? stackEffect(layout, this.store.what().nearerMm) : undefined;
  });
  protected readonly trouble = computed(() => {
    const [c, layout] = [this.computed(), this.store.layout()];
    return c && !c.ok && layout ? settingsSentence(layout, c.error) : '';
  });
  protected readonly effect = computed(() => {
    const [c, layout] = [this.computed(), this.store.layout()];
    if (!c?.ok || !layout) return undefined;
    const { changeTeeth, slackMm, reading } = c.value;
    return {
      rows: changeTeeth.map((x) => ({
        name: nth(layout.wheels, x.wheel).name,
        wheel: signed(x.wheelDeg),
        crank: signed(x.driverDeg),
        teeth: signed(x.teeth, 3),
      })),
      words: `Advanced is plus. ${slackMm.toFixed(2)} mm of ${layout.kind} becomes slack${reading ? `; the tensioner goes from ${reading.before.toFixed(1)} to ${reading.after.toFixed(1)}` : ''}.`,
    };
  });
  protected readonly inverse = computed(() => {
    const layout = this.store.layout();
    if (!layout) return { words: '', mm: undefined };
    const seen = [...this.store.seen()].map(([id, s]) => ({
      wheel: layout.wheels.findIndex((w) => w.id === id),
      teeth: s.teeth,
      u: s.u > 0 ? s.u : 0.01,
    }));
    const est = estimateBanks(layout, seen);
    if (!est.ok)
      return { words: `${inverseSentence(layout, est.error)} Marks are entered under Marks.`, mm: undefined };
    const parts = est.value.banks.map(
      (b) =>
        `${must(must(layout.banks).find((x) => x.id === b.id)).name} ${b.nearerMm.toFixed(2)} ± ${b.u.toFixed(2)} mm nearer`,
    );
    const poor = est.value.freedom > 0 && est.value.chi2 > 4 * est.value.freedom;
    return {
      words: `${parts.join(', ')}${poor ? '. ▲ The marks do not agree with each other: check them.' : '.'}`,
      mm: est.value.banks.map((b) => ({ id: b.id, mm: b.nearerMm, u: b.u })),
    };
  });
  protected readonly idlers = computed(() => {
    const layout = this.store.layout();
    if (!layout) return [];
    return compensatingIdlers(layout).map(({ idler }) => {
      const w = nth(layout.wheels, idler);
      const { from, to, nominal } = limitsOf(must(w.carrier)).window;
      return { id: w.id, name: w.name, from, to, reading: own(this.store.what().idlers, w.id) ?? nominal };
    });
  });
  protected readonly plan = computed<CompensationStep[]>(() => {
    const layout = this.store.layout();
    if (!layout) return [];
    const { nearerMm, elongation } = this.store.what();
    const plan = compensate(layout, moveBanks(layout, nearerMm), elongation);
    return plan.ok ? plan.value.steps : [];
  });

  protected stepWords(s: CompensationStep): string {
    const layout = must(this.store.layout());
    const [idler, cam] = [nth(layout.wheels, s.idler).name, nth(layout.wheels, s.cam).name];
    const others = s.settings.filter((r) => r !== s.toReading).map((r) => `${r.toFixed(1)}°`);
    return s.inRange
      ? `Turn “${idler}” from ${s.fromReading.toFixed(0)}° to ${s.toReading.toFixed(1)}°: ${cam} is back in place.${others.length ? ` So it is at ${list(others)}.` : ''}`
      : `▲ “${idler}” is out of range: at ${s.toReading.toFixed(0)}° ${cam} still stands ${signed(s.residualDeg)}° of its wheel off.`;
  }

  protected machine(id: string, mm: number): void {
    this.store.set({ nearerMm: { ...this.store.what().nearerMm, [id]: mm } });
  }

  protected turnIdler(id: string, reading: number): void {
    this.store.set({ idlers: { ...this.store.what().idlers, [id]: reading } });
  }

  protected compensate(): void {
    const layout = must(this.store.layout());
    const idlers = Object.fromEntries(this.plan().map((s) => [nth(layout.wheels, s.idler).id, s.toReading]));
    this.store.set({ idlers });
  }

  protected use(mm: readonly { id: string; mm: number }[]): void {
    this.store.set({ nearerMm: Object.fromEntries(mm.map((b) => [b.id, b.mm])) });
  }

  protected async file(mm: readonly { id: string; mm: number; u: number }[]): Promise<void> {
    const basis = [...this.store.seen().values()].flatMap((s) => (s.fact ? [s.fact] : []));
    for (const b of mm) {
      const value = Math.round(b.mm * 1000) / 1000;
      await this.desk.file({
        key: 'bank.nearer',
        about: bankThing(b.id),
        value,
        u: b.u,
        how: 'computed',
        basis,
      });
    }
  }
}
