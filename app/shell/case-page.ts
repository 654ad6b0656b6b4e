import { ChangeDetectionStrategy, Component, effect, inject, input, untracked } from '@angular/core';
import { RouterLink, RouterLinkActive, RouterOutlet } from '@angular/router';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { looksOf } from '@core/answer/looks';
import { sealedNow } from '@core/claim/seal';
import { STATIONS } from '@core/facts/observable';
import { textOf } from '@core/facts/read';
import { CaseDesk } from '../data/case-desk';
import { STATION_WORDS } from '../words/reading';
import { CaseFiles } from '../acts/case-files';
import { Balance } from './balance';
import { Disagree } from './disagree';
import { Tape } from './tape';

/** One case: stations on top, the bench, and the tape with the balance. */
@Component({
  selector: 'hs-case-page',
  imports: [RouterLink, RouterLinkActive, RouterOutlet, NzButtonComponent, Tape, Balance, Disagree],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (desk.current(); as c) {
      <header>
        <h1>
          <span class="mono">{{ c.tag }}</span> <small>{{ title() }}</small>
        </h1>
        <nav aria-label="Stations">
          @for (s of stations; track s.key; let i = $index) {
            <a [routerLink]="['/case', c.id, s.key]" routerLinkActive="here" ariaCurrentWhenActive="step">
              <span class="key mono">{{ i + 1 }}</span> {{ s.word }}
              <span class="lack">{{ lackOf(s.key) }}</span>
            </a>
          }
          <a [routerLink]="['/case', c.id, 'drive']" routerLinkActive="here" ariaCurrentWhenActive="step">
            <span class="key mono">v</span> Drive
            <span class="lack">{{ drawn() }}</span>
          </a>
        </nav>
      </header>
      <main tabindex="-1">
        @if (c.failure; as why) {
          <section class="card" role="alert">
            <h2>▲ This case is set aside</h2>
            <p>
              Something in it cannot be computed ({{ why }}). Its facts are kept and can be taken out; every
              other case works on.
            </p>
            <button nz-button nzType="primary" (click)="files.exportFacts(c)">Facts as JSON</button>
          </section>
        } @else {
          <router-outlet />
        }
      </main>
      <aside aria-label="Tape and balance"><hs-tape /><hs-disagree /><hs-balance /></aside>
    } @else if (!desk.loading()) {
      <main class="gone">
        <h1>No such case here</h1>
        <p>It may be in another browser profile. <a routerLink="/">Back to the rack</a></p>
      </main>
    }
  `,
  styles: `
    :host {
      display: grid;
      grid-template: auto minmax(0, 1fr) / minmax(0, 1fr) 296px;
      height: 100%;
    }
    header {
      grid-column: 1 / -1;
      display: flex;
      gap: 18px;
      align-items: end;
      padding: 8px 14px 0;
      border-bottom: 1px solid var(--rule-strong);
      flex-wrap: wrap;
    }
    h1 {
      font-size: 1.2em;
      padding-bottom: 6px;
      min-width: 190px;
    }
    h1 small {
      display: block;
      font-weight: 400;
    }
    nav {
      display: flex;
      gap: 2px;
      flex-wrap: wrap;
    }
    nav a {
      color: var(--ink);
      padding: 5px 10px 5px;
      border: 1px solid transparent;
      border-bottom: 0;
      border-radius: 4px 4px 0 0;
    }
    nav a.here {
      background: var(--paper-2);
      border-color: var(--rule-strong);
      font-weight: 600;
      margin-bottom: -1px;
    }
    .key {
      color: var(--ink-2);
      font-size: 0.9em;
    }
    .lack {
      display: block;
      font-weight: 400;
      font-size: 0.85em;
      color: var(--ink-2);
    }
    main {
      overflow: auto;
      padding: 12px 14px;
      background: var(--paper);
    }
    aside {
      border-left: 1px solid var(--rule);
      background: var(--paper-3);
      display: flex;
      flex-direction: column;
      min-height: 0;
    }
    hs-tape {
      flex: 1;
      min-height: 0;
    }
    .gone {
      padding: 40px;
    }
    @media (max-width: 1000px) {
      :host {
        display: block;
        overflow: auto;
      }
      aside {
        border-left: 0;
        border-top: 1px solid var(--rule);
        max-height: 60vh;
      }
    }
  `,
})
export class CasePage {
  readonly id = input.required<string>();
  protected readonly desk = inject(CaseDesk);
  protected readonly files = inject(CaseFiles);
  protected readonly stations = STATIONS.map((key) => ({ key, word: STATION_WORDS[key] }));

  constructor() {
    effect(() => {
      const id = this.id();
      untracked(() => void this.desk.open(id));
    });
  }

  protected title(): string {
    const state = this.desk.current()?.state;
    if (!state) return '';
    return (
      [textOf(state, 'engine.code'), textOf(state, 'call.who')].filter(Boolean).join(' · ') ||
      'nothing known yet'
    );
  }

  protected drawn(): string {
    return this.desk.current()?.answers?.drive ? 'to scale' : 'not known yet';
  }

  protected lackOf(station: (typeof STATIONS)[number]): string {
    const view = this.desk.current();
    const a = view?.answers;
    if (!view || !a) return '';
    const n = a.lacks[station].length;
    if (station === 'examine' || station === 'fit') {
      const looks = looksOf(a.registry, view.state, a.possible, station, a.things);
      const of = looks.looked + looks.open.length + looks.notSent.length;
      return `${looks.looked} of ${of} looked at`;
    }
    if (n > 0) return `lacks ${n}`;
    if (station === 'cause') return textOf(view.state, 'cause.decided') ? 'decided' : 'nothing to weigh';
    if (station === 'settle')
      return sealedNow(a.seals) ? 'sealed' : a.seals.length ? 'issue again' : 'nothing to settle';
    return '✓ all needed is here';
  }
}
