import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzTabsModule } from 'ng-zorro-antd/tabs';
import { INVENTED_DAY, THREE_YEARS } from '@core/patterns/invented';
import { type Assumed, AssumedSchema } from '@core/patterns/population';
import { formatDay } from '@core/quantity/dates';
import { readNumber } from '@core/quantity/parse-quantity';
import { Notices } from '../commands/notices';
import { PopulationDesk, type PopulationSource } from '../data/population';
import { troubleSentence } from '../data/store-trouble';
import { percent } from '../messages/answers';
import { assumedBounds, patternsOpening, SIGNAL_KIND, signalWords } from '../messages/patterns';
import { Opening } from '../ui/opening';
import { Segmented } from '../ui/segmented';
import { ShortField } from '../ui/short-field';
import { StateCard } from '../ui/state';
import { FaultsPanel } from './faults-panel';
import { LackedPanel } from './lacked-panel';
import { LifePanel } from './life-panel';
import { LotsPanel } from './lots-panel';
import { SignalDetail } from './signal-detail';
import { SoldPanel } from './sold-panel';

/** One fitter, one lot, or one confusing design: what all returns show together. */
@Component({
  selector: 'hs-patterns-page',
  imports: [
    FaultsPanel,
    LackedPanel,
    LifePanel,
    LotsPanel,
    NzButtonComponent,
    NzTabsModule,
    Opening,
    Segmented,
    ShortField,
    SignalDetail,
    SoldPanel,
    StateCard,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './patterns-page.html',
  styleUrl: './patterns-page.less',
})
export class PatternsPage {
  protected readonly desk = inject(PopulationDesk);
  private readonly notices = inject(Notices);
  protected readonly size = THREE_YEARS;
  protected readonly day = formatDay(INVENTED_DAY, 'named');
  protected readonly kinds = SIGNAL_KIND;
  protected readonly words = signalWords;
  protected readonly percent = percent;
  protected readonly sources: readonly { value: PopulationSource; label: string }[] = [
    { value: 'desk', label: 'This desk' },
    { value: 'invented', label: 'An invented one' },
  ];
  /** The tab in sight stays in sight when everything is looked through anew. */
  protected readonly tab = signal(0);
  protected readonly picked = signal<string | undefined>(undefined);
  protected readonly signal = computed(() => {
    const all = this.desk.looked()?.signals ?? [];
    return all.find((s) => s.id === this.picked()) ?? all[0];
  });
  protected readonly opening = computed(() => {
    const l = this.desk.looked();
    return l && patternsOpening(l);
  });

  constructor() {
    void this.desk.open();
  }

  protected choose(source: PopulationSource): void {
    void this.desk.choose(source);
  }

  protected async assume(key: keyof Assumed, typed: string): Promise<void> {
    const value = readNumber(typed);
    const read = AssumedSchema.safeParse({ ...this.desk.assumed(), [key]: value });
    if (!read.success) {
      this.notices.refuse(assumedBounds(key));
      return;
    }
    const done = await this.desk.assume(read.data);
    if (!done.ok) this.notices.refuse(troubleSentence(done.error));
  }
}
