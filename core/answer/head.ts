import { packId } from '@core/catalogue/version';
import { sealedNow } from '@core/claim/seal';
import type { Fact } from '@core/facts/fact';
import { type CaseKind, optionsOf, STATIONS, type Station } from '@core/facts/observable';
import { allStanding, textOf } from '@core/facts/read';
import { reduce, type State } from '@core/facts/state';
import { type Answers, answersFor } from './answers';
import type { World } from './world';

/** What a case waits for: a station that lacks something, to be answered or issued; or it is sealed, or set aside. */
export type Waits = Station | 'answer' | 'issue' | 'sealed' | 'set_aside';

/** What the rack shows of a case and finds it by. Made from its facts and a world; it may be thrown away at any time. */
export type Head = {
  id: string;
  tag: string;
  engine: string;
  who: string;
  kind: CaseKind;
  waits: Waits;
  /** When its first and its last fact were filed. */
  opened: string;
  touched: string;
  /** Everything that stands, in small letters: values, and the words of choices. */
  text: string;
  /** Catalogue that it was made with; "" for none. */
  world: string;
};

/** The head of a case. Whatever cannot be computed is set aside, and still stands on the rack by its tag. */
export function headOf(id: string, facts: readonly Fact[], world: World | undefined): Head {
  try {
    const state = reduce(facts);
    return headFrom(id, state, world, world && answersFor(world, state));
  } catch {
    const tag = facts.findLast((f) => f.key === 'case.tag');
    const at = facts.map((f) => f.at).sort();
    return {
      id,
      tag: tag ? String(tag.value) : '—',
      engine: '',
      who: '',
      kind: 'question',
      waits: 'set_aside',
      opened: at[0] ?? '',
      touched: at.at(-1) ?? '',
      text: '',
      world: world ? packId(world.catalogue.pack) : '',
    };
  }
}

/** The same, from a case that is open and answered already. */
export function headFrom(id: string, state: State, world: World | undefined, a: Answers | undefined): Head {
  return {
    id,
    tag: textOf(state, 'case.tag') ?? '—',
    engine: textOf(state, 'engine.code') ?? '',
    who: textOf(state, 'call.who') ?? '',
    kind: a?.kind ?? 'question',
    waits: a ? waitsFor(a) : 'identify',
    opened: state.log[0]?.at ?? '',
    touched: state.log.at(-1)?.at ?? '',
    text: textToFind(state, a),
    world: world ? packId(world.catalogue.pack) : '',
  };
}

function waitsFor(a: Answers): Waits {
  if (sealedNow(a.seals)) return 'sealed';
  const short = STATIONS.find((s) => s !== 'fit' && a.lacks[s].length > 0);
  return short ?? (a.kind === 'question' ? 'answer' : 'issue');
}

/** Not found by: digests and readings of reports. */
const DARK = 'report.';

function textToFind(state: State, a: Answers | undefined): string {
  const words = new Set<string>();
  for (const { meaning, facts } of allStanding(state)) {
    if (meaning.key.startsWith(DARK)) continue;
    const o = a?.registry.get(meaning.key);
    const options = o ? optionsOf(o) : [];
    for (const f of facts)
      for (const v of Array.isArray(f.value) ? f.value : [f.value]) {
        words.add(String(v).toLowerCase());
        const said = options.find((x) => x.key === v)?.wording;
        if (said !== undefined) words.add(said.toLowerCase());
      }
  }
  return [...words].join('\n');
}
