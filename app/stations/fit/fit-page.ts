import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { fitOpening } from '../../messages/openings';
import { Opening } from '../../ui/opening';
import { Segmented } from '../../ui/segmented';
import { CheckPanel } from './check-panel';
import { FitStore, type FitPanel } from './fit-store';
import { FitHeatPanel } from './heat-panel';
import { LostPanel } from './lost-panel';
import { SheetPanel } from './sheet-panel';
import { TorquePanel } from './torque-panel';
import { WhyPanel } from './why-panel';

/** The fitting: its sheet step by step, the check, and what helps on the phone. */
@Component({
  selector: 'hs-fit-page',
  imports: [
    CheckPanel,
    FitHeatPanel,
    LostPanel,
    Opening,
    RouterLink,
    Segmented,
    SheetPanel,
    TorquePanel,
    WhyPanel,
  ],
  providers: [FitStore],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (opening(); as o) {
      <hs-opening [says]="o.says" [next]="o.next" />
    }
    <hs-segmented
      label="At the fitting"
      [options]="panels"
      [value]="store.panel()"
      (picked)="store.panel.set($event)"
    />
    @switch (store.panel()) {
      @case ('sheet') {
        @if (store.sheet()) {
          <hs-sheet-panel />
        } @else {
          <section class="card">
            <h2>No sheet yet</h2>
            @if (other(); as name) {
              <p>
                The catalogue names “{{ name }}” for this design, but that is for another kind of drive. Work
                from the vehicle maker’s service information.
              </p>
            } @else if (designs()) {
              <p>
                The catalogue has no procedure for this design. Work from the vehicle maker’s service
                information; what can be computed stands under Check.
              </p>
            } @else {
              <p>Steps show as soon as one design of the drive is left.</p>
              <a [routerLink]="['..', 'identify']">Identify it</a>
            }
          </section>
          <hs-check-panel />
        }
      }
      @case ('check') {
        <hs-check-panel />
      }
      @case ('torque') {
        <hs-torque-panel />
      }
      @case ('heat') {
        <hs-heat-helper />
      }
      @case ('lost') {
        <hs-lost-panel />
      }
      @case ('why') {
        <hs-why-panel />
      }
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: var(--gap);
      align-content: start;
      grid-template-columns: minmax(0, 1fr);
    }
  `,
})
export class FitPage {
  protected readonly store = inject(FitStore);
  protected readonly panels: readonly { value: FitPanel; label: string }[] = [
    { value: 'sheet', label: 'Sheet' },
    { value: 'check', label: 'Check' },
    { value: 'torque', label: 'Torque' },
    { value: 'heat', label: 'Cold enough?' },
    { value: 'lost', label: 'Timing lost' },
    { value: 'why', label: 'What went wrong?' },
  ];
  protected readonly opening = computed(() => {
    const sheet = this.store.sheet();
    return sheet && fitOpening(sheet, this.store.fitted());
  });
  protected readonly other = computed(() => {
    const s = this.store.answers()?.sheet;
    return s?.status === 'other_kind' ? s.name : '';
  });
  protected readonly designs = computed(() => this.store.answers()?.variant !== undefined);
}
