import { must, nth } from '@core/quantity/must';
import { type Result, err, ok } from '@core/quantity/result';
import { PROVENANCES, type Provenance } from './fact';
import { isCalled } from './names';
import type { Observable, Registry } from './observable';
import { KINDS } from './kinds';
import { type Place, placeAt, type PlaceError } from './place';
import { type ReadContext, type ReadError, type ReadValue, readValue } from './read-value';
import { needsThing } from './registry';
import { nameOfId } from './thing';

export type LineReading = {
  observable: Observable;
  /** The thing that it is about, when one was named. */
  about?: string;
  place?: Place;
  how: Provenance;
  read: Result<ReadValue, ReadError>;
  /** What was said after "because". */
  note?: string;
};
export type FactLineError =
  | { code: 'no_observable'; typed: string }
  /** It is known, but no drive that is still possible has it. */
  | { code: 'not_on_drive'; wording: string }
  /** Several are meant by these letters. */
  | { code: 'several'; typed: string; wordings: string[] }
  /** It cannot be filed without saying of which thing. */
  | { code: 'which_thing'; wording: string; names: string[] }
  | PlaceError;

/** Things that a line may name: the words that tell each from the others of its kind. */
export type LineThing = { id: string; kind: string; name: string };

/** What the line asks of a registry: can this be filed of the drive at hand? */
export type Applies = (o: Observable) => boolean;

const fold = (s: string) => s.toLowerCase().replace(/\s+/g, ' ').trim();
type Found = { o: Observable; rest: string; about?: string };

/**
 * Reads a line such as "ptr -96", "edge front frayed", "odo 48200 km", "spring weak reported", "mark ru 0.5", "tensioner left ext 7.4" or
 * "t 41 root crack": the longest alias that begins the line names the observable; before or behind it a thing may be named, by
 * any beginnings or the initials of its name, then a place. The rest is its value, a last word may say how it is known, and
 * "because …" gives a reason.
 */
export function readFactLine(
  line: string,
  registry: Registry,
  ctx: ReadContext,
  applies: Applies = () => true,
  things: readonly LineThing[] = [],
): Result<LineReading, FactLineError> {
  const [said = '', ...reason] = line
    .trim()
    .replace(/\s+/g, ' ')
    .split(/ because /i);
  const found = byAlias(said, registry, applies) ?? byThing(said, registry, applies, things);
  if (!found) return err({ code: 'no_observable', typed: line.trim() });
  if ('code' in found) return err(found);
  const named = withThing(found, ctx, things);
  if ('code' in named) return err(named);
  const { wording, place: on } = named.o;
  const at = on && placeAt({ wording, place: on }, named.rest, ctx.most?.(on));
  if (at && !at.ok) return at;
  const { observable, value, how } = withHow({ ...named, rest: at?.value.rest ?? named.rest });
  const note = reason.join(' because ').trim();
  // An installation fault is all that there is to say of it.
  const fault = named.o.part === 'fault' && named.about !== undefined;
  const read = fault ? ok({ value: nameOfId(must(named.about)) }) : readValue(observable, value, ctx);
  return ok({
    observable,
    ...(named.about === undefined ? {} : { about: named.about }),
    ...(at ? { place: at.value.place } : {}),
    how,
    read,
    ...(note === '' ? {} : { note }),
  });
}

function withHow({ o, rest }: Found): { observable: Observable; value: string; how: Provenance } {
  const last = rest.split(' ').at(-1)?.toLowerCase();
  const said = PROVENANCES.find((h) => h === last && h !== 'decided' && h !== 'imported' && h !== 'computed');
  return said && rest.includes(' ')
    ? { observable: o, value: rest.slice(0, -said.length).trim(), how: said }
    : { observable: o, value: rest, how: o.how };
}

const onLine = (o: Observable) => !o.hidden || o.line === true;

function byAlias(said: string, registry: Registry, applies: Applies): Found | FactLineError | undefined {
  const typed = fold(said);
  let best: { o: Observable; alias: string } | undefined;
  for (const o of registry.values()) {
    if (!onLine(o)) continue;
    for (const alias of [...o.aliases, o.wording].map(fold)) {
      if (typed !== alias && !typed.startsWith(alias + ' ')) continue;
      const longer = alias.length > (best?.alias.length ?? 0);
      // Of two with one name the one that the drive has is meant.
      if (longer || (alias.length === best?.alias.length && applies(o) && !applies(best.o)))
        best = { o, alias };
    }
  }
  if (!best) return undefined;
  if (!applies(best.o)) return { code: 'not_on_drive', wording: best.o.wording };
  return { o: best.o, rest: said.slice(best.alias.length).trim() };
}

/** "tensioner left ext 7.4": a kind, the name of one of it, then an observable of that kind. */
function byThing(
  said: string,
  registry: Registry,
  applies: Applies,
  things: readonly LineThing[],
): Found | FactLineError | undefined {
  const typed = said.split(' ');
  const kind = kindCalled(typed[0] ?? '');
  if (kind === undefined) return undefined;
  const of = new Map([...registry].filter(([, o]) => o.part === kind));
  for (let n = typed.length - 1; n >= 1; n--) {
    const found = byAlias(typed.slice(n).join(' '), of, applies);
    if (!found) continue;
    if ('code' in found || n === 1) return found;
    const hits = called(typed.slice(1, n), kind, things);
    if (hits.length === 1) return { ...found, about: nth(hits, 0).id };
    const names = (hits.length > 1 ? hits : things.filter((t) => t.kind === kind)).map((t) => t.name);
    return { code: 'which_thing', wording: found.o.wording, names };
  }
  return undefined;
}

