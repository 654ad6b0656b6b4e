import { counted } from '../../language/plural';
import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { LimitedInspection, ExaminedThing } from '@core/answer/examined';
import { MAPPED } from '@core/examination/damage-map';
import { filedOf, placedOf, textOf } from '@core/facts/read';
import { emptyState, type State } from '@core/facts/state';
import { AlikeCases, type AlikeCase } from '../../data/alike-cases';
import { CaseDesk } from '../../data/case-desk';
import type { Session } from '../../entry/session';
import { loopPicture } from '../../part-drawings/long-pictures';
import type { ThingPicture } from '../../part-drawings/picture';
import { thingPicture } from '../../part-drawings/thing-picture';
import { newWords } from '../../messages/compare';
import { ExamineStore, thingId } from './examine-store';
import { ThingFigure } from './thing-figure';

type Cell = {
  key: string;
  name: string;
  picture: ThingPicture | undefined;
  says: string;
  mine: boolean;
  link?: string;
};

/** The thing in hand beside a new one, its like in this box, and the same part of other returns, at the inspection in hand. */
@Component({
  selector: 'hs-compare-panel',
  imports: [RouterLink, ThingFigure],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ul aria-label="Side by side">
      @for (c of cells(); track c.key) {
        <li [class.mine]="c.mine">
          @if (c.picture; as p) {
            <hs-thing-figure [picture]="p" [label]="c.name" />
          }
          <b>
            @if (c.link; as to) {
              <a [routerLink]="to">{{ c.name }}</a>
            } @else {
              {{ c.name }}
            }
          </b>
          <span>{{ c.says }}</span>
        </li>
      }
    </ul>
    @if (others() && others()!.length === 0) {
      <p class="quiet">No other return of this engine or number has been examined here.</p>
    }
  `,
  styles: `
    ul {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(116px, 1fr));
      gap: 8px;
      margin: 0;
      padding: 0;
      list-style: none;
    }
    li {
      display: grid;
      grid-template-rows: 84px auto auto;
      gap: 2px;
      padding: 4px;
      border: 1px solid var(--rule);
      border-radius: 4px;
      line-height: 1.25;
    }
    .mine {
      border-color: var(--verdigris);
      background: var(--verdigris-soft);
    }
    hs-thing-figure {
      height: 84px;
    }
    p {
      margin: 4px 0 0;
    }
  `,
})
export class CompareThingsPanel {
  readonly thing = input.required<ExaminedThing>();
  readonly inspection = input.required<LimitedInspection>();
  readonly session = input.required<Session>();
  private readonly desk = inject(CaseDesk);
  private readonly store = inject(ExamineStore);
  private readonly alike = inject(AlikeCases);
  /** None while they are still looked for. */
  protected readonly others = signal<readonly AlikeCase[] | undefined>(undefined);

  /** What others have to be like; a fact that is filed does not have them looked for again. */
  private readonly like = computed(
    () => {
      const [view, thing] = [this.desk.current(), this.thing()];
      if (!view) return undefined;
      const numbers = [textOf(view.state, 'kit.number'), thing.part?.number].filter((n) => n !== undefined);
      const keys = thing.inspections.map((l) => l.inspection.key);
      return { id: view.id, engine: textOf(view.state, 'engine.code') ?? '', numbers, keys };
    },
    { equal: (a, b) => JSON.stringify(a) === JSON.stringify(b) },
  );

  constructor() {
    let asked = 0;
    effect(() => {
      const like = this.like();
      const mine = ++asked;
      if (like)
        void this.alike.find(like, like.keys).then((found) => {
          if (mine === asked) this.others.set(found);
        });
    });
  }

  protected readonly cells = computed((): Cell[] => {
    const [view, thing, inspection] = [this.desk.current(), this.thing(), this.inspection()];
    if (!view) return [];
    const cell = (name: string, key: string, state: State, t: ExaminedThing, says: string): Cell => ({
      key,
      name,
      picture: this.pictureOf(t, state),
      says,
      mine: t === thing && state === view.state,
    });
    const here = this.store.things().filter((t) => t.kind === thing.kind && t.came !== 'not_sent');
    return [
      cell('New', 'new', emptyState([]), { ...thing, about: undefined }, newWords(inspection)),
      ...here.map((t) =>
        cell(t === thing ? 'In hand' : t.wording, thingId(t), view.state, t, this.says(view.state, t.about)),
      ),
      ...(this.others() ?? []).map((c) => ({
        ...cell(
          `Case ${c.tag}`,
          c.id,
          c.state,
          { ...thing, about: undefined },
          this.says(c.state, undefined),
        ),
        link: `/case/${c.id}/examine`,
      })),
    ];
  });

  private pictureOf(thing: ExaminedThing, state: State): ThingPicture | undefined {
    const drive = this.desk.current()?.answers?.drive;
    if (thing.kind !== 'belt' && thing.kind !== 'chain') return thingPicture(thing, state, drive);
    const count = drive?.stages.find((s) => s.layout.kind === thing.kind)?.layout.count;
    const found = placedOf(state, MAPPED[thing.kind], thing.about);
    return count === undefined
      ? undefined
      : loopPicture(
          count,
          found.flatMap(({ place: { from } }) => (from === undefined ? [] : [{ from }])),
        );
  }

  /** What was found at the inspection in hand. */
  private says(state: State, about: string | undefined): string {
    const o = this.inspection().observable;
    const places = o.place ? placedOf(state, o.key, about).length : 0;
    if (places > 0) return `${counted(places, 'place', 'places')}`;
    const fact = filedOf(state, o.key, about);
    return fact ? this.session().show(o, fact.value, fact.u) : 'not looked at';
  }
}
