import { type Result, err, ok } from '@core/quantity/result';
import { HOW, type How } from './fact';
import type { Observable, Registry } from './observable';
import { type ReadContext, type ReadError, type ReadValue, readValue } from './read-value';

export type LineReading = {
  observable: Observable;
  how: How;
  read: Result<ReadValue, ReadError>;
  /** What was said after "because". */
  note?: string;
};
export type LineError =
  | { code: 'no_observable'; typed: string }
  /** It is known, but no drive that is still possible has it. */
  | { code: 'not_on_drive'; wording: string }
  /** Several are meant by these letters. */
  | { code: 'several'; typed: string; wordings: string[] };

/** What the line asks of a registry: can this be filed of the drive at hand? */
export type Applies = (o: Observable) => boolean;

const fold = (s: string) => s.toLowerCase().replace(/\s+/g, ' ').trim();
const words = (s: string) =>
  fold(s)
    .split(/[\s,–-]+/)
    .filter(Boolean);

type Found = { o: Observable; rest: string };

/**
 * Reads a line such as "ptr -96", "edge front frayed", "odo 48200 km", "spring weak reported" or "mark ru 0.5": the longest
 * alias that begins the line names the observable; of a family such as the marks, any beginnings or the initials of the
 * name do. The rest is its value, a last word may say how it is known, and "because …" gives a reason.
 */
export function readLine(
  line: string,
  registry: Registry,
  ctx: ReadContext,
  applies: Applies = () => true,
): Result<LineReading, LineError> {
  const [said = '', ...reason] = line
    .trim()
    .replace(/\s+/g, ' ')
    .split(/ because /i);
  const found = byAlias(said, registry, applies) ?? byFamily(said, registry, applies);
  if (!found) return err({ code: 'no_observable', typed: line.trim() });
  if ('code' in found) return err(found);
  const { observable, value, how } = withHow(found);
  const note = reason.join(' because ').trim();
  const read = readValue(observable, value, ctx);
  return ok({ observable, how, read, ...(note === '' ? {} : { note }) });
}

function withHow({ o, rest }: Found): { observable: Observable; value: string; how: How } {
  const last = rest.split(' ').at(-1)?.toLowerCase();
  const said = HOW.find((h) => h === last && h !== 'decided' && h !== 'imported' && h !== 'computed');
  return said && rest.includes(' ')
    ? { observable: o, value: rest.slice(0, -said.length).trim(), how: said }
    : { observable: o, value: rest, how: o.how };
}

const onLine = (o: Observable) => !o.hidden || o.line === true;

function byAlias(said: string, registry: Registry, applies: Applies): Found | LineError | undefined {
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

/** "mark ru 0.5": observables whose alias begins with the first word, told apart by parts of the words that follow. */
function byFamily(said: string, registry: Registry, applies: Applies): Found | LineError | undefined {
  const [first = '', ...rest] = said.split(' ');
  const family = [...registry.values()].filter(
    (o) => onLine(o) && applies(o) && o.aliases.some((a) => words(a)[0] === first.toLowerCase()),
  );
  for (let n = rest.length; n > 0; n--) {
    const typed = rest.slice(0, n).map((w) => w.toLowerCase());
    const hits = family.filter((o) => o.aliases.some((a) => named(words(a).slice(1), typed)));
    if (hits.length === 1) return { o: hits[0]!, rest: rest.slice(n).join(' ') };
    if (hits.length > 1)
      return { code: 'several', typed: typed.join(' '), wordings: hits.map((o) => o.wording) };
  }
  return undefined;
}

/** True when what was typed is the initials of a name, or every word of it begins a word of the name. */
function named(name: readonly string[], typed: readonly string[]): boolean {
  if (name.length === 0) return false;
  const initials = name.map((w) => w[0]).join('');
  if (typed.length === 1 && typed[0]!.length > 1 && initials.startsWith(typed[0]!)) return true;
  return typed.every((t) => name.some((w) => w.startsWith(t)));
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
    const names = [...o.aliases, o.wording].map(fold);
    const starts = names.some((n) => n.startsWith(typed) || typed.startsWith(n + ' '));
    const word = names.some((n) => n.split(' ').some((w) => w.startsWith(typed)));
    const [first, ...rest] = typed.split(' ');
    const family =
      rest.length > 0 && names.some((n) => words(n)[0] === first && named(words(n).slice(1), rest));
    if (starts || word || family) scored.push({ o, score: starts ? 0 : family ? 1 : 2 });
  }
  return scored
    .sort((a, b) => a.score - b.score)
    .slice(0, limit)
    .map((s) => s.o);
}
