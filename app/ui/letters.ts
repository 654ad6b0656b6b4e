import { nth } from '@core/quantity/must';
import type { TilePicture } from './tile-drawing';

/** A thing that can be chosen, by its key and in words; drawn where it has a look. */
export type TileChoice = { key: string; wording: string; picture?: TilePicture | undefined };
/** A choice with the letter that presses it; none once the alphabet is used up. */
export type Lettered = TileChoice & { letter: string | undefined };

/**
 * Gives every choice a letter of its own: the first of its words' initials that is free, else its first free letter,
 * else the next free one of the alphabet. Which letter a choice has depends only on the choices before it.
 * @example lettersOf([{key: 'a', wording: 'Five'}, {key: 'b', wording: 'Frayed'}]) // f, r
 */
export function lettersOf(choices: readonly TileChoice[]): Lettered[] {
  const taken = new Set<string>();
  return choices.map((choice) => {
    const words = choice.wording.toLowerCase().match(/[a-z]+/g) ?? [];
    const wanted = [...words.map((w) => nth(w, 0)), ...words.join(''), ...'abcdefghijklmnopqrstuvwxyz'];
    const letter = wanted.find((l) => !taken.has(l));
    if (letter !== undefined) taken.add(letter);
    return { ...choice, letter };
  });
}
