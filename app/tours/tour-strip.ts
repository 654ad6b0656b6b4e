import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  inject,
  linkedSignal,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { NavigationEnd, Router } from '@angular/router';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { filter, map } from 'rxjs';
import { Commands } from '../commands/commands';
import { CaseDesk } from '../data/case-desk';
import { Cases } from '../data/cases';
import { isDone, TOURS, type TourStep } from './tours';

const OUTLINED = 'toured';

/** The tour that goes on, as a strip above the work: what to do next, done by the person; it can be left at any time. */
@Component({
  selector: 'hs-tour-strip',
  imports: [NzButtonComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (tour(); as t) {
      <section role="region" aria-label="Tour">
        <span class="quiet">{{ t.name }}, {{ at() + 1 }} of {{ t.steps.length }}</span>
        <p role="status">
          {{ lost() ? 'This tour is made on a case of the demo, which is not on this rack.' : step()?.says }}
        </p>
        <span class="row">
          <button nz-button nzSize="small" [disabled]="at() === 0" (click)="go(at() - 1)">Back</button>
          <button nz-button nzSize="small" nzType="primary" (click)="go(at() + 1)">
            {{ at() + 1 < t.steps.length ? 'Next' : 'Done' }}
          </button>
          <button nz-button nzSize="small" (click)="leave()">Leave the tour</button>
        </span>
      </section>
    }
  `,
  styles: `
    section {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 14px;
      align-items: center;
      padding: 6px 14px;
      border-bottom: 2px solid var(--brass);
      background: var(--brass-soft);
    }
    p {
      flex: 1 1 320px;
      margin: 0;
      font-weight: 600;
    }
    .quiet {
      color: var(--ink);
    }
    .row {
      flex-wrap: nowrap;
    }
  `,
})
export class TourStrip {
  private readonly commands = inject(Commands);
  private readonly cases = inject(Cases);
  private readonly desk = inject(CaseDesk);
  private readonly router = inject(Router);
  protected readonly tour = computed(() => TOURS.find((t) => t.key === this.commands.tour()));
  protected readonly at = linkedSignal<string | undefined, number>({
    source: this.commands.tour,
    computation: () => 0,
  });
  protected readonly step = computed((): TourStep | undefined => this.tour()?.steps[this.at()]);
  private readonly id = computed(() => this.cases.summaries().find((s) => s.id === this.tour()?.case)?.id);
  protected readonly lost = computed(() => this.tour() !== undefined && this.id() === undefined);
  private readonly path = toSignal(
    this.router.events.pipe(
      filter((e) => e instanceof NavigationEnd),
      map((e) => e.urlAfterRedirects),
    ),
    { initialValue: this.router.url },
  );
  /** Facts that were there when the step began; none known before its case is open. */
  private before: { step: TourStep; facts: ReadonlySet<string> } | undefined;

  constructor() {
    effect(() => {
      const [step, id] = [this.step(), this.id()];
      if (step && id !== undefined) void this.router.navigate(['/case', id, step.at]);
    });
    effect(() => {
      const [step, view, path] = [this.step(), this.desk.current(), this.path()];
      if (!step || view === undefined || view.id !== this.id()) return;
      const { log } = view.state;
      if (this.before?.step !== step) this.before = { step, facts: new Set(log.map((f) => f.id)) };
      const { facts } = this.before;
      const filed = log.filter((f) => !facts.has(f.id)).map((f) => f.key);
      if (isDone(step, filed, path)) this.go(this.at() + 1);
    });
    // What it is about may be painted later than the step, and anew: it is outlined whenever the page changes.
    const watch = new MutationObserver(() => this.outline());
    watch.observe(document.body, { subtree: true, childList: true });
    effect(() => {
      this.step();
      this.outline();
    });
    inject(DestroyRef).onDestroy(() => {
      watch.disconnect();
      this.clear();
    });
  }

  protected go(to: number): void {
    const tour = this.tour();
    if (!tour) return;
    if (to >= tour.steps.length) this.leave();
    else this.at.set(Math.max(0, to));
  }

  protected leave(): void {
    this.commands.tour.set(undefined);
    this.clear();
  }

  private outline(): void {
    const shows = this.step()?.shows;
    const wanted =
      shows === undefined ? null : document.querySelector(`main [aria-label="${CSS.escape(shows)}"]`);
    if (wanted?.classList.contains(OUTLINED)) return;
    this.clear();
    wanted?.classList.add(OUTLINED);
  }

  private clear(): void {
    for (const e of document.querySelectorAll(`.${OUTLINED}`)) e.classList.remove(OUTLINED);
  }
}
