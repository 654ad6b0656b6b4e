import { type Catalogue, findCode, nearestCodes } from '@core/catalogue/find-records';
import { mostOf } from '@core/catalogue/places';
import { CAUSES, causesFor, NO_CAUSE, noCauseOf } from '@core/cause/cause-data';
import { findOption, type Notation, type ReadContext } from '@core/facts/read-value';
import type { Day } from '@core/quantity/dates';
import type { Answers } from './answers';

/** What reading a typed value needs to know about a case: its drive, its causes, its catalogue. */
export function readContextOf(
  a: Answers | undefined,
  cat: Catalogue | undefined,
  notation: Notation,
  today: Day,
): ReadContext {
  const causes = a?.ranking.causes.map((c) => c.cause) ?? [];
  const codes = (table: string): string[] => {
    if (table === 'engine') return [...(cat?.engines.keys() ?? [])];
    return table === 'kit' ? [...(cat?.kits.keys() ?? [])] : [];
  };
  const layouts = a?.possible.designs.flat().map((s) => s.layout) ?? [];
  return {
    notation,
    today,
    most: (on) => mostOf(on, layouts),
    wheels: a?.drive?.layout.wheels ?? [],
    findRef: (table, typed) =>
      table === 'cause'
        ? findOption(typed, [...causes, ...NO_CAUSE.map((key) => ({ key, wording: CAUSES[key].wording }))])
        : findCode(codes(table), typed),
    nearestRefs: (table, typed) =>
      table === 'cause' ? causes.slice(0, 3).map((c) => c.wording) : nearestCodes(codes(table), typed),
  };
}

/** Name of a wheel or cause of a case for showing; a cause that its drive cannot have bears its general name. */
export function nameIn(a: Answers | undefined, table: string, key: string): string {
  if (table === 'wheel') return a?.drive?.layout.wheels.find((w) => w.id === key)?.name ?? key;
  if (table !== 'cause') return key;
  const none = noCauseOf(key);
  if (none) return CAUSES[none].wording;
  const own = a?.ranking.causes.find((c) => c.cause.key === key)?.cause;
  return own?.wording ?? causesFor(CAUSES, undefined).causes.find((c) => c.key === key)?.wording ?? key;
}
