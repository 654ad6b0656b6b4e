import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { Router } from '@angular/router';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { CaseDesk } from '../../data/case-desk';
import { Practice } from '../../data/practice';
import { PracticeBench } from '../../data/practice-bench';
import { Opening } from '../../ui/opening';
import { Pick } from '../../ui/pick';
import { Segmented } from '../../ui/segmented';

/** How sure one can say to be. */
const SURE = ['50', '60', '70', '80', '90', '95', '99'] as const;

/** The trainee's own verdict on a return for practice; what the desk itself thinks is kept back until it is given. */
@Component({
  selector: 'hs-practice-verdict',
  imports: [NzButtonComponent, Opening, Pick, Segmented],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <hs-opening
      says="What was it?"
      next="The desk keeps its own opinion back until you have given yours; then both paths stand side by side."
    />
    <section class="card" aria-label="Your verdict">
      <hs-pick
        label="Cause"
        placeholder="Type to find it"
        [options]="causes()"
        [value]="cause()"
        (picked)="cause.set($event)"
      />
      <div class="row">
        <span id="how-sure">How sure, in %</span>
        <hs-segmented label="How sure, in %" [options]="sures" [value]="sure()" (picked)="sure.set($event)" />
      </div>
      <button nz-button nzType="primary" [disabled]="!cause()" [nzLoading]="busy()" (click)="decide()">
        That is my verdict
      </button>
      @if (failed(); as why) {
        <p class="caution" role="alert">It was not kept: {{ why }}. Try again.</p>
      }
    </section>
  `,
  styles: `
    section {
      display: grid;
      gap: 10px;
      justify-items: start;
      max-width: 620px;
    }
    hs-pick {
      width: 100%;
    }
  `,
})
export class PracticeVerdict {
  private readonly desk = inject(CaseDesk);
  private readonly practice = inject(Practice);
  private readonly bench = inject(PracticeBench);
  private readonly router = inject(Router);
  protected readonly sures = SURE.map((value) => ({ value, label: value }));
  protected readonly cause = signal<string | undefined>(undefined);
  protected readonly sure = signal<(typeof SURE)[number]>('70');
  protected readonly busy = signal(false);
  protected readonly failed = signal('');
  /** Causes that this drive can have, by name. */
  protected readonly causes = computed(() =>
    (this.desk.current()?.answers?.causes.causes ?? [])
      .map((c) => ({ key: c.key, wording: c.wording }))
      .sort((a, b) => (a.wording < b.wording ? -1 : 1)),
  );

  protected async decide(): Promise<void> {
    const [run, cause] = [this.bench.run(), this.cause()];
    if (!run || cause === undefined || this.busy()) return;
    this.busy.set(true);
    const done = await this.practice.decide(run, { cause, sure: Number(this.sure()) / 100 });
    this.busy.set(false);
    if (done.ok) await this.router.navigate(['/practice/return', run.case.id]);
    else this.failed.set(done.error.detail);
  }
}
