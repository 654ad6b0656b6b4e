import { must } from '@core/quantity/must';
import type { State } from '@core/facts/state';
import { Answering, type Node, type ValueOf } from './node';
import * as ofExamination from './nodes/examination';
import * as ofCase from './nodes/case';
import * as ofClaim from './nodes/claim';
import * as ofDrive from './nodes/drive';
import * as ofEvidence from './nodes/evidence';
import * as ofIdentification from './nodes/identification';
import type { World } from './world';

const NODES = { ...ofIdentification, ...ofDrive, ...ofEvidence, ...ofExamination, ...ofClaim, ...ofCase };
const NAMES = Object.keys(NODES) as (keyof typeof NODES)[];
const nodeOf: (name: keyof typeof NODES) => Node<unknown> = (name) => NODES[name];

/** Everything that follows from a case's facts in a world. Nothing of it is stored; each is computed when it is asked for. */
export type Answers = { readonly [K in keyof typeof NODES]: ValueOf<(typeof NODES)[K]> };

/** Each answer is asked for by its name. */
class Asked {
  readonly #own: Answering;

  constructor(own: Answering) {
    this.#own = own;
  }

  /** What computes these answers; undefined for answers that were written down. */
  static of(answers: object): Answering | undefined {
    return #own in answers ? answers.#own : undefined;
  }
}
for (const name of NAMES)
  Object.defineProperty(Asked.prototype, name, {
    enumerable: true,
    get(this: Asked) {
      return must(Asked.of(this)).ask(nodeOf(name));
    },
  });

/** The answers of a case. @param before of an earlier state of it: what it computed is kept where nothing that it read changed */
export function answersFor(world: World, state: State, before?: Answers): Answers {
  return new Asked(new Answering(world, state, before && Asked.of(before))) as unknown as Answers;
}

/** Answers that could not be computed, by name; the rest stands. */
export function failedOf(a: Answers): { name: string; why: string }[] {
  return (Asked.of(a)?.failures ?? []).map(({ node, why }) => ({
    name: NAMES.find((n) => nodeOf(n) === node) ?? 'an answer behind others',
    why,
  }));
}

/** Computes every answer at once, so that whatever cannot be computed is known now. */
export function settled(a: Answers): Answers {
  for (const name of NAMES) void a[name];
  return a;
}
