import { nth } from '@core/quantity/must';
import { extractPack } from '@core/catalogue/extract-pack';
import { makeSeal, type SealCheck } from '@core/claim/seal';
import type { Author, Fact } from '@core/facts/fact';
import { fileFact, type NewFact } from '@core/facts/change';
import { contentDigest } from '@core/facts/digest';
import { has, textOf } from '@core/facts/read';
import { reduce, type State } from '@core/facts/state';
import { policyToKeep, type Policy } from '@core/policy/policy';
import { answersFor } from './answers';
import { type Difference, answerDifference, linesOf, readAnswerLine, writeLine } from './difference';
import { nameWorld, type World, type WorldName } from './world';

const WORLD = /^world (catalogue|part|knowledge|rules) = (.*)$/;

/**
 * The facts that issue a report: the policy by which it was judged, where the case does not keep them yet, how the case
 * reads and in which world, sealed with everything else.
 */
export function sealing(world: World, state: State, caseId: string, author: Author): Fact[] {
  const kept = has(state, RULES_KEPT) ? [] : [fileFact(state, caseId, rulesEntry(world.policy), author)];
  const judged = kept.length > 0 ? reduce([...state.log, ...kept]) : state;
  const said = [
    ...Object.entries({ ...nameWorld(world), part: partOf(world, judged) }).map(
      ([part, name]) => `world ${part} = ${name}`,
    ),
    ...linesOf(answersFor(world, judged)).map(writeLine),
  ];
  return [...kept, ...makeSeal(judged, caseId, said, author)];
}

const RULES_KEPT = 'case.rules';
/** The fact by which a case keeps the policy that it is judged by. */
export const rulesEntry = (policy: Policy): NewFact => ({
  key: RULES_KEPT,
  value: policyToKeep(policy),
  how: 'decided',
});

/**
 * Digest of the part of the catalogue that a case's answers stand on. A file carries that part alone, so that elsewhere the
 * whole is another while the part is the same.
 */
const partOf = ({ catalogue }: World, state: State): string =>
  contentDigest(extractPack(catalogue, textOf(state, 'engine.code'), textOf(state, 'kit.number')));

/** Another one than at the issue; of a catalogue also: one of the same name with other content. */
type Changed = { part: keyof WorldName; as: 'another' | 'content'; stated: string };
/** An issued report read again today: which parts of the world are others by now, and what it would say otherwise. */
export type Reread = { changed: Changed[]; differs: Difference[] };

/**
 * What an issue said against what its own facts say in today's world. Undefined for issues that kept no reading (they are
 * older than that), and for facts that are not all here.
 */
export function reread(world: World, state: State, check: SealCheck): Reread | undefined {
  const basis = new Set(check.seal.basis);
  const sealed = state.log.filter((f) => basis.has(f.id));
  const said = sealed.findLast((f) => f.key === 'report.said')?.value;
  if (!Array.isArray(said) || sealed.length !== basis.size) return undefined;
  const stated = new Map(
    said.map(String).flatMap((line): [string, string][] => {
      const m = WORLD.exec(line);
      return m ? [[nth(m, 1), nth(m, 2)]] : [];
    }),
  );
  const changed = changedSince(stated, world, reduce(sealed));
  const before = said.map(String).flatMap((line) => readAnswerLine(line) ?? []);
  const today = answersFor(world, reduce(sealed));
  return { changed, differs: answerDifference(before, linesOf(today)) };
}

function changedSince(stated: ReadonlyMap<string, string>, world: World, state: State): Changed[] {
  const now = nameWorld(world);
  return (Object.keys(now) as (keyof WorldName)[]).flatMap((part): Changed[] => {
    const before = stated.get(part);
    if (before === undefined || before === now[part]) return [];
    if (part !== 'catalogue') return [{ part, as: 'another', stated: before }];
    // The same in all that this case stands on: a file brings no more than that.
    if (stated.get('part') === partOf(world, state)) return [];
    const name = (full: string) => full.slice(0, full.lastIndexOf(' '));
    const as = name(before) === name(now.catalogue) ? 'content' : 'another';
    return [{ part, as, stated: name(before) }];
  });
}
