import { CdkVirtualScrollViewport, ScrollingModule } from '@angular/cdk/scrolling';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  inject,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzInputDirective } from 'ng-zorro-antd/input';
import type { Head } from '@core/answer/head';
import { daysBetween } from '@core/quantity/dates';
import { Commands } from '../acts/commands';
import { Cases } from '../data/cases';
import { Clock } from '../data/clock';
import { HeadProgress } from '../data/head-progress';
import { WAITS_WORDS } from '../words/waits';

/** Open cases as tags, newest on top. Finds by anything in any fact. */
@Component({
  selector: 'hs-rack',
  imports: [RouterLink, NzButtonComponent, NzInputDirective, ScrollingModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <nav aria-label="Rack of cases">
      <div class="top">
        <a class="brand" routerLink="/"
          ><img src="icon.svg" alt="" width="22" height="22" /> Hollow Sprocket</a
        >
        <div class="row">
          <button nz-button nzType="primary" class="new" (click)="create()" title="Key n">New case</button>
          <button
            nz-button
            (click)="commands.overlay.set('palette')"
            title="Ctrl+K"
            aria-label="Find by name, Ctrl+K"
          >
            Find
          </button>
        </div>
        <input
          nz-input
          #find
          type="search"
          placeholder="Filter by any fact"
          aria-label="Filter cases by any fact"
          (input)="typed.set(find.value)"
        />
      </div>
      @if (keeper.progress(); as done) {
        <p class="quiet" role="status">Reading all cases anew: {{ done }} done.</p>
      }
      @if (found().length) {
        <cdk-virtual-scroll-viewport
          [itemSize]="narrow() ? 212 : 57"
          [orientation]="narrow() ? 'horizontal' : 'vertical'"
          [class.narrow]="narrow()"
        >
          <a
            *cdkVirtualFor="let h of found(); trackBy: byId"
            class="tag"
            [routerLink]="['/case', h.id, 'call']"
            [attr.aria-current]="h.id === cases.currentId() ? 'page' : null"
          >
            <b class="mono">{{ h.tag }}</b>
            <span class="engine mono">{{ h.engine || 'no engine' }}</span>
            <span class="waits">{{ waits[h.waits] }}</span>
            <span class="age">{{ age(h) }}</span>
          </a>
        </cdk-virtual-scroll-viewport>
      } @else {
        <p class="empty">
          {{
            typed() ? 'No case holds that.' : 'No cases yet. Press n for a new one, o to open a case file.'
          }}
        </p>
      }
      @if (typed()) {
        <p class="quiet" role="status">{{ found().length }} of {{ cases.heads().length }} cases</p>
      }
      <div class="foot">
        <a nz-button nzType="text" routerLink="/catalogue">Catalogue</a>
        <a nz-button nzType="text" routerLink="/drive">Drives</a>
        <button nz-button nzType="text" (click)="commands.overlay.set('house')">House</button>
        <button nz-button nzType="text" (click)="commands.overlay.set('keys')">Keys</button>
      </div>
    </nav>
  `,
  styles: `
    nav {
      display: flex;
      flex-direction: column;
      height: 100%;
      background: var(--paper-3);
      border-right: 1px solid var(--rule);
    }
    .top {
      padding: 10px;
      display: grid;
      gap: 8px;
    }
    .brand {
      display: flex;
      gap: 8px;
      align-items: center;
      font-weight: 600;
      color: var(--ink);
    }
    .new {
      flex: 1;
    }
    cdk-virtual-scroll-viewport {
      flex: 1;
      min-height: 0;
      margin: 0 10px;
    }
    .quiet {
      padding: 2px 12px;
      color: var(--ink-2);
      font-size: 0.92em;
      margin: 0;
    }
    .tag {
      display: grid;
      grid-template-columns: auto 1fr;
      gap: 0 8px;
      color: var(--ink);
      background: var(--paper-2);
      border: 1px solid var(--rule);
      height: 50px;
      box-sizing: border-box;
      margin-bottom: 7px;
      padding: 5px 8px 5px 24px;
      overflow: hidden;
      white-space: nowrap;
      position: relative;
      clip-path: polygon(12px 0, 100% 0, 100% 100%, 12px 100%, 0 50%);
    }
    .tag::before {
      content: '';
      position: absolute;
      left: 11px;
      top: 50%;
      width: 7px;
      height: 7px;
      margin-top: -4px;
      border-radius: 50%;
      background: var(--paper-3);
      border: 1px solid var(--rule-strong);
    }
    .tag[aria-current] {
      background: var(--verdigris-soft);
    }
    .tag[aria-current] b {
      text-decoration: underline;
      text-underline-offset: 3px;
    }
    .engine {
      text-align: right;
      font-size: 0.92em;
    }
    .waits {
      font-size: 0.92em;
    }
    .age {
      text-align: right;
      font-size: 0.92em;
      color: var(--ink-2);
    }
    .empty {
      color: var(--ink-2);
      padding: 6px 2px;
    }
    .foot {
      display: flex;
      justify-content: space-between;
      padding: 4px 4px 8px;
    }
    .foot button,
    .foot a {
      padding: 2px 5px;
      color: var(--ink);
    }
    @media (max-width: 900px) {
      nav {
        border-right: 0;
        border-bottom: 1px solid var(--rule);
      }
      .top {
        grid-template-columns: auto auto 1fr;
        align-items: center;
      }
      cdk-virtual-scroll-viewport.narrow {
        flex: none;
        height: 64px;
        white-space: nowrap;
      }
      .narrow .tag {
        display: inline-grid;
        width: 204px;
        margin: 0 8px 0 0;
      }
      .foot {
        display: none;
      }
    }
  `,
})
export class Rack {
  protected readonly cases = inject(Cases);
  protected readonly keeper = inject(HeadProgress);
  protected readonly commands = inject(Commands);
  private readonly clock = inject(Clock);
  private readonly viewport = viewChild(CdkVirtualScrollViewport);
  protected readonly waits = WAITS_WORDS;
  protected readonly typed = signal('');
  protected readonly found = computed(() => this.cases.find(this.typed()));
  private readonly query = matchMedia('(max-width: 900px)');
  protected readonly narrow = signal(this.query.matches);

  constructor() {
    const change = () => this.narrow.set(this.query.matches);
    this.query.addEventListener('change', change);
    inject(DestroyRef).onDestroy(() => this.query.removeEventListener('change', change));
    // The case in hand stays in sight, however it was opened.
    effect(() => {
      const id = this.cases.currentId();
      const viewport = this.viewport();
      if (id === undefined || !viewport) return;
      const at = untracked(this.found).findIndex((h) => h.id === id);
      const { start, end } = viewport.getRenderedRange();
      if (at >= 0 && (at < start || at >= end)) viewport.scrollToIndex(Math.max(0, at - 2));
    });
  }

  protected byId(_: number, h: Head): string {
    return h.id;
  }

  protected create(): void {
    void this.commands.newCase();
  }

  protected age(h: Head): string {
    const days = daysBetween(h.opened.slice(0, 10), this.clock.today());
    return days <= 0 ? 'today' : `${days} d`;
  }
}
