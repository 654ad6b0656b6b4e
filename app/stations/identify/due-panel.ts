import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { dueOf } from '@core/catalogue/due';
import { textOf } from '@core/facts/read';
import { CaseDesk } from '../../data/case-desk';
import { Clock } from '../../data/clock';
import { DeskSettingsStore } from '../../data/desk-settings';
import { Papers } from '../../commands/papers';
import { DeskSession } from '../../entry/desk-session';
import { Field } from '../../entry/field';
import { distance } from '../../messages/answers';
import { dueWords, RUNS_BACK } from '../../messages/jobs';

/** When the next change is due, and the label that says so. */
@Component({
  selector: 'hs-due-panel',
  imports: [NzButtonComponent, Field],
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
      <hs-field [session]="session" key="kit.fitted" />
      <hs-field [session]="session" key="kit.fitted_odometer" />
      <hs-field [session]="session" key="vehicle.yearly" />
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
  protected readonly session = inject(DeskSession);
  private readonly desk = inject(CaseDesk);
  private readonly clock = inject(Clock);
  private readonly settings = inject(DeskSettingsStore);
  private readonly papers = inject(Papers);
  private readonly vehicle = computed(() => {
    const state = this.desk.current()?.state;
    return state ? textOf(state, 'vehicle.name') : undefined;
  });
  private readonly answer = computed(() => {
    const view = this.desk.current();
    const engine = view?.answers?.engine;
    return view?.catalogue && engine
      ? dueOf(view.catalogue.pack.intervals, engine.code, view.state, this.clock.today())
      : undefined;
  });
  protected readonly interval = computed(() => this.answer()?.interval);
  protected readonly shortest = computed(
    () =>
      !this.vehicle()
        ?.toLowerCase()
        .includes(this.interval()?.vehicle.toLowerCase() ?? ' '),
  );
  protected readonly words = computed(() => {
    const a = this.answer();
    if (a?.runsBack) return [RUNS_BACK];
    return a?.due ? dueWords(a.due, this.settings.notation()) : [];
  });
  protected readonly label = computed(() => {
    const view = this.desk.current();
    const { due, fitted } = this.answer() ?? {};
    const a = view?.answers;
    if (!due || !fitted || !a?.engine) return undefined;
    const parts = a.kit?.contents.map((c) => view?.catalogue?.parts.get(c.part)?.name ?? c.part) ?? [
      'Timing drive',
    ];
    return {
      engine: a.engine.code,
      vehicle: this.vehicle() ?? '',
      fittedDay: fitted.day,
      ...(fitted.monthOnly ? { monthOnly: true } : {}),
      fittedKm: fitted.km,
      parts,
      due,
      step: this.settings.settings().labelStep,
    };
  });

  protected dist(km: number): string {
    return distance(km, this.settings.notation());
  }

  protected print(as: 'svg' | 'pdf'): void {
    const [model, tag] = [this.label(), this.desk.current()?.tag];
    if (model && tag) void this.papers.label(tag, model, as);
  }
}
