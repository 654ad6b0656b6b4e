import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { applies } from '@core/answer/applies';
import { groupsOf } from '@core/answer/groups';
import { type CaseSummary, summaryFrom, summaryOf } from '@core/answer/case-summary';
import { nameIn, readContextOf } from '@core/answer/read-context';
import { sealing } from '@core/answer/sealing';
import { type NamedThing, thingWords } from '@core/answer/things';
import { registryFor, registryWithout } from '@core/answer/world';
import { canonical } from '@core/facts/canonical';
import {
  byOneAct,
  fileFact,
  fileFacts,
  type NewFact,
  ofOneAct,
  redoTarget,
  retractFact,
  undoTarget,
} from '@core/facts/change';
import type { Author, Fact } from '@core/facts/fact';
import type { Observable, Registry } from '@core/facts/observable';
import type { Station } from '@core/facts/stations';
import { isPractice } from '@core/facts/practice';
import { textOf } from '@core/facts/read';
import type { ReadContext } from '@core/facts/read-value';
import { reduce, type State } from '@core/facts/state';
import { type Result, ok } from '@core/quantity/result';
import { type CaseView, viewOf } from './case-view';
import { Cases } from './cases';
import { Clock } from './clock';
import { DeskKeys } from './desk-keys';
import { FactRepository, type News } from './fact-repository';
import { DeskSettingsStore } from './desk-settings';
import { DeskPolicy } from './desk-policy';
import { Packs } from './packs';
import { type FactKeeper, PracticeRecords } from './practice-records';
import type { StoreTrouble } from './store-trouble';

/** Whether something was filed: only then may the text that was typed go. */
export type Filed = Result<readonly Fact[], StoreTrouble>;
type Build = (state: State, author: Author) => readonly Fact[];

/** The one case in hand, loaded and answered, and what can be done to it. */
@Injectable({ providedIn: 'root' })
export class CaseDesk {
  private readonly repository = inject(FactRepository);
  private readonly practice = inject(PracticeRecords);
  private readonly cases = inject(Cases);
  private readonly packs = inject(Packs);
  private readonly clock = inject(Clock);
  private readonly keys = inject(DeskKeys);
  private readonly settings = inject(DeskSettingsStore);
  private readonly ruled = inject(DeskPolicy);
  private readonly view = signal<CaseView | undefined>(undefined);
  /** Facts keep their identity as long as a case is open, so that what did not change is not computed again. */
  private known = new Map<string, Fact>();
  private opening: Promise<void> = Promise.resolve();
  private writing = 0;

  readonly currentId = this.cases.currentId.asReadonly();
  /** What is in hand is a return for practice: it leaves in no paper and no file. */
  readonly practising = computed(() => isPractice(this.currentId()));
  readonly trouble = this.repository.trouble.asReadonly();
  /** True while the case in hand is being read. */
  readonly loading = signal(false);
  readonly current = computed<CaseView | undefined>(() => {
    const view = this.view();
    return view?.id === this.currentId() ? view : undefined;
  });

  constructor() {
    this.repository.news$.subscribe((news) => this.hear(news));
    // Under other policy and other knowledge the case in hand reads otherwise at once, unless it keeps its own.
    effect(() => {
      const judging = this.ruled.judging();
      untracked(() => {
        const view = this.current();
        if (
          view?.world &&
          (view.world.policy !== judging.policy || view.world.knowledge !== judging.knowledge)
        )
          this.view.set(viewOf(view.id, view.state.log, view.catalogue, judging));
      });
    });
  }

  /** Takes a case in hand; none: puts the one in hand back. Resolves when it is answered. */
  open(id: string | undefined): Promise<void> {
    if (id === this.currentId() && (id === undefined || this.current())) return this.opening;
    this.cases.currentId.set(id);
    this.view.set(undefined);
    this.known = new Map();
    this.loading.set(id !== undefined);
    this.opening = id === undefined ? Promise.resolve() : this.read(id);
    return this.opening;
  }

