import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import type { CaseSummary } from '@core/answer/case-summary';
import { type Task, tasksOf, toDo } from '@core/answer/to-do';
import { PROMISE_DAYS } from '@core/policy/promise';
import { dayOf, daysBetween } from '@core/quantity/dates';
import { Commands, TOUR_NAMES } from '../commands/commands';
import { Setup } from '../commands/setup';
import { Cases } from '../data/cases';
import { Clock } from '../data/clock';
import { Packs } from '../data/packs';
import { deskWords, dueInWords, KIND_WORDS, taskWords } from '../messages/waits';
import { StateCard } from '../ui/state';
import { BeginLine } from './begin-line';
import { Doors } from './doors';

/** Most cases in either list: the ledger has them all. More people than these are chosen there. */
const [MOST_TO_DO, MOST_NEW, MOST_HANDS] = [40, 6, 4];

/** Where a day begins: one line for what came in, what is to be done by when, and what came in last. */
@Component({
  selector: 'hs-welcome-page',
  imports: [NzButtonComponent, RouterLink, BeginLine, Doors, StateCard],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './welcome-page.html',
  styleUrl: './welcome-page.less',
})
export class WelcomePage {
  protected readonly packs = inject(Packs);
  protected readonly cases = inject(Cases);
  protected readonly setup = inject(Setup);
  protected readonly commands = inject(Commands);
  protected readonly tours = TOUR_NAMES;
  private readonly clock = inject(Clock);
  protected readonly kinds = KIND_WORDS;
  protected readonly tasks = taskWords;
  protected readonly due = dueInWords;
  protected readonly most = MOST_TO_DO;
  /** What the list is narrowed to; none for everything and everybody. */
  protected readonly task = signal<Task | undefined>(undefined);
  protected readonly hand = signal<string | undefined>(undefined);
  private readonly all = computed(() => toDo(this.cases.summaries(), PROMISE_DAYS, this.clock.today()));
  protected readonly says = computed(() => deskWords(this.ofHand()));
  /** Whose cases wait; none to choose from where one person does them all, or many do. */
  protected readonly hands = computed(() => {
    const hands = [...new Set(this.all().flatMap((t) => t.summary.hand ?? []))].sort();
    return hands.length > 1 && hands.length <= MOST_HANDS ? hands : [];
  });
  private readonly ofHand = computed(() => {
    const hand = this.hand();
    return hand === undefined ? this.all() : this.all().filter((t) => t.summary.hand === hand);
  });
  protected readonly kindsOfTask = computed(() => tasksOf(this.ofHand()));
  protected readonly list = computed(() => {
    const task = this.task();
    return task === undefined ? this.ofHand() : this.ofHand().filter((t) => t.task === task);
  });
  /** What can wait stands behind one press, unless it is all there is or was asked for by its kind. */
  protected readonly later = signal(false);
  protected readonly urgent = computed(() => {
    const now = this.list().filter((t) => t.days <= 0);
    return this.later() || this.task() !== undefined || now.length === 0 ? this.list() : now;
  });
  protected readonly latest = computed(() =>
    [...this.cases.summaries()].sort((a, b) => (a.opened > b.opened ? -1 : 1)).slice(0, MOST_NEW),
  );

  constructor() {
    this.cases.putBack();
  }

  /** Station that a case waits at; else where it is answered or issued. */
  protected stationOf(h: CaseSummary): string {
    if (h.waits === 'answer' || h.waits === 'told') return 'call';
    return h.waits === 'issue' || h.waits === 'sealed' || h.waits === 'set_aside' ? 'settle' : h.waits;
  }

  protected age(at: string): string {
    const days = daysBetween(dayOf(at), this.clock.today());
    return days <= 0 ? 'today' : `${days} d`;
  }

  /** The same again shows everything. */
  protected narrow(task: Task): void {
    this.task.update((t) => (t === task ? undefined : task));
  }

  protected of(hand: string): void {
    this.hand.update((h) => (h === hand ? undefined : hand));
    this.task.set(undefined);
  }

  protected create(): void {
    void this.commands.newCase();
  }

  protected open(): void {
    this.commands.importAsked.update((n) => n + 1);
  }
}
