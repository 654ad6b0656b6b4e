import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { isDecided } from '@core/practice/record';
import { SET_OF } from '@core/practice/themes';
import { PracticeBench } from '../data/practice-bench';
import { spentWords, patienceWords } from '../messages/practice';

/** Over a return for practice, at every station: that it is none of the desk's, what it took so far, and the way to the verdict. */
@Component({
  selector: 'hs-practice-strip',
  imports: [NzButtonComponent, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (bench.run(); as r) {
      <div class="strip" role="region" aria-label="Practice">
        <b>◇ Practice</b>
        @if (r.set; as s) {
          <span>{{ s.at }} of {{ of }}</span>
        }
        @if (done()) {
          <span>Decided: nothing of it changes any more.</span>
          <a nz-button nzSize="small" nzType="primary" [routerLink]="['/practice/return', r.case.id]"
            >Look back</a
          >
        } @else {
          <span>{{ spent() }} spent</span>
          <span [class.low]="bench.patience() <= 3">{{ patience() }}</span>
          <a nz-button nzSize="small" nzType="primary" [routerLink]="['/case', r.case.id, 'cause']"
            >Your verdict</a
          >
          <a nz-button nzSize="small" routerLink="/practice">Put it aside</a>
        }
        <small>No paper, list or count ever holds it.</small>
      </div>
    }
  `,
  styles: `
    .strip {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 12px;
      align-items: center;
      padding: 4px 14px;
      border-bottom: 2px dashed var(--brass);
      background: var(--paper-3);
    }
    .low {
      font-weight: 600;
      color: var(--brass-ink);
    }
    small {
      margin-left: auto;
    }
  `,
})
export class PracticeStrip {
  protected readonly bench = inject(PracticeBench);
  protected readonly of = SET_OF;
  protected readonly done = computed(() => {
    const run = this.bench.run();
    return run !== undefined && isDecided(run);
  });
  protected readonly spent = computed(() => spentWords(this.bench.minutes()));
  protected readonly patience = computed(() => patienceWords(this.bench.patience()));
}
