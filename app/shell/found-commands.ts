import type { Cases } from '../data/cases';
import type { Find } from '../data/find';
import type { Command, Commands } from '../commands/commands';

/** Cases and engines that what was typed can mean, as what can be done with them. */
export function foundCommands(
  typed: string,
  commands: Commands,
  cases: Cases,
  find: Find,
  most: number,
): Command[] {
  if (typed.trim() === '') return [];
  const opening = cases
    .find(typed)
    .slice(0, most)
    .map((h) => ({
      name: `Case ${h.tag} · ${h.engine || 'no engine yet'} · ${h.who}`,
      run: () => commands.openCase(h.id),
    }));
  const engines = find
    .hits(typed, 6)
    .filter((h) => h.kind === 'engine')
    .map((h) => ({
      name: `New case for engine ${h.key} · ${h.detail}`,
      run: () => void commands.newCase([{ key: 'engine.code', value: h.key, how: 'reported' }]),
    }));
  return [...opening, ...engines];
}
