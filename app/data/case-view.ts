import { type Answers, answersFor, settled } from '@core/answer/answers';
import { type Judging, type World, worldOf } from '@core/answer/world';
import type { Catalogue } from '@core/catalogue/find-records';
import type { Fact } from '@core/facts/fact';
import { textOf } from '@core/facts/read';
import { emptyState, reduce, type State } from '@core/facts/state';
import { plainText } from '@core/facts/value';

/** An open case: its facts, and what follows from them. */
export type CaseView = {
  id: string;
  tag: string;
  state: State;
  answers: Answers | undefined;
  catalogue: Catalogue | undefined;
  world: World | undefined;
  /** The case could not be computed: it is set aside, and its facts can be taken out. */
  failure?: string;
};

/** A case as computed from its facts. @param before the same case before: what it computed is kept where it can be */
export function viewOf(
  id: string,
  facts: readonly Fact[],
  catalogue: Catalogue | undefined,
  judging: Judging,
  before?: CaseView,
): CaseView {
  const world = catalogue && worldOf(catalogue, judging);
  let state = emptyState(facts);
  try {
    state = reduce(facts);
    const tag = textOf(state, 'case.tag') ?? '—';
    const answers = world && settled(answersFor(world, state, before?.answers));
    return { id, tag, state, answers, catalogue, world };
  } catch (e) {
    // Facts that cannot even be put in order, or a catalogue that cannot answer: the rest of the desk works on.
    const failure = e instanceof Error ? e.message : String(e);
    const tag = facts.findLast((f) => f.key === 'case.tag')?.value;
    return {
      id,
      tag: tag === undefined ? '—' : plainText(tag),
      state,
      answers: undefined,
      catalogue,
      world,
      failure,
    };
  }
}
