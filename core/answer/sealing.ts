import { makeSeal, type SealCheck } from '@core/claim/seal';
import type { Author, Fact } from '@core/facts/fact';
import { reduce, type State } from '@core/facts/state';
import { answersFor } from './answers';
import { type Difference, difference, linesOf, readLine, writeLine } from './difference';
import { nameWorld, type World, type WorldName } from './world';

const WORLD = /^world (catalogue|knowledge|rules) = (.*)$/;

/** The facts that issue a report: how the case reads and in which world, sealed with everything else. */
export function sealing(world: World, state: State, caseId: string, author: Author): Fact[] {
  const said = [
    ...Object.entries(nameWorld(world)).map(([part, name]) => `world ${part} = ${name}`),
    ...linesOf(answersFor(world, state)).map(writeLine),
  ];
  return makeSeal(state, caseId, said, author);
}

/** An issued report read again today: which parts of the world are others by now, and what it would say otherwise. */
export type Reread = { changed: (keyof WorldName)[]; differs: Difference[] };

/**
 * What an issue said against what its own facts say in today's world. Undefined for issues that kept no reading (they are
 * older than that), and for facts that are not all here.
 */
export function reread(world: World, state: State, check: SealCheck): Reread | undefined {
  const basis = new Set(check.seal.basis);
  const sealed = state.log.filter((f) => basis.has(f.id));
  const said = sealed.findLast((f) => f.key === 'report.said')?.value;
  if (!Array.isArray(said) || sealed.length !== basis.size) return undefined;
  const now = nameWorld(world);
  const changed = said.map(String).flatMap((line) => {
    const m = WORLD.exec(line);
    const part = m?.[1] as keyof WorldName | undefined;
    return part && now[part] !== m?.[2] ? [part] : [];
  });
  const before = said.map(String).flatMap((line) => readLine(line) ?? []);
  const today = answersFor(world, reduce(sealed));
  return { changed, differs: difference(before, linesOf(today)) };
}
