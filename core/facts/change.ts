import { nth } from '@core/quantity/must';
import { type Result, err, ok } from '@core/quantity/result';
import { canonical } from './canonical';
import type { Author, Fact, FactValue, FileRef, Provenance } from './fact';
import { meaningOf, slotKey } from './meaning';
import type { Place } from './place';
import { whole } from './text';
import { factsInOrder, nextSeen, reduce, type State } from './state';
import { THING } from './thing';

export type NewFact = {
  /** Thing that it is about; without one the first of the observable's kind. */
  about?: string | undefined;
  key: string;
  place?: Place | undefined;
  value: FactValue;
  how: Provenance;
  u?: number;
  note?: string;
  basis?: string[];
  files?: readonly FileRef[];
  /** One more reading of the same, kept beside those that are there, instead of a correction. */
  repeat?: boolean;
  /** Another's word on the same: it stands beside what is there, as a rival with its own source, and corrects nothing. */
  rival?: boolean;
  /** Series that it belongs to by name, whoever files it: such facts stand beside each other. */
  series?: string;
};

/**
 * A fact that corrects what stands of the same observable, thing and place, and every rival of it, so that a correction ends
 * a contradiction. A repeat corrects nothing: it joins the series that begins with what stands.
 */
export function fileFact(state: State, caseId: string, entry: NewFact, author: Author): Fact {
  const meaning = meaningOf({ key: entry.key, about: entry.about });
  const slot = state.slots.get(slotKey(meaning, entry.place));
  const named = entry.series;
  const joins = named !== undefined || (entry.repeat && slot && slot.facts.length > 0);
  const silence = state.slots.silence(slotKey(meaning, entry.place));
  const before = [...(slot?.facts ?? []), ...(slot?.rivals ?? []), ...(silence?.facts ?? [])];
  const old = joins || entry.rival ? [] : before.map((f) => f.id);
  const first = slot?.facts[0];
  return {
    id: author.newId(),
    case: caseId,
    ...(meaning.about === undefined ? {} : { about: meaning.about }),
    key: meaning.key,
    ...(entry.place ? { place: entry.place } : {}),
    value: wellFormed(entry.value),
    how: entry.how,
    by: author.by,
    at: author.now(),
    seen: nextSeen(state.log),
    ...(named === undefined ? {} : { series: named }),
    ...(joins && named === undefined && first ? { series: first.series ?? first.id } : {}),
    ...(entry.files?.length ? { files: [...entry.files] } : {}),
    ...(entry.u === undefined ? {} : { u: entry.u }),
    ...(old.length === 0 ? {} : { supersedes: old.length === 1 ? nth(old, 0) : old }),
    ...(entry.basis?.length ? { basis: entry.basis } : {}),
    ...(entry.note ? { note: wellFormed(entry.note) } : {}),
  };
}

/** No half signs in any text of a value, however deep. */
function wellFormed<T>(value: T): T {
  if (typeof value === 'string') return whole(value) as T;
  if (Array.isArray(value)) return value.map(wellFormed) as T;
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, wellFormed(v as unknown)])) as T;
}

/**
 * Several facts one after the other, each made from what stands with those before it. Filed by one act, they are undone
 * together. Only what corrects one of the same entries needs the state to be made anew.
 */
export function fileFacts(state: State, caseId: string, entries: readonly NewFact[], author: Author): Fact[] {
  const facts: Fact[] = [];
  const touched = new Set<string>();
  const first = nextSeen(state.log);
  let now = state;
  for (const e of entries) {
    const slot = slotKey(meaningOf({ key: e.key, about: e.about }), e.place);
    if (touched.has(slot)) now = reduce([...state.log, ...facts]);
    touched.add(slot);
    facts.push({ ...fileFact(now, caseId, e, author), seen: first + facts.length });
  }
  return facts;
}

/** Marks facts as filed by one act. */
export const byOneAct = (facts: readonly Fact[]): Fact[] =>
  facts.length < 2 ? [...facts] : facts.map((f) => ({ ...f, act: nth(facts, 0).id }));

/**
 * Facts that are undone with one: those of its act that were not taken back yet, also those that another of the same act
 * corrected, which would stand again otherwise.
 */
export function ofOneAct(state: State, fact: Fact): Fact[] {
  if (fact.act === undefined) return [fact];
  const mine = state.log.filter((f) => f.act === fact.act);
  const own = new Set(mine.map((f) => f.id));
  return mine.filter((f) => {
    const by = state.retracted.get(f.id);
    return by === undefined || own.has(by);
  });
}

/** What declares a further part of a kind at a place on the drive. @param unique makes its id */
export function declaring(kind: string, place: string, unique: string): NewFact[] {
  const about = `${kind}-${unique.slice(0, 8)}`;
  return [
    { about, key: THING.kind, value: kind, how: 'seen' },
    ...(place === '' ? [] : [{ about, key: THING.place, value: place, how: 'seen' as const }]),
  ];
}

/** A fact that withdraws `target`. @param log of the case as it stands. Striking a strike brings the first fact back: that is redo. */
export function retractFact(target: Fact, author: Author, log: readonly Fact[], note?: string): Fact {
  return {
    id: author.newId(),
    case: target.case,
    key: target.key,
    value: '',
    how: 'decided',
    by: author.by,
    at: author.now(),
    seen: nextSeen(log),
    strikes: target.id,
    ...(note ? { note } : {}),
  };
}

/**
 * What undo would strike: the newest fact that still has its effect and is not itself an undoing, and is no seal
 * (an issued report cannot be unsent). `author` limits it to one's own facts.
 */
export function undoTarget(state: State, by: string): Fact | undefined {
  const mine = state.log.filter(
    (f) => f.by === by && f.strikes === undefined && !f.key.startsWith('report.') && f.key !== 'case.rules',
  );
  return mine.reverse().find((f) => !state.retracted.has(f.id));
}

/**
 * What redo would strike: the strike of one's own undoing that was the last and was not redone, with nothing filed by that
 * person since. Undo, undo, redo, redo is the way back.
 */
export function redoTarget(state: State, by: string): Fact | undefined {
  const byId = new Map(state.log.map((f) => [f.id, f]));
  for (const f of state.log.filter((x) => x.by === by).reverse()) {
    if (f.strikes === undefined) return undefined;
    const isUndo = byId.get(f.strikes)?.strikes === undefined;
    if (isUndo && !state.retracted.has(f.id)) return f;
  }
  return undefined;
}

export type MergeError = { code: 'same_id_other_content'; id: string };

/** Union by id, commutative and idempotent. Two facts with one id and different content mean tampering: refused. */
export function mergeFacts(a: readonly Fact[], b: readonly Fact[]): Result<Fact[], MergeError> {
  const byId = new Map(a.map((f) => [f.id, f]));
  for (const f of b) {
    const mine = byId.get(f.id);
    if (mine && canonical(mine) !== canonical(f)) return err({ code: 'same_id_other_content', id: f.id });
    byId.set(f.id, f);
  }
  return ok(factsInOrder([...byId.values()]));
}
