import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzInputDirective } from 'ng-zorro-antd/input';
import { daysBetween } from '@core/quantity/dates';
import { sealedNow } from '@core/claim/seal';
import { STATIONS } from '@core/facts/observable';
import { textOf } from '@core/facts/read';
import { CaseDesk, type CaseView } from '../data/case-desk';
import { Clock } from '../data/clock';
import { Commands } from '../data/commands';
import { STATION_WORDS } from '../words/reading';

type Tag = { id: string; tag: string; engine: string; waits: string; age: string };

/** Open cases as tags, newest on top. Finds by anything in any fact. */
@Component({
  selector: 'hs-rack',
  imports: [RouterLink, NzButtonComponent, NzInputDirective],
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
          (input)="filter.set(find.value)"
        />
      </div>
      <ul>
        @for (t of tags(); track t.id) {
          <li>
            <a
              class="tag"
              [routerLink]="['/case', t.id, 'call']"
              [attr.aria-current]="t.id === desk.currentId() ? 'page' : null"
            >
              <b class="mono">{{ t.tag }}</b>
              <span class="engine mono">{{ t.engine }}</span>
              <span class="waits">{{ t.waits }}</span>
              <span class="age">{{ t.age }}</span>
            </a>
          </li>
        } @empty {
          <li class="empty">
            {{
              filter() ? 'No case holds that.' : 'No cases yet. Press n for a new one, o to open a case file.'
            }}
          </li>
        }
      </ul>
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
    ul {
      list-style: none;
      margin: 0;
      padding: 0 10px;
      overflow: auto;
      flex: 1;
    }
    .tag {
      display: grid;
      grid-template-columns: auto 1fr;
      gap: 0 8px;
      color: var(--ink);
      background: var(--paper-2);
      border: 1px solid var(--rule);
      margin-bottom: 7px;
      padding: 6px 8px 6px 24px;
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
      ul {
        display: flex;
        gap: 8px;
        flex: none;
        overflow-x: auto;
      }
      li {
        min-width: 170px;
      }
      .foot {
        display: none;
      }
    }
  `,
})
export class Rack {
  protected readonly desk = inject(CaseDesk);
  protected readonly commands = inject(Commands);
  private readonly clock = inject(Clock);
  protected readonly filter = signal('');
  protected readonly tags = computed<Tag[]>(() => {
    const wanted = this.filter().toLowerCase().trim();
    return this.desk
      .cases()
      .filter((c) => wanted === '' || holds(c, wanted))
      .map((c) => this.tagOf(c));
  });

  protected create(): void {
    void this.commands.newCase();
  }

  protected import(): void {
    this.commands.importAsked.update((n) => n + 1);
  }

  private tagOf(c: CaseView): Tag {
    const days = daysBetween(c.opened.slice(0, 10), this.clock.today());
    return {
      id: c.id,
      tag: c.tag,
      engine: textOf(c.state, 'engine.code') ?? 'no engine',
      waits: waitsFor(c),
      age: days <= 0 ? 'today' : `${days} d`,
    };
  }
}

function holds(c: CaseView, wanted: string): boolean {
  return c.state.log.some((f) => !c.state.aside.has(f.id) && String(f.value).toLowerCase().includes(wanted));
}

/** What a case waits for: sealed, a decision, or the first station that still lacks something. */
function waitsFor(c: CaseView): string {
  if (c.failure) return '▲ set aside';
  if (c.answers && sealedNow(c.answers.seals)) return 'settled, sealed';
  const short = STATIONS.find((s) => s !== 'fit' && (c.answers?.lacks[s].length ?? 0) > 0);
  if (short) return `waits: ${STATION_WORDS[short]}`;
  return c.answers?.kind === 'question' ? 'ready to answer' : 'ready to issue';
}
