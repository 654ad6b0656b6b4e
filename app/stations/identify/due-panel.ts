import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { intervalFor, nextDue } from '@core/catalogue/interval';
import { numberOf, textOf } from '@core/facts/read';
import { CaseDesk } from '../../data/case-desk';
import { Clock } from '../../data/clock';
import { HouseStore } from '../../data/house';
import { Papers } from '../../acts/papers';
import { FactField } from '../../entry/fact-field';
import { distance } from '../../words/answers';
import { dueWords } from '../../words/jobs';

/** When the next change is due, and the label that says so. */
@Component({
  selector: 'hs-due-panel',
  imports: [NzButtonComponent, FactField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="card" aria-label="Interval">
      <h2>Interval</h2>
      @if (interval(); as i) {
        <p>
          {{ i.vehicle }}: every {{ dist(i.km) }} or {{ i.months }} months.
          @if (shortest()) {
            <span class="quiet"
              >No vehicle of this case is listed, so the engine’s shortest interval is taken.</span
            >
          }
        </p>
        @for (w of words(); track w) {
          <div>{{ w }}</div>
        } @empty {
          <p class="quiet">With the day and distance of the last fitting the next one is computed.</p>
        }
      } @else {
        <p class="quiet">
          The catalogue gives no interval for this engine. Ask the vehicle maker’s schedule.
        </p>
      }
      <hs-fact-field key="kit.fitted" />
      <hs-fact-field key="kit.fitted_odometer" />
      <hs-fact-field key="vehicle.yearly" />
      @if (label()) {
        <div class="row">
          <button nz-button (click)="print('svg')">Label SVG</button>
          <button nz-button (click)="print('pdf')">Label PDF</button>
        </div>
      }
    </section>
  `,
  styles: 'section { display: grid; gap: 4px; }',
})
export class DuePanel {
  private readonly desk = inject(CaseDesk);
  private readonly clock = inject(Clock);
  private readonly house = inject(HouseStore);
  private readonly papers = inject(Papers);
  private readonly vehicle = computed(() => {
    const state = this.desk.current()?.state;
    return state ? textOf(state, 'vehicle.name') : undefined;
  });
  protected readonly interval = computed(() => {
    const view = this.desk.current();
    const engine = view?.answers?.engine;
    return view?.catalogue && engine
      ? intervalFor(view.catalogue.pack.intervals, engine.code, this.vehicle())
      : undefined;
  });
  protected readonly shortest = computed(
    () =>
      !this.vehicle()
        ?.toLowerCase()
        .includes(this.interval()?.vehicle.toLowerCase() ?? ' '),
  );
  private readonly fitted = computed(() => {
    const state = this.desk.current()?.state;
    const day = state && textOf(state, 'kit.fitted');
    const km = state && numberOf(state, 'kit.fitted_odometer');
    return day !== undefined && km !== undefined ? { day, km } : undefined;
  });
  private readonly due = computed(() => {
    const [interval, fitted, state] = [this.interval(), this.fitted(), this.desk.current()?.state];
    if (!interval || !fitted || !state) return undefined;
    return nextDue(
      interval,
      fitted,
      { day: this.clock.today(), km: numberOf(state, 'vehicle.odometer') },
      numberOf(state, 'vehicle.yearly'),
    );
  });
  protected readonly words = computed(() => {
    const due = this.due();
    return due ? dueWords(due, this.house.house()) : [];
  });
  protected readonly label = computed(() => {
    const view = this.desk.current();
    const [due, fitted, a] = [this.due(), this.fitted(), view?.answers];
    if (!due || !fitted || !a?.engine) return undefined;
    const parts = a.kit?.contents.map((c) => view?.catalogue?.parts.get(c.part)?.name ?? c.part) ?? [
      'Timing drive',
    ];
    return {
      engine: a.engine.code,
      vehicle: this.vehicle() ?? '',
      fittedDay: fitted.day,
      fittedKm: fitted.km,
      parts,
      due,
      step: this.house.settings().labelStep,
    };
  });

  protected dist(km: number): string {
    return distance(km, this.house.house());
  }

  protected print(as: 'svg' | 'pdf'): void {
    const [model, tag] = [this.label(), this.desk.current()?.tag];
    if (model && tag) void this.papers.label(tag, model, as);
  }
}
