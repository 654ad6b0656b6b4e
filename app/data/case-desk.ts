import { computed, inject, Injectable, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { type Answers, answersFor, registryFor } from '@core/answer/answers';
import { type Catalogue, catalogueOf, findCode } from '@core/catalogue/find-records';
import { type Pack, packId } from '@core/catalogue/pack';
import { CAUSES } from '@core/cause/cause-data';
import { makeSeal } from '@core/claim/seal';
import { fileFact, type NewFact, redoTarget, strikeFact, undoTarget } from '@core/facts/change';
import type { Author, Fact } from '@core/facts/fact';
import type { Registry } from '@core/facts/observable';
import type { ReadContext } from '@core/facts/read-value';
import { reduce, type State, textOf } from '@core/facts/state';
import { Clock } from './clock';
import { FactRepository } from './fact-repository';
import { HouseStore } from './house';

export type CaseView = {
  id: string;
  tag: string;
  opened: string;
  touched: string;
  state: State;
  answers: Answers | undefined;
  catalogue: Catalogue | undefined;
};

/** All cases as computed from facts, the one in hand, and what can be done to it. */
@Injectable({ providedIn: 'root' })
export class CaseDesk {
  private readonly repository = inject(FactRepository);
  private readonly clock = inject(Clock);
  private readonly house = inject(HouseStore);
  private readonly facts = toSignal(this.repository.facts$, { requireSync: true });
  private readonly packs = toSignal(this.repository.packs$, { requireSync: true });
  private readonly indexes = new WeakMap<Pack, Catalogue>();
  private readonly views = new Map<string, { facts: number; view: CaseView }>();

  /** Id of the case in hand. */
  readonly currentId = signal<string | undefined>(undefined);
  /** Catalogues by pack id. */
  readonly catalogues = computed<ReadonlyMap<string, Catalogue>>(
    () => new Map([...this.packs()].map(([id, pack]) => [id, this.indexed(pack)])),
  );
  /** The pack that new cases answer with: the one issued last. */
  readonly newestPack = computed<Pack | undefined>(
    () =>
      [...this.packs().values()].sort((a, b) =>
        a.issued < b.issued ? 1 : a.issued > b.issued ? -1 : a.version < b.version ? 1 : -1,
      )[0],
  );
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

  /** Opens a new case, with what is known of it already, and returns its id. */
  async newCase(known: readonly NewFact[] = []): Promise<string> {
    const id = crypto.randomUUID();
    const author = this.author();
    const tags = this.cases()
      .map((c) => Number(c.tag))
      .filter(Number.isFinite);
    const tag = String(Math.max(2000, ...tags) + 1);
    const facts = [fileFact(reduce([]), id, { key: 'case.tag', value: tag, how: 'decided' }, author)];
    const pack = this.newestPack();
    if (pack)
      facts.push(
        fileFact(reduce(facts), id, { key: 'case.catalogue', value: packId(pack), how: 'decided' }, author),
      );
    for (const entry of known) facts.push(fileFact(reduce(facts), id, entry, author));
    await this.repository.add(facts);
    return id;
  }

  async file(entry: NewFact): Promise<void> {
    const view = this.current();
    if (view) await this.repository.add([fileFact(view.state, view.id, entry, this.author())]);
  }

  async strike(fact: Fact): Promise<void> {
    await this.repository.add([strikeFact(fact, this.author())]);
  }

  /** The fact that undo, or redo, would put aside. */
  readonly undoable = computed(() => this.target(undoTarget));
  readonly redoable = computed(() => this.target(redoTarget));

  async undo(): Promise<Fact | undefined> {
    const target = this.undoable();
    if (target) await this.strike(target);
    return target;
  }

  async redo(): Promise<Fact | undefined> {
    const target = this.redoable();
    if (target) await this.strike(target);
    return target;
  }

  async seal(): Promise<Fact | undefined> {
    const view = this.current();
    if (!view) return undefined;
    const seal = makeSeal(view.state, view.id, this.author());
    await this.repository.add([seal]);
    return seal;
  }

  author(): Author {
    return { by: this.house.settings().by, now: () => this.clock.now(), newId: () => crypto.randomUUID() };
  }

  /** What reading a typed value needs to know about the case in hand. */
  readonly readContext = computed<ReadContext>(() => {
    const view = this.current();
    const cat = view?.catalogue;
    return {
      house: this.house.house(),
      today: this.clock.today(),
      wheels: view?.answers?.drive?.layout.wheels ?? [],
      findRef: (table, typed) => {
        if (table === 'engine') return findCode(cat?.engines.keys() ?? [], typed);
        if (table === 'kit') return findCode(cat?.kits.keys() ?? [], typed);
        return undefined;
      },
    };
  });

  /** Name of a record for showing. */
  readonly nameOf = (table: string, key: string): string => {
    if (table === 'wheel')
      return this.current()?.answers?.drive?.layout.wheels.find((w) => w.id === key)?.name ?? key;
    if (table === 'cause')
      return key === 'none'
        ? CAUSES.none.wording
        : (CAUSES.causes.find((c) => c.key === key)?.wording ?? key);
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

  private target(find: (state: State, by: string) => Fact | undefined): Fact | undefined {
    const view = this.current();
    return view ? find(view.state, this.house.settings().by) : undefined;
  }

  /** Facts only grow, so a case with as many facts and the same catalogue has the same answers. */
  private viewOf(id: string, facts: Fact[]): CaseView {
    const kept = this.views.get(id);
    const state = kept?.facts === facts.length ? kept.view.state : reduce(facts);
    const packs = this.catalogues();
    const named = textOf(state, 'case.catalogue');
    const newest = this.newestPack();
    const catalogue =
      (named === undefined ? undefined : packs.get(named)) ??
      (newest ? packs.get(packId(newest)) : undefined);
    if (kept?.facts === facts.length && kept.view.catalogue === catalogue) return kept.view;
    const view: CaseView = {
      id,
      tag: textOf(state, 'case.tag') ?? '—',
      opened: state.log[0]?.at ?? '',
      touched: state.log.at(-1)?.at ?? '',
      state,
      catalogue,
      answers: catalogue ? answersFor(catalogue, state) : undefined,
    };
    this.views.set(id, { facts: facts.length, view });
    return view;
  }

  /** Registry of the case in hand. */
  readonly registry = computed(() => {
    const cat = this.current()?.catalogue;
    return cat ? registryFor(cat) : (new Map() as Registry);
  });
}
