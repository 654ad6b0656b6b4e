import { nth } from '@core/quantity/must';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { wheelThing } from '@core/facts/thing';
import { isMarked } from '@core/drive/judge-marks';
import { predictedPhases } from '@core/examination/found-drive';
import { verifyingSteps } from '@core/fitting/sheet';
import { CaseDesk } from '../../data/case-desk';
import { DeskSession } from '../../entry/desk-session';
import { Field } from '../../entry/field';
import { freeSeatWords, goWords, offsetWords, offsetVerdictWords } from '../../messages/drive-results';
import { settingWords } from '../../messages/drive';

/** Turns by hand, the tools, the marks: what a right fitting shows on this drive, and what was seen. */
@Component({
  selector: 'hs-check-panel',
  imports: [Field, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (verify(); as v) {
      <section class="card" aria-label="Before you look">
        <h2>Before you look</h2>
        <ul class="plain">
          @for (line of v; track line) {
            <li>{{ line }}</li>
          }
        </ul>
        <p class="caution">At the first resistance stop: never force, never use the starter.</p>
      </section>
    }
    @if (openMarks(); as o) {
      <section class="card" aria-label="Marks, whichever design it is">
        <h2>Marks, whichever design it is</h2>
        @for (m of o.marks; track m.name) {
          <div>
            <b>{{ m.name }}</b
            >: {{ m.verdict }}
          </div>
        }
        <p [class.caution]="o.bad">{{ o.words }}</p>
      </section>
    }
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
        @for (m of marks(); track m.about) {
          <div>
            <b>{{ m.name }}</b
            >: {{ m.shows }}
          </div>
          <hs-field [session]="session" key="mark" [about]="m.about" (misread)="broken(m.about, $event)" />
          @if (m.verdict && !misread().has(m.about)) {
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
    @for (g of groups(); track g.key) {
      <section class="card" [attr.aria-label]="g.name">
        <h2>{{ g.name }}</h2>
        @for (o of g.fields; track o.key) {
          <hs-field [session]="session" [key]="o.key" />
        }
      </section>
    }
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(330px, 1fr));
      gap: var(--gap);
      align-items: start;
    }
    section {
      display: grid;
      gap: 4px;
    }
    .plain {
      margin: 0;
      padding: 0;
      list-style: none;
    }
  `,
})
export class CheckPanel {
  protected readonly session = inject(DeskSession);
  protected readonly desk = inject(CaseDesk);
  protected readonly groups = computed(() => this.desk.groupsAt('fit'));
  /** What the sheet's own steps of counting, turning and checking say. */
  protected readonly verify = computed(() => {
    const steps = verifyingSteps(this.desk.current()?.answers?.sheet?.steps ?? []);
    return steps.length > 0 ? steps.map((s) => `${s.number}. ${s.text}`) : undefined;
  });

  /** Marks in whose box stands what cannot be read: their verdict is not shown beside it. */
  protected readonly misread = signal<ReadonlySet<string>>(new Set());
  /** What every design that is left says of the marks filed. */
  protected readonly openMarks = computed(() => {
    const a = this.desk.current()?.answers;
    const m = a?.openMarks;
    if (!a || !m) return undefined;
    return {
      marks: m.marks.map((x) => ({
        name: a.things.find((t) => t.id === x.about)?.name ?? x.about,
        verdict: offsetVerdictWords(x.verdict),
      })),
      words: `${goWords(m.go, m.marks.length, m.of)}.`,
      bad: m.go === 'no_go',
    };
  });
  private readonly drive = computed(() => this.desk.current()?.answers?.drive);
  protected readonly marks = computed(() => {
    const [d, state] = [this.drive(), this.desk.current()?.state];
    return (d?.stages ?? []).flatMap(({ layout }, stage) => {
      if (!state) return [];
      return predictedPhases(state, layout)
        .filter((p) => isMarked(nth(layout.wheels, p.wheel)))
        .sort((a, b) => b.wheel - a.wheel)
        .map((p) => {
          const seen = d?.marks?.marks.find((m) => m.stage === stage && m.wheel === p.wheel);
          const w = nth(layout.wheels, p.wheel);
          return {
            about: wheelThing(w.id),
            name: w.name,
            shows: offsetWords(p),
            verdict: seen ? offsetVerdictWords(seen.verdict) : '',
          };
        });
    });
  });
  protected readonly go = computed(() => {
    const m = this.drive()?.marks;
    if (!m) return undefined;
    const then = {
      go: ` ${freeSeatWords(m.free)}`.trimEnd(),
      so_far: '',
      no_go: ' Do not start it; take all off and begin again at the locking step.',
      wait: ' Measure again.',
    };
    return {
      bad: m.go === 'no_go' || m.go === 'wait',
      words: `${goWords(m.go, m.marks.length, m.of)}.${then[m.go]}`,
    };
  });

  protected broken(key: string, is: boolean): void {
    this.misread.update((s) => new Set([...s].filter((x) => x !== key).concat(is ? [key] : [])));
  }

  protected readonly setting = computed(() => {
    const d = this.desk.current()?.answers?.drive;
    return d?.carrier && d.right ? settingWords(d.carrier, d.right.reading) : undefined;
  });
}
