import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  untracked,
} from '@angular/core';
import { RouterLink, RouterLinkActive, RouterOutlet } from '@angular/router';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { failedOf } from '@core/answer/answers';
import { standingAt } from '@core/answer/standing';
import { type Station, stationName, STATIONS } from '@core/facts/stations';
import { textOf } from '@core/facts/read';
import { CaseDesk } from '../data/case-desk';
import { PracticeBench } from '../data/practice-bench';
import { ShelfState } from '../data/shelf-state';
import { StoppedLots } from '../data/stopped-lots';
import { Bulletins } from '../data/bulletins';
import { bulletinWords } from '../messages/bulletins';
import { stopWords } from '../messages/patterns';
import { standingWords } from '../messages/waits';
import { CaseExports } from '../commands/case-exports';
import { Wedge } from '../commands/wedge';
import { DeskSettingsStore } from '../data/desk-settings';
import { StateCard } from '../ui/state';
import { BesideStrip } from './beside-strip';
import { AnswerNews } from './answer-news';
import { Balance } from './balance';
import { HelpStrip } from './help-strip';
import { Disagree } from './disagree';
import { PracticeStrip } from './practice-strip';
import { Tape } from './tape';

/** One case: stations on top, the bench, and the tape with the balance. */
@Component({
  selector: 'hs-case-page',
  imports: [
    RouterLink,
    RouterLinkActive,
    RouterOutlet,
    NzButtonComponent,
    Tape,
    Balance,
    Disagree,
    HelpStrip,
    AnswerNews,
    BesideStrip,
    StateCard,
    PracticeStrip,
  ],
  providers: [Wedge],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: {
    '[class.rail]': "settings.settings().tape === 'rail'",
    '[class.practice]': 'desk.practising()',
  },
  template: `
    @if (desk.current(); as c) {
      <header>
        @if (desk.practising()) {
          <hs-practice-strip />
        }
        <h1>
          <span class="mono">{{ c.tag }}</span
          >&ngsp;
          @if (known()) {
            <a [routerLink]="['/catalogue/engine', engine()]" title="Its page in the catalogue">{{
              engine()
            }}</a>
          } @else {
            {{ engine() }}
          }
          &ngsp;<small [title]="who()">{{ who() }}</small>
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
        <hs-beside-strip />
        @if (c.failure; as why) {
          <hs-state kind="failed" title="This case is set aside" [urgent]="true">
            <p>
              Something in it cannot be computed ({{ why }}). Its facts are kept and can be taken out; every
              other case works on.
            </p>
            <button nz-button nzType="primary" (click)="files.exportFacts(c)">Facts as JSON</button>
          </hs-state>
        } @else {
          @if (!c.catalogue) {
            <hs-state kind="failed" title="No catalogue answers this case">
              <p>
                {{ named() ? named() + ' is not in this browser, or of an earlier make.' : 'It names none.' }}
                Its facts are kept; import a <a routerLink="/catalogue">catalogue</a>, and they are answered.
              </p>
              <button nz-button (click)="files.exportFacts(c)">Facts as JSON</button>
            </hs-state>
          }
          @for (f of failed(); track f.name) {
            <hs-state kind="failed" title="One answer could not be computed">
              <p>{{ f.name }}: {{ f.why }}. What it stands on is kept; everything else of the case stands.</p>
            </hs-state>
          }
          @for (words of told(); track words) {
            <p class="caution" role="note">{{ words }}</p>
          }
          <router-outlet />
        }
      </main>
      <hs-help-strip />
      <hs-answer-news />
      <aside aria-label="Tape and balance">
        <hs-tape />
        @if (settings.settings().tape !== 'rail') {
          @if (bench.undecided()) {
            <p class="quiet aside">Practice: the desk keeps its opinion back until you have given yours.</p>
          } @else {
            <hs-disagree /><hs-balance />
          }
        }
      </aside>
    } @else if (desk.loading() || shelf.fetching() === 'coming') {
      <main class="gone"><hs-state kind="loading" title="Reading the case…" /></main>
    } @else if (shelf.fetching() === 'away') {
      <main class="gone">
        <hs-state kind="offline" title="This case lies on the shelf, which is out of reach">
          <p>Here is only its line on the rack. It comes when the shelf is back; everything else works on.</p>
        </hs-state>
      </main>
    } @else {
      <main class="gone">
        <hs-state kind="empty" title="No such case here">
          <p>It may be in another browser profile. <a routerLink="/">Back to the rack</a></p>
        </hs-state>
      </main>
    }
  `,
  styleUrl: './case-page.less',
})
export class CasePage {
  readonly id = input.required<string>();
  protected readonly desk = inject(CaseDesk);
  protected readonly bench = inject(PracticeBench);
  protected readonly shelf = inject(ShelfState);
  /** Answers of this case that threw: each is told, the rest stands. */
  protected readonly failed = computed(() => {
    const a = this.desk.current()?.answers;
    return a ? failedOf(a) : [];
  });
  protected readonly files = inject(CaseExports);
  private readonly stops = inject(StoppedLots);
  private readonly bulletins = inject(Bulletins);
  protected readonly settings = inject(DeskSettingsStore);
  protected readonly stations = STATIONS.map((key) => ({ key, word: stationName(key) }));

  constructor() {
    // Calipers and scanners are listened to while a case is open.
    inject(Wedge);
    effect(() => {
      const id = this.id();
      untracked(() => void this.desk.open(id));
    });
  }

  /** What came of this kit elsewhere: its lot was stopped, bulletins stand about its steps. */
  protected readonly told = computed(() => {
    const kit = this.said('kit.number');
    const stop = this.stops.of(kit, this.said('kit.lot'));
    return [
      ...(stop ? [stopWords(stop, this.settings.settings().dateOrder)] : []),
      ...this.bulletins.of(kit).map((b) => bulletinWords(b, this.desk.current()?.answers?.sheet)),
    ];
  });
  protected readonly engine = computed(() => this.said('engine.code') || 'no engine yet');
  protected readonly known = computed(() => this.desk.current()?.answers?.engine !== undefined);
  /** The catalogue that the case names. */
  protected readonly named = computed(() => this.said('case.catalogue'));
  protected readonly who = computed(() => this.said('call.who') || 'nobody named yet');

  private said(key: string): string {
    const state = this.desk.current()?.state;
    return (state && textOf(state, key)) ?? '';
  }

  protected drawn(): string {
    return this.desk.current()?.answers?.drive ? 'to scale' : 'not known yet';
  }

  protected lackOf(station: Station): string {
    const view = this.desk.current();
    return view?.answers ? standingWords(standingAt(station, view.answers, view.state)) : '';
  }
}
