import { randomFrom } from '@core/quantity/random';
import type { TileChoice } from '../ui/letters';

const SIGNS = 'abcdeeinorstuÄéß 12-';

/** Choices with random words, some of them without a single letter. */
export function anyWords(seed: number, most: number): TileChoice[] {
  const random = randomFrom(seed);
  return Array.from({ length: Math.ceil(random() * most) }, (_, i) => ({
    key: `k${i}`,
    wording: Array.from(
      { length: 1 + Math.floor(random() * 12) },
      () => SIGNS[Math.floor(random() * SIGNS.length)],
    ).join(''),
  }));
}
