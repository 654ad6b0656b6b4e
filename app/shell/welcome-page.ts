import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import type { CaseSummary } from '@core/answer/case-summary';
import { dayOf, daysBetween } from '@core/quantity/dates';
import { Commands } from '../commands/commands';
import { Setup } from '../commands/setup';
import { Cases } from '../data/cases';
import { Clock } from '../data/clock';
import { Packs } from '../data/packs';
import { StateCard } from '../ui/state';
import { KIND_WORDS, waitsWords } from '../messages/waits';
import { BeginLine } from './begin-line';

/** Most cases in one list: the rack has them all. */
const MOST = 12;

/** Where a day begins: one line for what came in, what waits and since when, and what was touched last. */
@Component({
  selector: 'hs-welcome-page',
  imports: [NzButtonComponent, RouterLink, BeginLine, StateCard],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <main>
      <h1 class="hidden-text">The desk</h1>
      <hs-begin-line />
      <div class="row">
        <button nz-button nzType="primary" (click)="create()">New case <kbd>n</kbd></button>
        <button nz-button (click)="open()">Open a case file <kbd>o</kbd></button>
        @if (packs.known() && !packs.newestId()) {
          <button nz-button (click)="demo()">Load the demo data</button>
        }
      </div>
      @if (packs.known() && !packs.newestId()) {
        <p class="caution">
          There is no catalogue yet, so no engine can be identified. Load the demo data, or open a case file:
          it brings its part of the catalogue along.
        </p>
      }
      <div class="lists">
        <section class="card" aria-label="What waits">
          <h2>
            What waits
            <small>{{ waiting().length }} of {{ cases.summaries().length }} cases, the oldest first</small>
          </h2>
          @for (h of waiting().slice(0, most); track h.id) {
            <a class="line" [routerLink]="['/case', h.id, stationOf(h)]">
              <b class="code">{{ h.tag }}</b>
              <span>{{ state(h) }}</span>
              <span class="code">{{ h.engine || 'no engine' }}</span>
              <span class="age">{{ age(h.opened) }}</span>
              <span class="who">{{ h.who || 'nobody named' }}</span>
            </a>
          } @empty {
            <hs-state kind="empty" title="Nothing waits.">
              <p>A call, a box or a claim becomes a case on the line above.</p>
            </hs-state>
          }
        </section>
        <section class="card" aria-label="What came in last">
          <h2>What came in last</h2>
          @for (h of latest(); track h.id) {
            <a class="line" [routerLink]="['/case', h.id, 'call']">
              <b class="code">{{ h.tag }}</b>
              <span>{{ kinds[h.kind] }}</span>
              <span class="code">{{ h.engine || 'no engine' }}</span>
              <span class="age">{{ age(h.touched) }}</span>
              <span class="who">{{ h.who || 'nobody named' }}</span>
            </a>
          } @empty {
            <hs-state kind="empty" title="No case yet." />
          }
        </section>
      </div>
      <p class="quiet">
        This desk computes from what is filed and from the catalogue at hand. It does not know what nobody
        looked at, it does not replace the vehicle maker’s service information, local rules or qualified
        people, which come first, and it gives no legal advice. Weights of causes are house estimates that you
        may overrule with a reason.
      </p>
    </main>
  `,
  styles: `
    main {
      padding: 24px 28px;
      max-width: 1280px;
      display: grid;
      gap: 14px;
      align-content: start;
      overflow: auto;
      height: 100%;
      box-sizing: border-box;
    }
    hs-begin-line {
      max-width: 760px;
    }
    .lists {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(380px, 1fr));
      gap: var(--gap);
      align-items: start;
    }
    .line {
      display: grid;
      grid-template-columns: 48px minmax(0, 1fr) auto 44px;
      gap: 0 10px;
      padding: 4px 0;
      align-items: center;
      min-height: var(--target);
      color: var(--ink);
      border-bottom: 1px solid var(--rule);
    }
    .line:hover {
      background: var(--paper-3);
    }
    .who {
      grid-column: 2 / -1;
      color: var(--ink-2);
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    .age {
      text-align: right;
      color: var(--ink-2);
    }
    button kbd {
      margin-left: 6px;
      border-color: currentColor;
    }
    .quiet {
      max-width: 90ch;
    }
    @media (max-width: 760px) {
      main {
        padding: 12px;
      }
      .lists {
        grid-template-columns: minmax(0, 1fr);
      }
    }
  `,
})
export class WelcomePage {
  protected readonly packs = inject(Packs);
  protected readonly cases = inject(Cases);
  private readonly commands = inject(Commands);
  private readonly setup = inject(Setup);
  private readonly clock = inject(Clock);
  protected readonly kinds = KIND_WORDS;
  protected readonly most = MOST;
  /** What somebody waits for: calls that were promised, then the oldest first. */
  protected readonly waiting = computed(() =>
    this.cases
      .summaries()
      .filter((h) => (h.waits !== 'sealed' && h.waits !== 'told') || h.back !== undefined)
      .sort((a, b) => {
        const [x, y] = [a.back ?? '9', b.back ?? '9'];
        return x === y ? (a.opened < b.opened ? -1 : 1) : x < y ? -1 : 1;
      }),
  );
  protected readonly latest = computed(() =>
    [...this.cases.summaries()].sort((a, b) => (a.touched > b.touched ? -1 : 1)).slice(0, MOST),
  );

  constructor() {
    this.cases.putBack();
  }

  /** Station that a case waits at; else where it is answered or issued. */
  protected stationOf(h: CaseSummary): string {
    if (h.waits === 'answer' || h.waits === 'told') return 'call';
    return h.waits === 'issue' || h.waits === 'sealed' || h.waits === 'set_aside' ? 'settle' : h.waits;
  }

  protected state(h: CaseSummary): string {
    return waitsWords(h, this.clock.today());
  }

  protected age(at: string): string {
    const days = daysBetween(dayOf(at), this.clock.today());
    return days <= 0 ? 'today' : `${days} d`;
  }

  protected create(): void {
    void this.commands.newCase();
  }

  protected open(): void {
    this.commands.importAsked.update((n) => n + 1);
  }

  protected demo(): void {
    void this.setup.loadDemo();
  }
}