  /** Opens a new case, with what is known of it already. Its id, or why it could not be opened. */
  async newCase(known: readonly NewFact[] = []): Promise<Result<string, StoreTrouble>> {
    const id = crypto.randomUUID();
    const pack = this.packs.newestId();
    const entries: NewFact[] = [
      { key: 'case.tag', value: this.cases.nextTag(), how: 'decided' },
      ...(pack === undefined ? [] : [{ key: 'case.catalogue', value: pack, how: 'decided' as const }]),
      ...known,
    ];
    const before = this.currentId();
    await this.open(id);
    const filed = await this.extend(id, (state, author) => fileFacts(state, id, entries, author));
    if (filed.ok) return ok(id);
    await this.open(before);
    return filed;
  }

  /**
   * Files an entry into the case in hand. An entry may be made from what stands at the time of writing, so that quick
   * changes one after the other each build on the one before. Resolves when it is on the disk, or not filed.
   */
  async file(entry: NewFact | ((state: State) => NewFact | undefined)): Promise<Filed> {
    return this.grow((id) => (state, author) => {
      const e = typeof entry === 'function' ? entry(state) : entry;
      return e ? [fileFact(state, id, e, author)] : [];
    });
  }

  /** Files several entries at once: all or nothing. */
  async fileAll(entries: readonly NewFact[]): Promise<Filed> {
    return this.grow((id) => (state, author) => byOneAct(fileFacts(state, id, entries, author)));
  }

  async strike(fact: Fact): Promise<Filed> {
    return this.extend(fact.case, (state, author) =>
      state.retracted.has(fact.id) ? [] : [retractFact(fact, author, state.log)],
    );
  }

  /** Takes back all that was ever filed so, in one act: what was corrected does not stand again. */
  strikeAll(which: (f: Fact) => boolean): Promise<Filed> {
    return this.grow(() => (state, author) => {
      const struck = new Set(state.log.flatMap((f) => (state.retracted.has(f.id) ? [] : (f.strikes ?? []))));
      const own = state.log.filter((f) => f.strikes === undefined && !struck.has(f.id) && which(f));
      return byOneAct(own.map((f) => retractFact(f, author, state.log)));
    });
  }

  undo(): Promise<Fact | undefined> {
    return this.strikeTarget(undoTarget);
  }

  redo(): Promise<Fact | undefined> {
    return this.strikeTarget(redoTarget);
  }

  /** Issues the report: seals everything that is known, with how it reads and in which world; signed where this desk has a key. */
  async seal(): Promise<Filed> {
    if (this.practising()) return ok([]);
    const world = this.current()?.world;
    const sealed = await this.grow(
      (id) => (state, author) => (world ? sealing(world, state, id, author) : []),
    );
    const seal = sealed.ok ? sealed.value.findLast((f) => f.key === 'report.issue') : undefined;
    const signed = seal && (await this.keys.sign(seal));
    // A seal that could not be signed stands all the same.
    if (seal && signed)
      await this.extend(seal.case, (state, author) => [fileFact(state, seal.case, signed, author)]);
    return sealed;
  }

  /** Strikes the fact that `find` picks from what stands at the time of writing. */
  private async strikeTarget(
    find: (state: State, by: string) => Fact | undefined,
  ): Promise<Fact | undefined> {
    let target: Fact | undefined;
    const filed = await this.grow(() => (state, author) => {
      target = find(state, author.by);
      return target ? byOneAct(ofOneAct(state, target).map((f) => retractFact(f, author, state.log))) : [];
    });
    return filed.ok ? target : undefined;
  }

  private async grow(build: (id: string) => Build): Promise<Filed> {
    const id = this.currentId();
    return id === undefined ? ok([]) : this.extend(id, build(id));
  }

  /** The one way in which a case grows. Its answers and its summary follow when the facts are on the disk. */
  private async extend(id: string, build: Build): Promise<Filed> {
    const view = this.current();
    const before = view?.id === id && view.failure === undefined ? view : undefined;
    this.writing++;
    const filed = await this.keeperOf(id).extend(
      id,
      (facts) =>
        build(facts === before?.state.log ? before.state : reduce(this.same(id, facts)), this.author()),
      before?.state.log,
    );
    this.writing--;
    if (!filed.ok) return filed;
    const { all, fresh } = filed.value;
    if (fresh.length === 0) return ok(fresh);
    const catalogue = before ? before.catalogue : this.packs.newest();
    await this.show(viewOf(id, this.same(id, all), catalogue, this.ruled.judging(), before), true);
    return ok(fresh);
  }

