import { registryFor, type World } from '@core/answer/world';
import { drawCase } from './draw-case';
import { bestPath } from './path';

/** What the desk's own advice comes to on whole returns: how many, the middle of the minutes to its verdict, how many right. */
export type PathScore = { returns: number; minutes: number; right: number };

/** Works whole virtual returns by the desk's own advice, from the paper in the box to its verdict. @param tell share that is done */
export function scorePaths(
  world: World,
  { returns, seed }: { returns: number; seed: number },
  tell: (share: number) => void = () => undefined,
): PathScore {
  const { catalogue: cat, policy, knowledge } = world;
  const registry = registryFor(world);
  const minutes: number[] = [];
  let right = 0;
  for (let i = 0; i < returns; i++) {
    const drawn = drawCase({ cat, registry, causes: knowledge.causes, policy }, seed + i);
    if (!drawn.ok) break;
    const path = bestPath(world, drawn.value);
    minutes.push(path.minutes);
    if (path.leader?.cause === drawn.value.cause) right++;
    tell((i + 1) / returns);
  }
  const sorted = minutes.sort((a, b) => a - b);
  return { returns: sorted.length, minutes: sorted[Math.floor(sorted.length / 2)] ?? 0, right };
}
