import { EXAMINATIONS } from '@core/examination/examination-data';
import { normalGrade } from '@core/examination/examination';
import { KINDS, sentKey } from '@core/facts/kinds';
import { type Observable, optionsOf, type Registry } from '@core/facts/observable';
import type { Lies, VirtualCase } from './virtual-case';
import { slotName } from './virtual-case';

/** One look or question of a trainee, in the order in which they were. */
export type Look = { key: string; about?: string | undefined; minutes: number };
/** What came of a look: what lies there, line by line; or why nothing can be seen. */
export type Seen =
  | { is: 'found'; lies: readonly Lies[] }
  /** Nothing at any place of it; nobody knows it. */
  | { is: 'nothing' | 'unknown' }
  | { is: 'not_sent' }
  | { is: 'destroyed'; by: string }
  | { is: 'rung_off' };

/** Whether it is asked of somebody, and not looked at. */
const isAsked = (o: Pick<Observable, 'how'>): boolean => o.how === 'reported';
/** Minutes that a look or a question takes. */
export const minutesOf = (o: Pick<Observable, 'minutes'>): number => o.minutes ?? 1;

const afterOf = (o: Observable): readonly string[] =>
  EXAMINATIONS.get(o.part)?.inspections.find((i) => i.key === o.key)?.after ?? [];

/** Looks that this one destroys, as far as there was something to see and they were not made. */
export function destroys(
  c: Pick<VirtualCase, 'there'>,
  o: Observable,
  about: string | undefined,
  made: readonly Look[],
): string[] {
  const done = new Set(made.map((m) => slotName(m)));
  return afterOf(o).filter(
    (key) => !done.has(slotName({ key, about })) && c.there.some((l) => l.key === key && l.about === about),
  );
}

/** What a look shows after those that were made. The same look shows the same again. */
export function lookAt(
  c: VirtualCase,
  o: Observable,
  about: string | undefined,
  made: readonly Look[],
  registry: Registry,
): Seen {
  const slot = slotName({ key: o.key, about });
  if (!made.some((m) => slotName(m) === slot)) {
    const by = made.find((m, i) => {
      const other = registry.get(m.key);
      if (!other || m.about !== about) return false;
      return destroys(c, other, m.about, made.slice(0, i)).includes(o.key);
    });
    if (by) return { is: 'destroyed', by: by.key };
    if (isAsked(o) && askedFor(made, registry) >= c.patience) return { is: 'rung_off' };
  }
  if (KINDS.get(o.part)?.part === true && !sentIn(c).has(sentKey(o.part))) return { is: 'not_sent' };
  const mine = c.there.filter((l) => slotName({ key: l.key, about: l.about }) === slot);
  if (mine.length > 0) return { is: 'found', lies: mine };
  const sound = optionsOf(o).length > 0 ? normalGrade(o) : undefined;
  if (sound !== undefined)
    return {
      is: 'found',
      lies: [{ key: o.key, ...(about === undefined ? {} : { about }), value: sound, how: o.how }],
    };
  return { is: o.place === undefined ? 'unknown' : 'nothing' };
}

/** Minutes on the phone so far. */
const askedFor = (made: readonly Look[], registry: Registry): number =>
  made.reduce((s, m) => {
    const o = registry.get(m.key);
    return o && isAsked(o) ? s + m.minutes : s;
  }, 0);

/** Minutes that the caller still has. */
export const patienceLeft = (c: VirtualCase, made: readonly Look[], registry: Registry): number =>
  Math.max(0, c.patience - askedFor(made, registry));

/** Parts that came. */
function sentIn(c: Pick<VirtualCase, 'opening'>): ReadonlySet<string> {
  const sent = c.opening.find((l) => l.key === 'parts.sent')?.value;
  return new Set(Array.isArray(sent) ? sent.map(String) : []);
}

/** Whether an observable is one that a trainee looks at or asks for: what is decided, computed or imported is none. */
export const isLook = (o: Pick<Observable, 'how' | 'key' | 'station'>): boolean =>
  o.station !== 'settle' &&
  o.station !== 'cause' &&
  !o.key.startsWith('case.') &&
  ['measured', 'seen', 'reported', 'document'].includes(o.how);
