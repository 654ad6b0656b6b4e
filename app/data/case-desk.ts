import { computed, inject, Injectable, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { type Answers, answersFor, registryFor } from '@core/answer/answers';
import { applies } from '@core/answer/applies';
import { groupsOf } from '@core/answer/groups';
import { type NamedThing, thingWords } from '@core/answer/things';
import { type Catalogue, catalogueOf, findCode, nearestCodes } from '@core/catalogue/find-records';
import { mostOf } from '@core/catalogue/places';
import { type Pack, packId } from '@core/catalogue/pack';
import { newerFirst } from '@core/catalogue/version';
import { CAUSES, causesFor } from '@core/cause/cause-data';
import { makeSeal } from '@core/claim/seal';
import { fileFact, fileFacts, type NewFact, redoTarget, strikeFact, undoTarget } from '@core/facts/change';
import type { Author, Fact } from '@core/facts/fact';
import type { Observable, Registry, Station } from '@core/facts/observable';
import { findOption, type ReadContext } from '@core/facts/read-value';
import { textOf } from '@core/facts/read';
import { emptyState, reduce, type State } from '@core/facts/state';
import type { Result } from '@core/quantity/result';
import { Clock } from './clock';
import { FactRepository } from './fact-repository';
import { HouseStore } from './house';
import type { StoreTrouble } from './store-trouble';

export type CaseView = {
  id: string;
  tag: string;
  opened: string;
  touched: string;
  state: State;
  answers: Answers | undefined;
  catalogue: Catalogue | undefined;
  /** The case could not be computed: it is set aside, and its facts can be taken out. */
  failure?: string;
};
/** Whether something was filed: only then may the text that was typed go. */
export type Filed = Result<readonly Fact[], StoreTrouble>;

/** All cases as computed from facts, the one in hand, and what can be done to it. */
@Injectable({ providedIn: 'root' })
export class CaseDesk {
  private readonly repository = inject(FactRepository);
  private readonly clock = inject(Clock);
  private readonly house = inject(HouseStore);
  private readonly facts = toSignal(this.repository.facts$, { requireSync: true });
  private readonly packs = toSignal(this.repository.packs$, { requireSync: true });
  private readonly extracts = toSignal(this.repository.extracts$, { requireSync: true });
  private readonly indexes = new WeakMap<Pack, Catalogue>();
  private readonly views = new Map<string, { facts: number; view: CaseView }>();

  /** Id of the case in hand. */
  readonly currentId = signal<string | undefined>(undefined);
  /** Why the last thing was not filed; gone when something is filed again, or when it was read. */
  readonly trouble = signal<StoreTrouble | undefined>(undefined);
  /** Catalogues by pack id. */
  readonly catalogues = computed<ReadonlyMap<string, Catalogue>>(
    () => new Map([...this.packs()].map(([id, pack]) => [id, this.indexed(pack)])),
  );
  /** The pack that new cases answer with: the one issued last. */
  readonly newestPack = computed<Pack | undefined>(() => [...this.packs().values()].sort(newerFirst)[0]);
  readonly cases = computed<CaseView[]>(() => {
    const groups = new Map<string, Fact[]>();
    for (const f of this.facts()) {
      const list = groups.get(f.case);
      if (list) list.push(f);
      else groups.set(f.case, [f]);
    }
    return [...groups]
      .map(([id, facts]) => this.viewOf(id, facts))
      .sort((a, b) => (a.opened < b.opened ? 1 : -1));
  });
  readonly current = computed<CaseView | undefined>(() =>
    this.cases().find((c) => c.id === this.currentId()),
  );

  /** Opens a new case, with what is known of it already. Its id, or why it could not be opened. */
  async newCase(known: readonly NewFact[] = []): Promise<Result<string, StoreTrouble>> {
    const id = crypto.randomUUID();
    const tags = this.cases()
      .map((c) => Number(c.tag))
      .filter(Number.isFinite);
    const pack = this.newestPack();
    const entries: NewFact[] = [
      { key: 'case.tag', value: String(Math.max(2000, ...tags) + 1), how: 'decided' },
      ...(pack ? [{ key: 'case.catalogue', value: packId(pack), how: 'decided' as const }] : []),
      ...known,
    ];
    const filed = await this.extend(id, (state, author) => fileFacts(state, id, entries, author));
    return filed.ok ? { ok: true, value: id } : filed;
  }

  /**
   * Files an entry into the case in hand. An entry may be made from what stands at the time of writing, so that quick
   * changes one after the other each build on the one before. Resolves when it is on the disk, or not filed.
   */
  async file(entry: NewFact | ((state: State) => NewFact | undefined)): Promise<Filed> {
    const id = this.currentId();
    if (id === undefined) return { ok: true, value: [] };
    return this.extend(id, (state, author) => {
      const e = typeof entry === 'function' ? entry(state) : entry;
      return e ? [fileFact(state, id, e, author)] : [];
    });
  }

  /** Files several entries at once: all or nothing. */
  async fileAll(entries: readonly NewFact[]): Promise<Filed> {
    const id = this.currentId();
    if (id === undefined) return { ok: true, value: [] };
    return this.extend(id, (state, author) => fileFacts(state, id, entries, author));
  }

  async strike(fact: Fact): Promise<Filed> {
    return this.extend(fact.case, (state, author) =>
      state.aside.has(fact.id) ? [] : [strikeFact(fact, author)],
    );
  }

  /** Strikes the fact that `find` picks from what stands at the time of writing. */
  private async strikeTarget(
    find: (state: State, by: string) => Fact | undefined,
  ): Promise<Fact | undefined> {
    const id = this.currentId();
    if (id === undefined) return undefined;
    let target: Fact | undefined;
    const filed = await this.extend(id, (state, author) => {
      target = find(state, author.by);
      return target ? [strikeFact(target, author)] : [];
    });
    return filed.ok ? target : undefined;
  }

  undo(): Promise<Fact | undefined> {
    return this.strikeTarget(undoTarget);
  }

  redo(): Promise<Fact | undefined> {
    return this.strikeTarget(redoTarget);
  }

  async seal(): Promise<Filed> {
    const id = this.currentId();
    if (id === undefined) return { ok: true, value: [] };
    return this.extend(id, (state, author) => [makeSeal(state, id, author)]);
  }

  /** The one way in which a case grows. */
  private async extend(id: string, build: (state: State, author: Author) => readonly Fact[]): Promise<Filed> {
    const filed = await this.repository.extend(id, (facts) => build(reduce(facts), this.author()));
    this.trouble.set(filed.ok ? undefined : filed.error);
    return filed;
  }

  author(): Author {
    return { by: this.house.settings().by, now: () => this.clock.now(), newId: () => crypto.randomUUID() };
  }

  /** What reading a typed value needs to know about the case in hand. */
  readonly readContext = computed<ReadContext>(() => {
    const view = this.current();
    const cat = view?.catalogue;
    const causes = view?.answers?.ranking.causes.map((c) => c.cause) ?? [];
    const codes = (table: string): string[] => {
      if (table === 'engine') return [...(cat?.engines.keys() ?? [])];
      return table === 'kit' ? [...(cat?.kits.keys() ?? [])] : [];
    };
    const layouts = view?.answers?.possible.designs.flat().map((s) => s.layout) ?? [];
    return {
      house: this.house.house(),
      most: (on) => mostOf(on, layouts),
      today: this.clock.today(),
      wheels: view?.answers?.drive?.layout.wheels ?? [],
      findRef: (table, typed) =>
        table === 'cause'
          ? findOption(typed, [...causes, { key: 'none', wording: CAUSES.none.wording }])
          : findCode(codes(table), typed),
      nearestRefs: (table, typed) =>
        table === 'cause' ? causes.slice(0, 3).map((c) => c.wording) : nearestCodes(codes(table), typed),
    };
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
  readonly nameOf = (table: string, key: string): string => {
    const answers = this.current()?.answers;
    if (table === 'wheel') return answers?.drive?.layout.wheels.find((w) => w.id === key)?.name ?? key;
    if (table === 'cause') {
      if (key === 'none') return CAUSES.none.wording;
      const own = answers?.ranking.causes.find((c) => c.cause.key === key)?.cause;
      return own?.wording ?? causesFor(undefined).causes.find((c) => c.key === key)?.wording ?? key;
    }
    return key;
  };

  /** A pack's look-ups are made once, whatever else comes in. */
  private indexed(pack: Pack): Catalogue {
    const known = this.indexes.get(pack);
    if (known) return known;
    const made = catalogueOf(pack);
    this.indexes.set(pack, made);
    return made;
  }

  /** Facts only grow, so a case with as many facts and the same catalogue has the same answers. */
  private viewOf(id: string, facts: Fact[]): CaseView {
    const kept = this.views.get(id);
    const same = kept?.facts === facts.length;
    try {
      const state = same ? kept.view.state : reduce(facts);
      const catalogue = this.catalogueFor(id, textOf(state, 'case.catalogue'));
      if (same && kept.view.catalogue === catalogue) return kept.view;
      const head = { ...headOf(id, state), catalogue, answers: undefined };
      const view: CaseView = this.answered(head);
      this.views.set(id, { facts: facts.length, view });
      return view;
    } catch (e) {
      // Facts that cannot even be put in order: the rest of the desk works on.
      return {
        ...headOf(id, emptyState(facts)),
        catalogue: undefined,
        answers: undefined,
        failure: messageOf(e),
      };
    }
  }

  private answered(view: CaseView): CaseView {
    if (!view.catalogue) return view;
    try {
      return { ...view, answers: answersFor(view.catalogue, view.state) };
    } catch (e) {
      return { ...view, failure: messageOf(e) };
    }
  }

  /** The pack that the case names, else the part of one that came with it, else the newest. */
  private catalogueFor(id: string, named: string | undefined): Catalogue | undefined {
    const packs = this.catalogues();
    const own = named === undefined ? undefined : packs.get(named);
    if (own) return own;
    const extract = this.extracts().get(id);
    if (extract) return this.indexed(extract);
    const newest = this.newestPack();
    return newest ? packs.get(packId(newest)) : undefined;
  }

  /** Registry of the case in hand. */
  readonly registry = computed(() => {
    const cat = this.current()?.catalogue;
    return cat ? registryFor(cat) : (new Map() as Registry);
  });
}

const messageOf = (e: unknown): string => (e instanceof Error ? e.message : String(e));
const headOf = (id: string, state: State) => ({
  id,
  tag: textOf(state, 'case.tag') ?? '—',
  opened: state.log[0]?.at ?? '',
  touched: state.log.at(-1)?.at ?? '',
  state,
});
