import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  signal,
  untracked,
} from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { lotFacts, lotTimes } from '@core/answer/lot-times';
import { supplierShare, suspectTimes } from '@core/cause/suspect-lot';
import { causesFor } from '@core/cause/cause-data';
import { standing, textOf } from '@core/facts/read';
import { Notices } from '../../commands/notices';
import { CaseDesk } from '../../data/case-desk';
import { PopulationDesk } from '../../data/population';
import { troubleSentence } from '../../data/store-trouble';
import { lotOfCaseWords, lotWeighsWords } from '../../messages/patterns';

/** Whether the lot of the case weighs among its causes: never by itself, only once somebody holds it against the others, and it can be left out again. */
@Component({
  selector: 'hs-lot-line',
  imports: [NzButtonComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (lot(); as l) {
      <section class="card" aria-label="Lot of this case">
        @if (weighs(); as w) {
          <p>{{ w }}</p>
          <button nz-button nzSize="small" (click)="leaveOut()">Leave the lot out</button>
        } @else {
          @if (told(); as t) {
            <p role="status">{{ t }}</p>
          }
          <button nz-button nzSize="small" [disabled]="asking()" (click)="hold()">
            Hold lot {{ l }} against the others of its kit
          </button>
        }
      </section>
    }
  `,
  styles: `
    section {
      display: grid;
      gap: 5px;
      justify-items: start;
    }
    p {
      margin: 0;
    }
  `,
})
export class LotLine {
  private readonly desk = inject(CaseDesk);
  private readonly population = inject(PopulationDesk);
  private readonly notices = inject(Notices);
  private readonly state = computed(() => this.desk.current()?.state);
  protected readonly asking = signal(false);
  protected readonly told = signal('');
  private readonly said = (key: string): string | undefined => {
    const state = this.state();
    return state && textOf(state, key);
  };
  protected readonly lot = computed(() => (this.said('kit.number') ? this.said('kit.lot') : undefined));
  protected readonly weighs = computed(() => {
    const [view, lot] = [this.desk.current(), this.lot()];
    const times = view && lotTimes(view.state);
    if (!view?.world || !view.answers || lot === undefined || times === undefined) return undefined;
    const { possible, kind } = view.answers;
    const usual = causesFor(view.world.knowledge.causes, possible.has, kind);
    return lotWeighsWords(lot, times, suspectTimes(supplierShare(usual), times));
  });

  constructor() {
    effect(() => {
      this.lot();
      untracked(() => this.told.set(''));
    });
  }

  /** Files how often its lot comes back, where that is more than chance brings. */
  protected async hold(): Promise<void> {
    const [view, kit, lot] = [this.desk.current(), this.said('kit.number'), this.lot()];
    if (!view || kit === undefined || lot === undefined) return;
    this.asking.set(true);
    const found = await this.population.lotOfCase(kit, lot, view.id);
    this.asking.set(false);
    if (this.desk.current()?.id !== view.id) return;
    if (!found) {
      this.told.set(
        `It is not known how many of lot ${lot}, or of other lots of ${kit}, were sold: bring that in under Patterns.`,
      );
      return;
    }
    const words = lotOfCaseWords(lot, found);
    const times = Math.floor(10 * found.interval.from) / 10;
    if (!(times > 1)) {
      this.told.set(`${words} That is no more than chance brings, and weighs nothing.`);
      return;
    }
    const basis = lotFacts(view.state);
    const filed = await this.desk.file({ key: 'kit.lot_times', value: times, how: 'computed', basis });
    if (!filed.ok) this.notices.refuse(troubleSentence(filed.error));
  }

  protected async leaveOut(): Promise<void> {
    const state = this.state();
    const fact = state && standing(state, 'kit.lot_times');
    if (!fact) return;
    const struck = await this.desk.strike(fact);
    if (!struck.ok) this.notices.refuse(troubleSentence(struck.error));
  }
}
