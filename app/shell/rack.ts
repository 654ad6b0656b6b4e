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
import type { CaseSummary } from '@core/answer/case-summary';
import { dayOf, daysBetween } from '@core/quantity/dates';
import { Commands } from '../commands/commands';
import { BackupDue } from '../data/backup-due';
import { Cases } from '../data/cases';
import { Clock } from '../data/clock';
import { ShelfState } from '../data/shelf-state';
import { standingLine } from '../messages/shelf';
import { RecordWork, type Work } from '../data/record-work';
import { DeskSettingsStore } from '../data/desk-settings';
import { waitsWords } from '../messages/waits';

/** Open cases as tags, newest on top. Finds by anything in any fact. */
@Component({
  selector: 'hs-rack',
  imports: [RouterLink, NzButtonComponent, NzInputDirective, ScrollingModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '[class.rail]': 'rail()' },
  template: `
    <nav aria-label="Rack of cases">
      <div class="top">
        <a class="brand" routerLink="/" title="Start page"
          ><img src="icon.svg" alt="" width="22" height="22" /> <span class="word">Hollow Sprocket</span></a
        >
        <button
          nz-button
          nzType="text"
          class="fold"
          [attr.aria-expanded]="!rail()"
          [attr.aria-label]="rail() ? 'Open the rack' : 'Narrow the rack'"
          title="Key ["
          (click)="settings.flip('rack')"
        >
          {{ rail() ? '»' : '«' }}
        </button>
        <div class="row buttons">
          <button
            nz-button
            nzType="primary"
            class="new"
            (click)="create()"
            title="New case, key n"
            aria-label="New case"
          >
            {{ rail() ? '+' : 'New case' }}
          </button>
          <button
            nz-button
            class="word"
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
          class="word"
          type="search"
          placeholder="Filter by any fact"
          aria-label="Filter cases by any fact"
          (input)="typed.set(find.value)"
        />
      </div>
      @for (w of work.going().values(); track $index) {
        <p class="quiet">
          <span role="status">{{ w.what }}{{ far(w) }}</span>
          <button nz-button nzType="text" nzSize="small" (click)="w.stop()">Stop</button>
        </p>
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
            [title]="h.tag + ' ' + h.engine + ' ' + h.who + ', ' + state(h)"
          >
            <b class="code">{{ h.tag }}</b>
            <span class="engine code">{{ h.engine || 'no engine' }}</span>
            <span class="waits" [class.late]="late(h)">{{ state(h) }}</span>
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
        <p class="quiet" role="status">{{ found().length }} of {{ cases.summaries().length }} cases</p>
      }
      @if (backupDue.days(); as days) {
        <a class="quiet due" routerLink="/safety">▲ No backup for {{ days }} days</a>
      }
      @switch (backupDue.folder().is) {
        @case ('asleep') {
          <a class="quiet due" routerLink="/safety">▲ The folder for backups has to be allowed again</a>
        }
        @case ('failed') {
          <a class="quiet due" routerLink="/safety">▲ Backups by themselves have stopped</a>
        }
      }
      @if (shelfLine(); as words) {
        <a class="quiet due" routerLink="/together"
          ><span role="status">{{ words }}</span></a
        >
      }
      <div class="foot">
        <a nz-button nzType="text" class="word" routerLink="/catalogue">Catalogue</a>
        <a nz-button nzType="text" class="word" routerLink="/ledger">Ledger</a>
        <a nz-button nzType="text" class="word" routerLink="/patterns">Patterns</a>
        <a nz-button nzType="text" class="word" routerLink="/drive">Drives</a>
        <a nz-button nzType="text" class="word" routerLink="/practice">Practice</a>
        <button nz-button nzType="text" class="word" (click)="commands.overlay.set('settings')">
          Settings
        </button>
        <button nz-button nzType="text" class="word" (click)="commands.overlay.set('keys')">Keys</button>
      </div>
    </nav>
  `,
  styleUrl: './rack.less',
})
export class Rack {
  protected readonly cases = inject(Cases);
  protected readonly backupDue = inject(BackupDue);
  protected readonly work = inject(RecordWork);
  private readonly shelf = inject(ShelfState);
  protected readonly shelfLine = computed(() => standingLine(this.shelf.standing(), this.shelf.waiting()));
  /** How far a piece of work is. */
  protected readonly far = ({ done, of }: Work): string =>
    done === undefined ? ' …' : of === undefined ? `: ${done} done` : `: ${done} of ${of}`;
  protected readonly commands = inject(Commands);
  protected readonly settings = inject(DeskSettingsStore);
  private readonly clock = inject(Clock);
  private readonly viewport = viewChild(CdkVirtualScrollViewport);

  /** What it waits for; a call that was promised goes before everything. */
  protected state(h: CaseSummary): string {
    return waitsWords(h, this.clock.today());
  }

  protected late(h: CaseSummary): boolean {
    return h.back !== undefined && h.back <= this.clock.today();
  }
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

  /** Narrowed to the tags' numbers. In a narrow window the rack lies on top, and is whole. */
  protected readonly rail = computed(() => this.settings.settings().rack === 'rail' && !this.narrow());

  protected byId(_: number, h: CaseSummary): string {
    return h.id;
  }

  protected create(): void {
    void this.commands.newCase();
  }

  protected age(h: CaseSummary): string {
    const days = daysBetween(dayOf(h.opened), this.clock.today());
    return days <= 0 ? 'today' : `${days} d`;
  }
}
