import { must, nth } from '@core/quantity/must';
import { CAUSES, inputsOf, weighedFindings } from '@core/cause/cause-data';
import type { Catalogue } from '@core/catalogue/find-records';
import { PLACED_ON } from '@core/facts/place';
import { fileFact, type NewFact, retractFact } from '@core/facts/change';
import type { Author, Fact, FactValue } from '@core/facts/fact';
import { type Observable, optionsOf, type Registry } from '@core/facts/observable';
import { needsThing } from '@core/facts/registry';
import { reduce } from '@core/facts/state';
import { bankThing, faultThing, oldThing, wheelThing } from '@core/facts/thing';
import { randomFrom } from '@core/quantity/random';

/** Observables that evidence is read from. */
const WEIGHED = new Set(weighedFindings(CAUSES).flatMap((f) => inputsOf(CAUSES, f)));

/** Where the random facts of tests come from: numbers in [0, 1). */
type Random = () => number;
const pick = <T>(random: Random, list: readonly T[]): T | undefined =>
  list[Math.floor(random() * list.length)];

/** Any value that an observable can have: inside its range for numbers, a key for choices. */
function anyValue(random: Random, o: Observable, cat: Catalogue): FactValue | undefined {
  const t = o.type;
  switch (t.kind) {
    case 'number':
      return t.min + random() * (t.max - t.min);
    case 'count':
      return Math.round(t.min + random() * (t.max - t.min));
    case 'choice':
      return pick(random, optionsOf(o))?.key;
    case 'several':
      return optionsOf(o)
        .filter(() => random() < 0.3)
        .map((x) => x.key);
    case 'wheels':
      return nth(cat.pack.layouts, 0)
        .wheels.filter(() => random() < 0.3)
        .map((w) => w.id);
    case 'codes':
      return random() < 0.5 ? [] : ['P0016', 'P0341'];
    case 'date':
      return `20${10 + Math.floor(random() * 16)}-0${1 + Math.floor(random() * 9)}-1${Math.floor(random() * 9)}`;
    case 'ref':
      if (t.table === 'engine') return pick(random, cat.pack.engines)?.code;
      return t.table === 'kit' ? pick(random, cat.pack.kits)?.number : undefined;
    case 'series':
      return Array.from({ length: 24 }, (_, i) => (i % 2 === 0 ? i / 2 : 8 - 0.02 * i + 0.01 * random()));
    case 'text':
      return random() < 0.5 ? 'said so' : '“odd” <b>text</b> £ ±';
    default:
      return undefined;
  }
}

/** A thing that an observable can be about by name; none where it needs none. */
function anyThing(random: Random, o: Observable, cat: Catalogue): string | undefined {
  const layout = must(pick(random, cat.pack.layouts));
  switch (o.part) {
    case 'wheel':
      return wheelThing(must(pick(random, layout.wheels)).id);
    case 'bank':
      return bankThing(pick(random, layout.banks ?? [])?.id ?? 'left');
    case 'old':
      return oldThing(must(pick(random, ['belt', 'tensioner', 'idler'])));
    case 'fault':
      return faultThing('SET-WAY');
    default:
      return needsThing(o) ? undefined : '';
  }
}

/**
 * A case of random facts about anything in the registry, true of the engine or not: what must never be said of any case can
 * be looked for in many. @param length facts beside tag and engine
 */
export function anyCase(seed: number, length: number, registry: Registry, cat: Catalogue): Fact[] {
  const random = randomFrom(seed);
  let n = 0;
  const author: Author = {
    by: 'T',
    now: () => new Date(Date.UTC(2026, 0, 1) + ++n * 60_000).toISOString(),
    newId: () => `any${++n}`,
  };
  const facts: Fact[] = [];
  const file = (entry: NewFact) => facts.push(fileFact(reduce(facts), 'any', entry, author));
  file({ key: 'case.tag', value: '1', how: 'decided' });
  if (random() < 0.9)
    file({ key: 'engine.code', value: must(pick(random, cat.pack.engines)).code, how: 'reported' });
  const all = [...registry.values()].filter((o) => !o.key.startsWith('thing.') && o.key !== 'case.tag');
  // Half of them are such as weigh: what nobody judges is said in few ways.
  const weighed = all.filter((o) => WEIGHED.has(o.key));
  for (let k = 0; k < length; k++) {
    if (random() < 0.08 && facts.length > 2) {
      facts.push(retractFact(must(pick(random, facts.slice(2))), author, facts));
      continue;
    }
    const o = must(pick(random, random() < 0.5 ? weighed : all));
    const value = anyValue(random, o, cat);
    const about = anyThing(random, o, cat);
    if (value === undefined || about === undefined) continue;
    const on = PLACED_ON.find((p) => p === o.place);
    file({
      key: o.key,
      value,
      how: o.how,
      ...(about === '' ? {} : { about }),
      ...(on ? { place: { on, from: 1 + Math.floor(random() * 40) } } : {}),
      ...(o.type.kind === 'number' && random() < 0.5 ? { u: (o.type.u ?? 0.1) * (0.5 + random()) } : {}),
      repeat: o.type.kind === 'number' && random() < 0.3,
    });
  }
  return facts;
}
