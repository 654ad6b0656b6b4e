import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { CaseDesk } from '../../data/case-desk';
import { FactField } from '../../ui/fact-field';
import { settingWords } from '../../words/drive';

/** The procedure of this drive, caution at each step, and what was reported of the fitting. */
@Component({
  selector: 'hs-fit-page',
  imports: [FactField, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (procedure(); as p) {
      <section class="card">
        <h2>{{ p.name }}</h2>
        <p class="quiet">
          The vehicle maker’s service information, local rules and qualified people come first.
        </p>
        @if (setting(); as s) {
          <p><b>Setting:</b> {{ s }}</p>
        }
        <ol>
          @for (s of p.steps; track s.id) {
            <li>
              <b>{{ s.text }}</b>
              @if (s.torqueNm) {
                <span class="mono">{{ s.torqueNm }} N·m</span>
              }
              @if (s.proof) {
                <div class="quiet">Done when: {{ s.proof }}</div>
              }
              @if (s.fault) {
                <div class="quiet">Else: {{ s.fault }}</div>
              }
              @if (s.caution) {
                <div class="caution">{{ s.caution }}</div>
              }
            </li>
          }
        </ol>
      </section>
    } @else {
      <section class="card">
        <h2>No procedure yet</h2>
        <p>
          Steps show as soon as one design of the drive is left.
          <a [routerLink]="['..', 'identify']">Identify it</a>
        </p>
      </section>
    }
    <section class="card">
      <h2>How it was fitted</h2>
      @for (k of keys; track k) {
        <hs-fact-field [key]="k" />
      }
    </section>
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
      gap: var(--gap);
      align-items: start;
    }
    ol {
      padding-left: 26px;
      display: grid;
      gap: 7px;
    }
    @media (max-width: 1000px) {
      :host {
        grid-template-columns: 1fr;
      }
    }
  `,
})
export class FitPage {
  protected readonly desk = inject(CaseDesk);
  protected readonly keys = ['fit.engine_temp', 'fit.tightened', 'fit.turned'];
  protected readonly procedure = computed(() => this.desk.current()?.answers?.procedure);
  protected readonly setting = computed(() => {
    const d = this.desk.current()?.answers?.drive;
    return d?.carrier && d.right ? settingWords(d.carrier, d.right.reading) : undefined;
  });
}
