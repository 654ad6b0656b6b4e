import { type Result, err, ok } from '@core/quantity/result';
import { HOW, type How } from './fact';
import type { Observable, Registry } from './observable';
import { type ReadContext, type ReadError, type ReadValue, readValue } from './read-value';

export type LineReading = { observable: Observable; how: How; read: Result<ReadValue, ReadError> };
export type LineError = { code: 'no_observable'; typed: string };

const fold = (s: string) => s.toLowerCase().replace(/\s+/g, ' ').trim();

/**
 * Reads a line such as "ptr -96", "edge front frayed", "odo 48200 km" or "spring weak reported": the longest alias
 * that begins the line names the observable, the rest is its value, a last word may say how it is known.
 */
export function readLine(line: string, registry: Registry, ctx: ReadContext): Result<LineReading, LineError> {
  const typed = fold(line);
  let best: { o: Observable; alias: string } | undefined;
  for (const o of registry.values()) {
    if (o.hidden) continue;
    for (const alias of [...o.aliases, o.wording].map(fold)) {
      if ((typed === alias || typed.startsWith(alias + ' ')) && alias.length > (best?.alias.length ?? 0))
        best = { o, alias };
    }
  }
  if (!best) return err({ code: 'no_observable', typed: line.trim() });
  let rest = line.trim().replace(/\s+/g, ' ').slice(best.alias.length).trim();
  let how = best.o.how;
  const last = rest.split(' ').at(-1)?.toLowerCase();
  const said = HOW.find((h) => h === last && h !== 'decided' && h !== 'imported' && h !== 'computed');
  if (said && rest.includes(' ')) {
    how = said;
    rest = rest.slice(0, -said.length).trim();
  }
  return ok({ observable: best.o, how, read: readValue(best.o, rest, ctx) });
}

/** Observables whose alias or wording the beginning of the line could still become, best first. */
export function completions(line: string, registry: Registry, limit = 6): Observable[] {
  const typed = fold(line);
  if (typed === '') return [];
  const scored: { o: Observable; score: number }[] = [];
  for (const o of registry.values()) {
    if (o.hidden) continue;
    const names = [...o.aliases, o.wording].map(fold);
    const starts = names.some((n) => n.startsWith(typed) || typed.startsWith(n + ' '));
    const word = names.some((n) => n.split(' ').some((w) => w.startsWith(typed)));
    if (starts || word) scored.push({ o, score: starts ? 0 : 1 });
  }
  return scored
    .sort((a, b) => a.score - b.score)
    .slice(0, limit)
    .map((s) => s.o);
}
