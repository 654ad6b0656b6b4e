import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import type { Suspect } from '@core/answer/why';
import { PracticeBench } from '../../data/practice-bench';
import { percent } from '../../messages/answers';
import { faultWording, stepName } from '../../messages/fitting';
import { FitStore, type Went } from './fit-store';

/** Suspects shown: more than this nobody asks about on one call. */
const MOST = 8;
const STATE = { shown: '▲ the sheet shows it', confirmed: '✓ confirmed', open: '? not said' } as const;

/** Which steps could have led to what is seen, most likely first, each with the one question to ask the fitter. */
@Component({
  selector: 'hs-why-panel',
  imports: [NzButtonComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (practising()) {
      <p class="lead quiet">Practice: what the desk thinks went wrong is kept back until your verdict.</p>
    } @else if (!known()) {
      <section class="card">
        <h2>Nothing to explain yet</h2>
        <p>
          File a complaint’s finding, a mark, a look at a part, or take a filled sheet in: then the steps that
          could have led to it stand here, most likely first.
        </p>
      </section>
    } @else {
      <p class="lead quiet">{{ total() }}</p>
      @for (s of list(); track s.at.step.id; let i = $index) {
        <section class="card" [attr.aria-label]="s.name">
          <h2>
            <span class="mono">{{ i + 1 }}</span> {{ s.name }} <small>{{ s.share }} · {{ s.state }}</small>
          </h2>
          <p class="ask">“{{ s.ask }}”</p>
          <p class="quiet">{{ s.faults }}</p>
          <div class="row">
            <button nz-button nzSize="small" (click)="tell(s.at, 'done')">Done right</button>
            <button nz-button nzSize="small" (click)="tell(s.at, 'skipped')">Not done</button>
            <button nz-button nzSize="small" (click)="tell(s.at, 'wrong')">Otherwise</button>
          </div>
        </section>
      } @empty {
        <section class="card">
          <p>No step of this drive’s sheet leads to a cause that is weighed here.</p>
        </section>
      }
    }
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(340px, 1fr));
      gap: var(--gap);
      align-items: start;
    }
    section {
      display: grid;
      gap: 4px;
    }
    .lead {
      grid-column: 1 / -1;
    }
    .ask {
      font-size: 1.15em;
      font-weight: 600;
    }
    p {
      margin: 0;
    }
  `,
})
export class WhyPanel {
  protected readonly practising = inject(PracticeBench).undecided;
  private readonly store = inject(FitStore);
  /** With no finding at all the list would be of priors: nobody is accused by that. */
  protected readonly known = computed(() => (this.store.answers()?.findings.length ?? 0) > 0);
  protected readonly list = computed(() => {
    const sheet = this.store.sheet();
    const all: readonly Suspect[] = this.store.answers()?.why ?? [];
    if (!sheet) return [];
    return all.slice(0, MOST).map((at) => ({
      at,
      name: stepName(sheet, at.step.id).replace(/^s/, 'S'),
      share: percent(at.share),
      state: STATE[at.state],
      ask: at.step.ask ?? `Can you confirm this: ${at.step.proof?.text ?? at.step.text}`,
      faults: at.codes.map((c) => `${c} ${faultWording(c)}`).join(' · '),
    }));
  });

  /** How much of the weight falls on the fitting at all, and what leads. */
  protected readonly total = computed(() => {
    const a = this.store.answers();
    const share = (a?.why ?? []).reduce((sum, s) => sum + s.share, 0);
    const leader = a?.ranking.causes[0];
    if (!leader) return '';
    return `${percent(share)} of the weight falls on steps of this sheet. ${leader.cause.wording} leads with ${percent(leader.probability)}.`;
  });

  protected tell(s: Suspect, went: Went): void {
    this.store.pick(s.step.id);
    if (this.store.said(s.step.id) !== went) void this.store.tell(s.step, went);
  }
}
