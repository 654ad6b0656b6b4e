import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { markKey } from '@core/catalogue/drive-observables';
import { markPhases } from '@core/drive/phase';
import { solveDrive } from '@core/drive/solve-drive';
import { CaseDesk } from '../../data/case-desk';
import { FactField } from '../../ui/fact-field';
import { offsetWords, verdictWords } from '../../words/drive-bench';
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
        <h2>No procedure here</h2>
        @if (known()) {
          <p>
            The catalogue has no procedure for this drive. Work from the vehicle maker’s service information;
            what can be computed stands beside.
          </p>
        } @else {
          <p>
            Steps show as soon as one design of the drive is left.
            <a [routerLink]="['..', 'identify']">Identify it</a>
          </p>
        }
      </section>
    }
    <div class="side">
      @if (setting(); as s) {
        <section class="card">
          <h2>Setting</h2>
          <p>{{ s }}</p>
        </section>
      }
      @if (marks().length) {
        <section class="card" aria-label="Marks of a correct fitting">
          <h2>
            Marks of a correct fitting <small><a [routerLink]="['..', 'drive']">On the drive bench</a></small>
          </h2>
          <p class="quiet">
            Computed from this drive, crank at its mark. Turn by hand as the procedure says before you look.
          </p>
          @for (m of marks(); track m.key) {
            <div>
              <b>{{ m.name }}</b
              >: {{ m.shows }}
            </div>
            <hs-fact-field [key]="m.key" />
            @if (m.verdict) {
              <div>
                <b>{{ m.verdict }}</b>
              </div>
            }
          }
          @if (go(); as g) {
            <p [class.caution]="g.bad">{{ g.words }}</p>
          }
        </section>
      }
      <section class="card">
        <h2>How it was fitted</h2>
        @for (k of keys; track k) {
          <hs-fact-field [key]="k" />
        }
      </section>
    </div>
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
      gap: var(--gap);
      align-items: start;
    }
    ol {
      padding-left: 26px;
      display: grid;
      gap: 7px;
    }
    .side {
      display: grid;
      gap: var(--gap);
    }
    section {
      display: grid;
      gap: 4px;
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
  private readonly drive = computed(() => this.desk.current()?.answers?.drive);
  protected readonly marks = computed(() => {
    const d = this.drive();
    return (d?.stages ?? []).flatMap(({ layout }, stage) => {
      const solved = solveDrive(layout);
      if (!solved.ok) return [];
      return markPhases(layout, solved.value)
        .filter((p) => layout.wheels[p.wheel]!.role === 'cam')
        .sort((a, b) => b.wheel - a.wheel)
        .map((p) => {
          const seen = d?.marks?.marks.find((m) => m.stage === stage && m.wheel === p.wheel);
          const w = layout.wheels[p.wheel]!;
          return {
            key: markKey(w.id),
            name: w.name,
            shows: offsetWords(p),
            verdict: seen ? verdictWords(seen.verdict) : '',
          };
        });
    });
  });
  protected readonly go = computed(() => {
    const m = this.drive()?.marks;
    if (!m) return undefined;
    const words = {
      go: 'Go: every mark looked at stands as it must.',
      no_go: 'No go. Do not start it; take all off and begin again at the locking step.',
      wait: 'Cannot tell from these readings: measure again.',
    };
    return { bad: m.go !== 'go', words: words[m.go] };
  });
  protected readonly known = computed(() => this.desk.current()?.answers?.variant !== undefined);
  protected readonly setting = computed(() => {
    const d = this.desk.current()?.answers?.drive;
    return d?.carrier && d.right ? settingWords(d.carrier, d.right.reading) : undefined;
  });
}
