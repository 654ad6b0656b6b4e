import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { CAUSES } from '@core/cause/cause-data';
import { ownShares } from '@core/cause/own-shares';
import { formatNumber } from '@core/quantity/format-quantity';
import { Cases } from '../data/cases';
import { OwnNumbers } from '../data/own-numbers';
import { ownCasesWords, shareWords } from '../messages/knowledge';
import { WORDED, refusalWords } from './knowledge-sentences';

/** Rows in sight. */
const MOST = 6;

/** How common causes are by the house's own settled cases, shrunk towards what ships. */
@Component({
  selector: 'hs-own-cases',
  imports: [NzButtonComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="card" aria-label="Own settled cases">
      <h2>Own settled cases</h2>
      @if (settled().length === 0) {
        <p class="quiet">
          None yet. Once causes are decided, what this house sees more often than others is told here.
        </p>
      } @else {
        <p class="quiet">
          {{ settled().length }} decided. Counted against what ships, and shrunk towards it while they are
          few.
        </p>
        @for (r of rows(); track r.key) {
          <div class="pair">
            <span>{{ r.name }}</span>
            <small class="quiet">{{ r.seen }} seen, {{ r.expected }} expected</small>
            <span class="mono">{{ r.from }} → {{ r.to }}</span>
          </div>
        }
        @if (more(); as n) {
          <p class="quiet">{{ n }} more, a little rarer each.</p>
        }
        <button nz-button nzSize="small" (click)="adopt()">Weigh by them</button>
        @if (refused()) {
          <p class="caution" role="alert">{{ refused() }}</p>
        }
      }
    </section>
  `,
  styles: `
    .pair {
      display: grid;
      grid-template-columns: minmax(0, 1fr) auto;
      gap: 0 8px;
      border-bottom: 1px solid var(--rule);
      padding: 2px 0;
    }
    .pair > :first-child {
      grid-column: 1 / -1;
    }
  `,
})
export class OwnCases {
  private readonly cases = inject(Cases);
  private readonly ownNumbers = inject(OwnNumbers);
  protected readonly refused = signal('');
  protected readonly settled = computed(() => this.cases.summaries().flatMap((h) => h.settled ?? []));
  private readonly shares = computed(() =>
    ownShares(CAUSES, this.settled(), CAUSES.ownCases).sort(
      (a, b) => b.seen - a.seen || b.expected - a.expected,
    ),
  );
  protected readonly rows = computed(() =>
    this.shares()
      .slice(0, MOST)
      .map((s) => ({
        key: s.cause,
        name: WORDED.causes.find((c) => c.key === s.cause)?.wording ?? s.cause,
        seen: s.seen,
        expected: formatNumber(s.expected, 1),
        from: shareWords(s.prior),
        to: shareWords(s.proposed),
      })),
  );
  protected readonly more = computed(() => Math.max(0, this.shares().length - MOST));

  protected async adopt(): Promise<void> {
    const of = this.settled().length;
    const seen = await this.ownNumbers.see(
      this.shares().map((s) => ({
        place: `causes/${s.cause}/prior`,
        value: s.proposed,
        ground: ownCasesWords(s, of, CAUSES.ownCases),
      })),
    );
    this.refused.set(seen.ok ? '' : refusalWords(seen.error));
  }
}
