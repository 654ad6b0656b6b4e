import { type Answers, answersFor } from '@core/answer/answers';
import { registryFor, type World } from '@core/answer/world';
import { featureKey } from '@core/catalogue/feature-observables';
import { fileFacts, type NewFact } from '@core/facts/change';
import type { Author, Fact } from '@core/facts/fact';
import { silent } from '@core/facts/silence';
import { reduce } from '@core/facts/state';
import { isLook, type Look, lookAt, minutesOf, type Seen } from './look';
import { entryOf } from './entry';
import type { VirtualCase } from './virtual-case';
import { slotName } from './virtual-case';

/** One step of a path: the look, what it took, and how sure one can be of the truth behind it. */
type PathStep = Look & { seen: Seen['is']; share: number };
export type LookPath = {
  steps: PathStep[];
  minutes: number;
  /** Share of the truth before the first look. */
  from: number;
  /** What the desk leads with at the end, and how sure it is. */
  leader?: { cause: string; share: number };
};

const MOST_STEPS = 25;

/** What a look is filed as. */
export const filedAs = (look: Pick<Look, 'key' | 'about'>, seen: Seen): NewFact[] =>
  seen.is === 'found'
    ? seen.lies.map(entryOf)
    : [{ key: look.key, about: look.about, value: silent('unknown'), how: 'reported' }];

/** A case that nobody keeps, growing by entries. */
function trial(world: World, c: VirtualCase) {
  let n = 0;
  const author: Author = { by: 'practice', now: () => '2026-10-01T08:00:00.000Z', newId: () => `p${++n}` };
  let facts: readonly Fact[] = [];
  let answers: Answers | undefined;
  const file = (entries: readonly NewFact[]): void => {
    facts = [...facts, ...fileFacts(reduce(facts), c.id, entries, author)];
  };
  file([{ key: 'case.kind', value: 'return', how: 'decided' }, ...c.opening.map(entryOf)]);
  return {
    file,
    answers: (): Answers => (answers = answersFor(world, reduce(facts), answers)),
  };
}
const shareIn = (a: Pick<Answers, 'ranking'>, cause: string): number =>
  a.ranking.causes.find((x) => x.cause.key === cause)?.probability ?? 0;

/**
 * The best path that is known: at each step the check that settles most a minute, as the desk itself advises, until it is sure enough to say what
 * it is or nothing worth asking is left.
 */
export function bestPath(world: World, c: VirtualCase): LookPath {
  const registry = registryFor(world);
  const t = trial(world, c);
  const made: Look[] = [];
  const steps: PathStep[] = [];
  let a = t.answers();
  const from = shareIn(a, c.cause);
  const look = (key: string, about: string | undefined): void => {
    const o = registry.get(key);
    if (!o || !isLook(o) || made.some((m) => slotName(m) === slotName({ key, about }))) return;
    const next: Look = { key, ...(about === undefined ? {} : { about }), minutes: minutesOf(o) };
    const seen = lookAt(c, o, about, made, registry);
    made.push(next);
    t.file(filedAs(next, seen));
    // what did not come is no step: the box tells it at a glance
    if (seen.is === 'not_sent') return;
    a = t.answers();
    const minutes = seen.is === 'rung_off' || seen.is === 'destroyed' ? 0 : next.minutes;
    steps.push({ ...next, minutes, seen: seen.is, share: shareIn(a, c.cause) });
  };
  while (steps.length < MOST_STEPS) {
    const [leader] = a.ranking.causes;
    if (leader && leader.probability >= a.policy.sureFrom.certain) break;
    const before = made.length;
    // which design it is decides what its readings mean
    const [question] = a.asking.questions;
    if (question) look(featureKey(question.feature.id), undefined);
    if (made.length === before) {
      const done = new Set(made.map(slotName));
      const check = a.checks.find((x) => x.inspections.some((i) => !done.has(slotName(i))));
      for (const i of check?.inspections ?? []) look(i.key, i.about);
    }
    if (made.length === before) break;
  }
  return ended(steps, from, a);
}

/** The trainee's own path, each look as it lay there. */
export function ownPath(world: World, c: VirtualCase, looks: readonly Look[]): LookPath {
  const registry = registryFor(world);
  const t = trial(world, c);
  let a = t.answers();
  const from = shareIn(a, c.cause);
  const steps = looks.flatMap((look, i): PathStep[] => {
    const o = registry.get(look.key);
    if (!o) return [];
    const seen = lookAt(c, o, look.about, looks.slice(0, i), registry);
    t.file(filedAs(look, seen));
    a = t.answers();
    return [{ ...look, seen: seen.is, share: shareIn(a, c.cause) }];
  });
  return ended(steps, from, a);
}

function ended(steps: PathStep[], from: number, a: Answers): LookPath {
  const [leader] = a.ranking.causes;
  return {
    steps,
    from,
    minutes: steps.reduce((s, x) => s + x.minutes, 0),
    ...(leader ? { leader: { cause: leader.cause.key, share: leader.probability } } : {}),
  };
}
