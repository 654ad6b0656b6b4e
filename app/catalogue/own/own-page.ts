import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { OWN_STEPS, type OwnStep } from '@core/catalogue/own-faults';
import { Cases } from '../../data/cases';
import { ownFaultWords } from '../../messages/own-engine';
import { Segmented } from '../../ui/segmented';
import { CheckStep } from './check-step';
import { DesignsStep } from './designs-step';
import { DriveStep } from './drive-step';
import { EngineStep } from './engine-step';
import { KitStep } from './kit-step';
import { OwnStore, STEP_WORDS } from './own-store';

type Step = OwnStep | 'check';
const STEPS: readonly Step[] = [...OWN_STEPS, 'check'];

/** An engine of one's own, step by step: typed in, its drive drawn up from a photograph, checked, and taken into the catalogue. */
@Component({
  selector: 'hs-own-page',
  imports: [CheckStep, DesignsStep, DriveStep, EngineStep, KitStep, NzButtonComponent, RouterLink, Segmented],
  providers: [OwnStore],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <main>
      <header>
        <div class="row">
          <h1>Enter an engine</h1>
          <span class="quiet"
            >Everything is kept as you type. Nothing answers with it before you take it in.</span
          >
          <span class="grow"></span>
          <a routerLink="/catalogue">To the catalogue</a>
        </div>
        <div class="row">
          <hs-segmented label="Step" [options]="steps()" [value]="step()" (picked)="step.set($event)" />
          <span class="lack" aria-live="polite">{{ lack() }}</span>
          <span class="grow"></span>
          @if (nextStep(); as n) {
            <button nz-button nzType="primary" (click)="step.set(n)">Next: {{ words[n] }}</button>
          }
        </div>
      </header>
      <div class="body">
        @switch (step()) {
          @case ('engine') {
            <hs-engine-step />
          }
          @case ('designs') {
            <hs-designs-step />
          }
          @case ('drive') {
            <hs-drive-step />
          }
          @case ('kit') {
            <hs-kit-step />
          }
          @case ('check') {
            <hs-check-step />
          }
        }
      </div>
    </main>
  `,
  styles: `
    :host {
      display: block;
      height: 100%;
    }
    main {
      display: grid;
      grid-template-rows: auto minmax(0, 1fr);
      gap: var(--gap);
      height: 100%;
      padding: 12px 14px;
    }
    header {
      display: grid;
      gap: 6px;
    }
    .body {
      min-height: 0;
      overflow: auto;
    }
    .grow {
      flex: 1;
    }
    .lack {
      color: var(--brass-ink);
    }
    @media (max-width: 1000px) {
      :host {
        overflow: auto;
      }
      main {
        display: block;
        height: auto;
      }
      header {
        margin-bottom: var(--gap);
      }
    }
  `,
})
export class OwnPage {
  protected readonly store = inject(OwnStore);
  protected readonly words = STEP_WORDS;
  protected readonly step = signal<Step>('engine');
  protected readonly steps = computed(() => {
    const standing = this.store.standing();
    return STEPS.map((value) => {
      const done = value === 'check' ? false : standing.find((s) => s.step === value)?.done;
      return { value, label: `${done ? '✓ ' : ''}${STEP_WORDS[value]}` };
    });
  });
  /** The first thing that this step still lacks. */
  protected readonly lack = computed(() => {
    const fault = this.store.faults().find((f) => f.step === this.step());
    return fault ? ownFaultWords(fault) : '';
  });
  protected readonly nextStep = computed(() => STEPS[STEPS.indexOf(this.step()) + 1]);

  constructor() {
    inject(Cases).putBack();
  }
}