/** "another tensioner left, secondary": a further part of a kind, and where it belongs. */
export function readDeclaration(line: string): { kind: string; place: string } | undefined {
  const [first, kind = '', ...place] = line.trim().split(/\s+/);
  const called = first?.toLowerCase() === 'another' ? kindCalled(kind) : undefined;
  return called !== undefined && KINDS.get(called)?.part
    ? { kind: called, place: place.join(' ') }
    : undefined;
}

/** Kind of thing by its own name or another one of it. */
const kindCalled = (word: string): string | undefined =>
  [...KINDS.values()].find((k) => [k.kind, ...(k.aliases ?? [])].includes(word.toLowerCase()))?.kind;

const called = (typed: readonly string[], kind: string, things: readonly LineThing[]): LineThing[] => {
  const said = fold(typed.join(' '));
  const of = things.filter((t) => t.kind === kind && t.name !== '');
  const whole = of.filter((t) => fold(t.name) === said);
  return whole.length === 1
    ? whole
    : of.filter((t) => isCalled(t.name, said) || isCalled(nameOfId(t.id), said));
};

/** "mark ru 0.5": the thing behind the observable, where it needs one, or where the rest is no value without it. */
function withThing(found: Found, ctx: ReadContext, things: readonly LineThing[]): Found | FactLineError {
  const { o, rest, about } = found;
  if (about !== undefined) return found;
  const named = needsThing(o);
  const of = things.filter((t) => t.kind === o.part && t.name !== '');
  if (!named && (of.length === 0 || o.place !== undefined || readValue(o, rest, ctx).ok)) return found;
  const typed = rest.split(' ').filter(Boolean);
  for (let n = typed.length; n > 0; n--) {
    const hits = called(typed.slice(0, n), o.part, things);
    if (hits.length === 1) return { o, rest: typed.slice(n).join(' '), about: nth(hits, 0).id };
    if (hits.length > 1)
      return {
        code: 'several',
        typed: typed.slice(0, n).join(' '),
        wordings: hits.map((t) => `${o.wording}, ${t.name}`),
      };
  }
  return named ? { code: 'which_thing', wording: o.wording, names: of.map((t) => t.name) } : found;
}

/** Things that what stands behind the observable's name on a line could still mean; all of its kind before anything is typed. */
function thingsMeant(line: string, o: Observable, things: readonly LineThing[]): LineThing[] {
  const of = things.filter((t) => t.kind === o.part && t.name !== '');
  const typed = fold(line);
  const alias = [...o.aliases, o.wording].map(fold).find((n) => typed.startsWith(n + ' '));
  const rest = alias === undefined ? [] : typed.slice(alias.length).trim().split(' ').filter(Boolean);
  return rest.length === 0 ? of : called(rest, o.part, of);
}

/** Observables whose alias or wording the beginning of the line could still become, best first. */
export function completions(
  line: string,
  registry: Registry,
  limit = 6,
  applies: Applies = () => true,
): Observable[] {
  const typed = fold(line);
  if (typed === '') return [];
  const scored: { o: Observable; score: number }[] = [];
  for (const o of registry.values()) {
    if (!onLine(o) || !applies(o)) continue;
    const starts = (n: string) => n.startsWith(typed) || typed.startsWith(n + ' ');
    const inside = (n: string) => n.split(' ').some((w) => w.startsWith(typed));
    const [names, whole] = [o.aliases.map(fold), fold(o.wording)];
    // What it is called on the line comes before what it is called on paper.
    const score = names.some(starts) ? 0 : starts(whole) ? 1 : [whole, ...names].some(inside) ? 2 : undefined;
    if (score !== undefined) scored.push({ o, score });
  }
  return scored
    .sort((a, b) => a.score - b.score)
    .slice(0, limit)
    .map((s) => s.o);
}

/** What a line could still become: the text to begin it with, and the name to show. */
export type Offer = { key: string; observable: Observable; alias: string; name: string };

/** Completions as offers: of what has no first one, every thing that may be meant is an offer of its own. */
export function offersFor(
  line: string,
  registry: Registry,
  applies: Applies,
  things: readonly LineThing[],
  limit = 8,
): Offer[] {
  return completions(line, registry, 6, applies)
    .flatMap((o): Offer[] => {
      const alias = o.aliases[0] ?? o.wording;
      const meant = needsThing(o) ? thingsMeant(line, o, things) : [];
      if (meant.length === 0) return [{ key: o.key, observable: o, alias, name: o.wording }];
      return meant.map((t) => ({
        key: `${o.key} ${t.id}`,
        observable: o,
        alias: `${alias} ${t.name}`,
        name: `${o.wording}, ${t.name}`,
      }));
    })
    .slice(0, limit);
}
