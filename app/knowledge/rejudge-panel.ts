import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  signal,
  untracked,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzProgressModule } from 'ng-zorro-antd/progress';
import { beforeLast } from '@core/cause/changes';
import { Cases } from '../data/cases';
import { OwnNumbers } from '../data/own-numbers';
import { Rejudging } from '../data/rejudging';
import { Segmented } from '../ui/segmented';
import { rejudgedWords } from '../messages/knowledge';

type Against = 'shipped' | 'last';

/** Old cases under the numbers of today: which would be judged otherwise. */
@Component({
  selector: 'hs-rejudge-panel',
  imports: [NzButtonComponent, NzProgressModule, RouterLink, Segmented],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="card" aria-label="What would change">
      <h2>What would change</h2>
      @if (ownNumbers.changes().length === 0) {
        <p class="quiet">Nothing is seen otherwise here yet: all cases are judged by what ships.</p>
      } @else {
        <p class="quiet">All cases judged by today’s numbers, and</p>
        <hs-segmented
          label="Compared with"
          [options]="choices"
          [value]="against()"
          (picked)="against.set($event)"
        />
        @if (rejudging.done() !== undefined) {
          <div
            role="progressbar"
            aria-label="Judging"
            aria-valuemin="0"
            [attr.aria-valuemax]="all()"
            [attr.aria-valuenow]="rejudging.done()"
          >
            {{ rejudging.done() }} of {{ all() }} cases…
            <nz-progress nzSize="small" [nzPercent]="percent()" [nzShowInfo]="false" />
          </div>
          <button nz-button nzSize="small" (click)="rejudging.cancel()">Cancel</button>
        } @else {
          <button nz-button nzSize="small" (click)="judge()">Judge all cases again</button>
        }
        @if (rejudging.failed(); as why) {
          <p class="caution" role="alert">It could not be finished: {{ why }}. Try again.</p>
        }
        @if (rejudging.answer(); as a) {
          <p role="status">
            <b>{{ a.moved.length }} of {{ a.cases }} cases would read otherwise.</b>
          </p>
          <ul>
            @for (m of a.moved; track m.id) {
              <li>
                <a [routerLink]="['/case', m.id, 'cause']">{{ m.tag }}</a>
                {{ m.decided ? '◆' : '' }} {{ words(m) }}
              </li>
            }
          </ul>
        }
      }
    </section>
  `,
  styles: `
    ul {
      margin: 0;
      padding: 0;
      list-style: none;
      max-height: 260px;
      overflow: auto;
    }
    li a {
      text-decoration: underline;
    }
    li {
      border-bottom: 1px solid var(--rule);
      padding: 2px 0;
    }
  `,
})
export class RejudgePanel {
  protected readonly ownNumbers = inject(OwnNumbers);
  protected readonly rejudging = inject(Rejudging);
  private readonly cases = inject(Cases);
  protected readonly against = signal<Against>('shipped');
  protected readonly choices = [
    { value: 'shipped' as const, label: 'by what ships' },
    { value: 'last' as const, label: 'before the last change' },
  ];
  protected readonly all = computed(() => this.cases.summaries().length);
  protected readonly percent = computed(() => (100 * (this.rejudging.done() ?? 0)) / Math.max(1, this.all()));
  protected readonly words = rejudgedWords;

  constructor() {
    // what was found is of the numbers then
    effect(() => {
      this.ownNumbers.changes();
      this.against();
      untracked(() => this.rejudging.forget());
    });
  }

  protected judge(): void {
    const now = this.ownNumbers.changes();
    this.rejudging.judge(this.against() === 'shipped' ? [] : beforeLast(now), now);
  }
}
