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
import type { ToCome } from '@core/patterns/to-come';
import { Notices } from '../commands/notices';
import { DeskSettingsStore } from '../data/desk-settings';
import { PopulationDesk } from '../data/population';
import { StoppedLots } from '../data/stopped-lots';
import { troubleSentence } from '../data/store-trouble';
import { stopWords, toComeWords } from '../messages/patterns';
import { LineField } from '../ui/line-field';

/** Months ahead that returns are counted for. */
const AHEAD = 12;

/** One lot: what is still to come of it, and whether it is stopped; stopped or released with a reason. */
@Component({
  selector: 'hs-stop-panel',
  imports: [LineField, NzButtonComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="card" [attr.aria-label]="'Lot ' + lot()">
      <h2>
        Lot <span class="code">{{ lot() }}</span> of <span class="code">{{ kit() }}</span>
      </h2>
      @if (coming(); as c) {
        <p>{{ comingWords(c) }}</p>
      }
      @if (desk.source() === 'invented') {
        <p class="quiet">An invented lot can be looked at, not stopped.</p>
      } @else {
        @if (stop(); as s) {
          <p class="caution">{{ words() }}</p>
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
        @if (stop()) {
          <small class="quiet">Every case on this lot says so, and at each call on it.</small>
        }
      }
    </section>
  `,
  styles: `
    section {
      display: grid;
      gap: 6px;
      justify-items: start;
    }
    hs-line-field {
      justify-self: stretch;
    }
    p {
      margin: 0;
    }
  `,
})
export class StopPanel {
  readonly kit = input.required<string>();
  readonly lot = input.required<string>();
  protected readonly desk = inject(PopulationDesk);
  private readonly stops = inject(StoppedLots);
  private readonly settings = inject(DeskSettingsStore);
  private readonly notices = inject(Notices);
  protected readonly reason = signal('');
  protected readonly coming = signal<ToCome | undefined>(undefined);
  protected readonly comingWords = toComeWords;
  protected readonly stop = computed(() => this.stops.of(this.kit(), this.lot()));
  protected readonly words = computed(() => {
    const s = this.stop();
    return s ? stopWords(s, this.settings.settings().dateOrder) : '';
  });

  constructor() {
    effect(() => {
      const [kit, lot] = [this.kit(), this.lot()];
      untracked(() => {
        this.reason.set('');
        this.coming.set(undefined);
        void this.desk.toCome(kit, lot, AHEAD).then((c) => {
          if (this.kit() === kit && this.lot() === lot) this.coming.set(c);
        });
      });
    });
  }

  protected async file(): Promise<void> {
    const does = this.stop() ? 'release' : 'stop';
    const done = await this.stops.file(this.kit(), this.lot(), does, this.reason().trim());
    if (done.ok) this.reason.set('');
    else this.notices.refuse(troubleSentence(done.error));
  }
}
