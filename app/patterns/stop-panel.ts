import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  signal,
  untracked,
} from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import type { LotMonths } from '@core/patterns/charts';
import type { ToCome } from '@core/patterns/to-come';
import type { WhoHas } from '@core/patterns/who-has';
import { Notices } from '../commands/notices';
import { PatternPapers } from '../commands/pattern-papers';
import { DeskSettingsStore } from '../data/desk-settings';
import { PopulationDesk } from '../data/population';
import { StoppedLots } from '../data/stopped-lots';
import { troubleSentence } from '../data/store-trouble';
import { counted } from '../language/plural';
import { marketWords, shopHasWords } from '../messages/bulletins';
import { stopWords, toComeWords } from '../messages/patterns';
import { LineField } from '../ui/line-field';
import { LotMonthsCard } from './lot-months-card';

/** Months ahead that returns are counted for. */
const AHEAD = 12;
/** Workshops that are named at once. */
const MOST_SHOPS = 6;

/** One lot: how it came back, what is still to come, who has it, and whether it is stopped; stopped or released with a reason. */
@Component({
  selector: 'hs-stop-panel',
  imports: [LineField, LotMonthsCard, NzButtonComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="card" [attr.aria-label]="'Lot ' + lot()">
      <h2>
        Lot <span class="code">{{ lot() }}</span> of <span class="code">{{ kit() }}</span>
      </h2>
      @if (months(); as m) {
        <hs-lot-months [lot]="lot()" [of]="m" />
      }
      @if (coming(); as c) {
        <p>{{ comingWords(c) }}</p>
      }
      @if (has(); as h) {
        <ul aria-label="Who has it">
          @for (line of lines(); track line) {
            <li>{{ line }}</li>
          }
        </ul>
      }
      @if (stop()) {
        <p class="caution">{{ words() }}</p>
        <div class="row">
          <button nz-button nzSize="small" [disabled]="papers.making() || letters() === 0" (click)="write()">
            {{ letterWords() }}
          </button>
          <small class="quiet">{{
            invented()
              ? 'Invented: nothing of it is kept.'
              : 'Every case on this lot says that it is stopped.'
          }}</small>
        </div>
      }
      <hs-line-field
        [label]="stop() ? 'Why it may go out again' : 'Why it is stopped'"
        [value]="reason()"
        (typed)="reason.set($event)"
      />
      <button
        nz-button
        nzSize="small"
        [nzType]="stop() ? 'default' : 'primary'"
        [disabled]="reason().trim() === ''"
        (click)="file()"
      >
        {{ stop() ? 'Release it' : 'Stop this lot' }}
      </button>
    </section>
  `,
  styles: `
    section {
      display: grid;
      gap: 6px;
      grid-template-columns: minmax(0, 1fr);
      justify-items: start;
    }
    hs-line-field {
      justify-self: stretch;
    }
    p {
      margin: 0;
    }
    ul {
      margin: 0;
      padding-left: 18px;
    }
  `,
})
export class StopPanel {
  readonly kit = input.required<string>();
  readonly lot = input.required<string>();
  private readonly desk = inject(PopulationDesk);
  private readonly stops = inject(StoppedLots);
  private readonly settings = inject(DeskSettingsStore);
  private readonly notices = inject(Notices);
  protected readonly papers = inject(PatternPapers);
  protected readonly invented = computed(() => this.desk.source() === 'invented');
  protected readonly reason = signal('');
  protected readonly coming = signal<ToCome | undefined>(undefined);
  protected readonly has = signal<WhoHas | undefined>(undefined);
  protected readonly months = signal<LotMonths | undefined>(undefined);
  protected readonly comingWords = toComeWords;
  protected readonly stop = computed(() => this.stops.of(this.kit(), this.lot(), this.invented()));
  protected readonly words = computed(() => {
    const s = this.stop();
    return s ? stopWords(s, this.settings.settings().dateOrder) : '';
  });
  protected readonly lines = computed(() => {
    const has = this.has();
    if (!has) return [];
    const more = has.shops.length - MOST_SHOPS;
    return [
      ...has.markets.map(marketWords),
      ...has.shops.slice(0, MOST_SHOPS).map(shopHasWords),
      ...(more > 0 ? [`and ${counted(more, 'workshop', 'workshops')} more`] : []),
    ];
  });
  protected readonly letters = computed(() => {
    const has = this.has();
    return has ? has.markets.length + has.shops.length : 0;
  });
  protected readonly letterWords = computed(() => counted(this.letters(), 'letter', 'letters') + ' as PDF');

  constructor() {
    effect(() => {
      const [kit, lot] = [this.kit(), this.lot()];
      untracked(() => {
        this.reason.set('');
        this.coming.set(undefined);
        this.has.set(undefined);
        this.months.set(undefined);
        void this.fetch(kit, lot);
      });
    });
  }

  private async fetch(kit: string, lot: string): Promise<void> {
    const [coming, known] = await Promise.all([this.desk.toCome(kit, lot, AHEAD), this.desk.lot(kit, lot)]);
    if (this.kit() !== kit || this.lot() !== lot) return;
    this.coming.set(coming);
    this.has.set(known.has);
    this.months.set(known.months);
  }

  protected async file(): Promise<void> {
    const does = this.stop() ? 'release' : 'stop';
    const done = await this.stops.file(this.kit(), this.lot(), does, this.reason().trim(), this.invented());
    if (done.ok) this.reason.set('');
    else this.notices.refuse(troubleSentence(done.error));
  }

  /** A letter for each who has some of it. */
  protected write(): void {
    const [stop, has] = [this.stop(), this.has()];
    if (!stop || !has) return;
    void this.papers.pdf(`stop-${this.kit()}-${this.lot()}`, this.invented(), (p, head) =>
      p.stopLetters(head, stop, has),
    );
  }
}
