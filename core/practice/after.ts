import type { CauseData, CauseEntry } from '@core/cause/cause-data';
import { registryFor, type World } from '@core/answer/world';
import { says } from '@core/facts/silence';
import type { Fact } from '@core/facts/fact';
import { reduce } from '@core/facts/state';
import { isLook, type Look, lookAt, destroys } from './look';
import { bestPath, ownPath, type LookPath } from './path';
import type { Lies, VirtualCase } from './virtual-case';
import { slotName } from './virtual-case';

/** What a trainee comes to: a cause, and how sure of it. */
export type Verdict = { cause: string; sure: number };
/** Who bears the cost by a verdict, and who should. */
export type Fairness = { by: CauseEntry['bears']; truly: CauseEntry['bears']; fair: boolean };
export type After = {
  truth: string;
  right: boolean;
  family: boolean;
  /** What lay there of the truth, in the order in which it is told. */
  chain: Lies[];
  own: LookPath;
  best: LookPath;
  /** Of the truth: never looked at, or filed as something else. */
  missed: { lies: Lies; looked: boolean }[];
  /** Filed without a look, or otherwise than it lay there. */
  claimed: { key: string; about?: string | undefined; filed: Fact['value']; lay?: Fact['value'] }[];
  /** Looks that can never be made again, by which look. */
  destroyed: { key: string; by: string }[];
  fairness: Fairness;
};

/** Everything that can be said once it is decided: pure, the same for the same run. */
export function afterwards(
  world: World,
  c: VirtualCase,
  run: { looks: readonly Look[]; facts: readonly Fact[]; verdict: Verdict },
): After {
  const registry = registryFor(world);
  const causes = world.knowledge.causes;
  const state = reduce(run.facts);
  const looked = new Set(run.looks.map(slotName));
  const standing = new Map(
    state.log
      .filter((f) => f.strikes === undefined && !state.retracted.has(f.id) && says(f))
      .map((f) => [slotName(f), f] as const),
  );
  const chain = c.there.filter((l) => c.shows.includes(slotName(l)));
  const opened = new Set(c.opening.map(slotName));
  const sightOf = (x: { key: string; about?: string | undefined }) =>
    slotName({ key: x.key, about: x.about });
  const missed = chain
    .filter((l) => !alike(standing.get(slotName(l))?.value, l.value))
    .map((lies) => ({ lies, looked: looked.has(sightOf(lies)) }));
  const claimed = [...standing.values()].flatMap((f): After['claimed'] => {
    const o = registry.get(f.key);
    if (!o || !isLook(o) || opened.has(slotName(f))) return [];
    const seen = lookAt(c, o, f.about, run.looks, registry);
    const lay = seen.is === 'found' ? seen.lies.find((l) => slotName(l) === slotName(f)) : undefined;
    if (looked.has(sightOf(f)) && lay && alike(f.value, lay.value)) return [];
    if (looked.has(sightOf(f)) && near(f.value, lay)) return [];
    return [{ key: f.key, about: f.about, filed: f.value, ...(lay ? { lay: lay.value } : {}) }];
  });
  const destroyed = run.looks.flatMap((l, i) => {
    const o = registry.get(l.key);
    return o ? destroys(c, o, l.about, run.looks.slice(0, i)).map((key) => ({ key, by: l.key })) : [];
  });
  const [mine, truly] = [causeIn(causes, run.verdict.cause), causeIn(causes, c.cause)];
  const bears = { by: mine?.bears ?? 'nobody', truly: truly?.bears ?? 'nobody' };
  return {
    truth: c.cause,
    right: run.verdict.cause === c.cause,
    family: mine !== undefined && mine.family === truly?.family,
    chain,
    own: ownPath(world, c, run.looks),
    best: bestPath(world, c),
    missed,
    claimed,
    destroyed,
    fairness: { ...bears, fair: bears.by === bears.truly },
  };
}

const causeIn = (d: CauseData, key: string): CauseEntry | undefined => d.causes.find((c) => c.key === key);

const alike = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);
/** A number that was read off within twice its uncertainty is what lay there. */
const near = (filed: Fact['value'], lay: Lies | undefined): boolean =>
  typeof filed === 'number' &&
  typeof lay?.value === 'number' &&
  Math.abs(filed - lay.value) <= 2 * (lay.u ?? 0) + 1e-9;
