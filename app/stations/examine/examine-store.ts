import { computed, inject, Injectable, linkedSignal, signal } from '@angular/core';
import type { LimitedInspection, ExaminedThing } from '@core/answer/examined';
import { nextInspection, restAt, normalGrade } from '@core/examination/examination';
import { declaring } from '@core/facts/change';
import type { Observable } from '@core/facts/observable';
import { KINDS, sentKey } from '@core/facts/kinds';
import { listOf, observed } from '@core/facts/read';
import { silent } from '@core/facts/silence';
import { Notices } from '../../commands/notices';
import { CaseDesk, type Filed } from '../../data/case-desk';
import { troubleSentence } from '../../data/store-trouble';

/** One name for a thing on the bench. */
export const thingId = (t: Pick<ExaminedThing, 'kind' | 'about'>): string => t.about ?? t.kind;

/** What is in hand on the bench, and which look at it: a wish of the desk, not a fact of the case. */
@Injectable()
export class ExamineStore {
  private readonly desk = inject(CaseDesk);
  private readonly notices = inject(Notices);
  private readonly answers = computed(() => this.desk.current()?.answers);
  readonly things = computed(() => this.answers()?.examination.things ?? []);
  readonly others = computed(() => this.answers()?.examination.others ?? []);

  /** The thing wished for; another case begins anew. */
  private readonly wish = linkedSignal<string | undefined, string | undefined>({
    source: () => this.desk.currentId(),
    computation: () => undefined,
  });
  readonly hand = computed<ExaminedThing | undefined>(() => {
    const things = this.things();
    return things.find((t) => thingId(t) === this.wish()) ?? firstInHand(things);
  });
  private readonly wished = signal<ReadonlyMap<string, string>>(new Map());
  /** The inspection in hand: the one last gone to, else the first that is open. */
  readonly inspection = computed<LimitedInspection | undefined>(() => {
    const hand = this.hand();
    if (!hand) return undefined;
    const wished = this.wished().get(thingId(hand));
    return (
      hand.inspections.find((l) => l.inspection.key === wished) ??
      hand.inspections.find((l) => l.inspection.key === nextInspection(hand.inspections)?.inspection.key) ??
      hand.inspections[0]
    );
  });

  take(id: string): void {
    this.wish.set(id);
  }

  open(key: string): void {
    const hand = this.hand();
    if (hand) this.wished.update((m) => new Map(m).set(thingId(hand), key));
  }

  /** Takes the thing that an inspection belongs to in hand, at that inspection. */
  go(key: string, about?: string): void {
    const thing = this.things().find(
      (t) => t.about === about && t.inspections.some((l) => l.inspection.key === key),
    );
    if (!thing) return;
    this.take(thingId(thing));
    this.open(key);
  }

  step(by: 1 | -1): void {
    const things = this.things();
    const hand = this.hand();
    const i = things.findIndex((t) => t === hand);
    const next = things[(i + by + things.length) % things.length];
    if (next) this.take(thingId(next));
  }

  /** Passes an inspection over on purpose; done again, it is open once more. */
  async passOver(l: LimitedInspection): Promise<void> {
    const { about } = this.hand() ?? {};
    const state = this.desk.current()?.state;
    const was = state ? observed(state, l.inspection.key, about) : { is: 'nothing' as const };
    await this.told(
      was.is === 'notExamined'
        ? this.desk.strike(was.fact)
        : this.desk.file({
            key: l.inspection.key,
            about,
            value: silent('notExamined'),
            how: l.observable.how,
          }),
    );
  }

  /** Passes inspections over that can no longer be made; one undo takes them all back. */
  async passAllOver(wished: readonly Observable[]): Promise<void> {
    const { about } = this.hand() ?? {};
    await this.told(
      this.desk.fileAll(wished.map((o) => ({ key: o.key, about, value: silent('notExamined'), how: o.how }))),
    );
  }

  /** Inspections that one glance at the place of the inspection in hand can pass as sound. */
  readonly rest = computed(() => {
    const [hand, inspection] = [this.hand(), this.inspection()];
    return hand && inspection ? restAt(hand.inspections, inspection) : [];
  });

  /** Files "nothing found" for the rest at the place in hand; one undo takes it all back. */
  async restSound(): Promise<boolean> {
    const { about } = this.hand() ?? {};
    const entries = this.rest().flatMap(({ observable: o }) => {
      const value = normalGrade(o);
      return value === undefined ? [] : [{ key: o.key, about, value, how: o.how }];
    });
    return entries.length > 0 && (await this.told(this.desk.fileAll(entries)));
  }

  /** Says that a kind of part came in the box after all, or did not. */
  async came(kind: string, here: boolean): Promise<void> {
    const state = this.desk.current()?.state;
    if (!state) return;
    const key = sentKey(kind);
    const others = listOf(state, 'parts.sent').filter((k) => k !== key);
    const done = await this.told(
      this.desk.file({ key: 'parts.sent', value: here ? [...others, key] : others, how: 'seen' }),
    );
    if (done && here) this.take(kind);
  }

  /** Another part of the kind in hand, told from the first by its number until its place is said. */
  async another(): Promise<void> {
    const hand = this.hand();
    if (!hand || !KINDS.get(hand.kind)?.part) return;
    const entries = declaring(hand.kind, '', crypto.randomUUID());
    const about = entries[0]?.about;
    if (about !== undefined && (await this.told(this.desk.fileAll(entries)))) this.take(about);
  }

  private async told(filing: Promise<Filed>): Promise<boolean> {
    const done = await filing;
    if (!done.ok) this.notices.refuse(troubleSentence(done.error));
    return done.ok;
  }
}

/** What one takes in hand first: a part that came and is not looked at wholly, else the first thing. */
function firstInHand(things: readonly ExaminedThing[]): ExaminedThing | undefined {
  const parts = things.filter((t) => t.came === 'sent' && KINDS.get(t.kind)?.part);
  return (
    parts.find((t) => nextInspection(t.inspections)) ??
    parts[0] ??
    things.find((t) => KINDS.get(t.kind)?.part) ??
    things[0]
  );
}