  private keeperOf(id: string): FactKeeper {
    return isPractice(id) ? this.practice : this.repository;
  }

  private async read(id: string): Promise<void> {
    const [read] = await Promise.all([this.keeperOf(id).factsOf(id), this.ruled.ready()]);
    const facts = this.same(id, read);
    if (facts.length > 0)
      await this.show(viewOf(id, facts, this.current()?.catalogue, this.ruled.judging(), this.current()));
    if (id === this.currentId()) this.loading.set(false);
  }

  /**
   * Shows a case with the catalogue that it names, which may have to be read first. The head on the rack is written anew
   * when it says otherwise; nobody waits for that.
   */
  private async show(view: CaseView, grown = false): Promise<void> {
    const catalogue = await this.packs.forCase(view.id, textOf(view.state, 'case.catalogue'));
    const right =
      catalogue === view.catalogue ? view : viewOf(view.id, view.state.log, catalogue, this.ruled.judging());
    // Facts only grow: what has fewer of them is older than what is shown.
    const shown = this.current();
    if (view.id === this.currentId()) {
      if (shown && shown.state.log.length > right.state.log.length) return;
      this.view.set(right);
      this.loading.set(false);
    }
    // a return for practice stands on no rack, in no list and in no count
    if (isPractice(view.id)) return;
    const summary = this.summaryOf(right);
    const kept = this.cases.summaries().find((h) => h.id === summary.id);
    if (grown || canonical(kept) !== canonical(summary))
      void this.repository.keepSummaries([{ summary, facts: right.state.log.length }]);
  }

  private summaryOf(view: CaseView): CaseSummary {
    if (view.failure !== undefined) return summaryOf(view.id, view.state.log, view.world);
    return summaryFrom(view.id, view.state, view.world, view.answers);
  }

  /** The facts of the case in hand as they are known already. */
  private same(id: string, facts: readonly Fact[]): Fact[] {
    if (id !== this.currentId()) return [...facts];
    return facts.map((f) => {
      const mine = this.known.get(f.id) ?? f;
      this.known.set(f.id, mine);
      return mine;
    });
  }

  /** Something was written: the case in hand is read again when it is one of those and this desk did not do it. */
  private hear(news: News): void {
    const [view, id] = [this.current(), this.currentId()];
    if (this.writing > 0) return;
    // A case that was not here when it was asked for may have come since.
    if (!view && id !== undefined && news.grown.includes(id)) void this.read(id);
    if (!view) return;
    if (news.extracts.includes(view.id) || news.grown.includes(view.id)) void this.read(view.id);
  }

  author(): Author {
    return { by: this.settings.settings().by, now: () => this.clock.now(), newId: () => crypto.randomUUID() };
  }

  /** What reading a typed value needs to know about the case in hand. */
  readonly readContext = computed<ReadContext>(() => {
    const view = this.current();
    return readContextOf(view?.answers, view?.catalogue, this.settings.notation(), this.clock.today());
  });

  /** Can this be filed of a drive that is still possible? */
  readonly applies = computed<(o: Observable, about?: string) => boolean>(() => {
    const possible = this.current()?.answers?.possible;
    return (o, about) => possible === undefined || applies(o, possible, about);
  });

  /** Named groups of fields of a station, of the case in hand. */
  groupsAt(station: Station): ReturnType<typeof groupsOf> {
    const a = this.current()?.answers;
    return a ? groupsOf(a.registry, station, a.possible) : [];
  }

  /** Things of the case in hand that facts can be about by name. */
  readonly things = computed<readonly NamedThing[]>(() => this.current()?.answers?.things ?? []);
  /** What tells a thing from others of its kind. */
  readonly thing = (id: string | undefined): string => thingWords(this.things(), id);

  /** Name of a record for showing. */
  readonly nameOf = (table: string, key: string): string => nameIn(this.current()?.answers, table, key);

  /** What can be filed into the case in hand; without its catalogue, what no catalogue has to name. */
  readonly registry = computed<Registry>(() => {
    const world = this.current()?.world;
    return world ? registryFor(world) : registryWithout(this.ruled.judging().knowledge);
  });
}
