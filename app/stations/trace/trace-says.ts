import { ChangeDetectionStrategy, Component, computed, inject, output } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { isOffset, OFFSETS, type StateOfEngine } from '@core/answer/trace-answer';
import { standing } from '@core/facts/read';
import { CaseDesk } from '../../data/case-desk';
import {
  arithmeticWords,
  byDesignWords,
  compareTrouble,
  movedWords,
  togetherWords,
  type Units,
  traceVerdictWords,
} from '../../messages/trace';
import { type ComparedCam, TraceStore } from './trace-store';

/** A cam that is to be filed, and of which state of the engine. */
export type Filing = { cam: ComparedCam; of: StateOfEngine };

/** What the captures say, cam by cam and of all together, with the arithmetic line by line. */
@Component({
  selector: 'hs-trace-says',
  imports: [NzButtonComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (all(); as a) {
      <p class="says" aria-live="polite">{{ a }}</p>
    }
    <div>
      @for (a of answers(); track a.of.cam; let firstCam = $first) {
        <section class="card" [attr.aria-label]="'What ' + a.of.name + ' says'">
          <p class="quiet">{{ a.of.name }}</p>
          <p class="says" aria-live="polite">{{ a.said }}</p>
          @if (a.before) {
            <p>Before the repair: {{ a.before }}</p>
          }
          @if (a.after) {
            <p>Now: {{ a.after }}</p>
          }
          <ol>
            @for (l of a.lines; track l) {
              <li>{{ l }}</li>
            }
          </ol>
          @for (d of a.designs; track d.design) {
            <p>{{ d.design }}: {{ d.said }}</p>
          }
          @if (a.both) {
            <button nz-button nzSize="small" nzType="primary" (click)="fileBoth.emit(a.of.cam)">
              File both, before and after
            </button>
          }
          @if (a.files) {
            <div class="files">
              @for (f of filings(); track f.of) {
                <button
                  nz-button
                  nzSize="small"
                  [nzType]="firstCam && $first ? 'primary' : 'default'"
                  (click)="file.emit({ cam: a.of, of: f.of })"
                >
                  {{ f.label }}
                </button>
              }
            </div>
          }
        </section>
      }
    </div>
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
    }
    .files {
      display: flex;
      flex-wrap: wrap;
      gap: 4px;
    }
    div:not(.files) {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(300px, 1fr));
      gap: 8px;
    }
    section {
      display: grid;
      align-content: start;
      gap: 4px;
      justify-items: start;
    }
    p,
    ol {
      margin: 0;
    }
    ol {
      padding-inline-start: 20px;
    }
    .says {
      font-weight: 600;
    }
  `,
})
export class TraceSays {
  private readonly store = inject(TraceStore);
  private readonly desk = inject(CaseDesk);
  readonly file = output<Filing>();
  readonly fileBoth = output<number>();
  /** A capture behind one that is filed is likely that of after the repair; either can be said. */
  protected readonly filings = computed(() => {
    const state = this.desk.current()?.state;
    const came = { of: 'came' as const, label: 'File it as it came, with the capture' };
    const repaired = { of: 'repaired' as const, label: 'File it as after the repair' };
    const filed = state && standing(state, OFFSETS.came);
    const same = filed?.files?.some((f) => f.name === this.store.mine().read?.name) ?? false;
    return filed && !same ? [repaired, came] : [came, repaired];
  });

  protected readonly all = computed(() => {
    const together = this.store.together();
    if (!together || this.store.against() === 'before') return undefined;
    return togetherWords(
      together,
      this.store.compared().map((c) => c.name),
      this.store.teeth().unit,
    );
  });
  protected readonly answers = computed(() =>
    this.store.compared().map((of) => {
      if (of.error)
        return { of, said: compareTrouble(of.error), lines: [], designs: [], both: false, files: false };
      const units = this.unitsOf(of);
      const before = this.store.against() === 'before';
      const against = (side: 'before' | 'after') => {
        const c = this.store.beforeAfter()?.[side].find((k) => k.cam === of.cam);
        return c?.shift && traceVerdictWords(c.said, units, this.store.has());
      };
      return {
        of,
        said: of.byDesign
          ? byDesignWords(of.shift)
          : before
            ? movedWords(of.said, units)
            : traceVerdictWords(of.said, units, this.store.has()),
        designs: (of.byDesign ?? []).map((d) => ({
          design: d.design,
          said: traceVerdictWords(d.said, units, this.store.has()),
        })),
        before: against('before'),
        after: against('after'),
        lines: arithmeticWords(of.said, of.wheels, of.shift, units, of.byDesign !== undefined),
        both:
          this.desk.current() !== undefined &&
          (['before', 'after'] as const).every((side) => {
            const c = this.store.beforeAfter()?.[side].find((k) => k.cam === of.cam);
            return c?.shift !== undefined && isOffset(c.said);
          }),
        // What a repair moved is no offset of the engine: before and after are filed against the catalogue or a good one.
        files: this.desk.current() !== undefined && !before && isOffset(of.said),
      };
    }),
  );

  private unitsOf({ cam }: ComparedCam): Units {
    const { unit, cams } = this.store.teeth();
    return { crank: unit, cam: cams[cam]?.unit ?? unit };
  }
}
