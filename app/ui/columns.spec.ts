import { randomFrom } from '@core/quantity/random';
import { inColumns } from './columns';

describe('cards in columns', () => {
  const own = (h: number) => h;

  it('keep their order, none is lost, and no column is left out between', () => {
    for (let seed = 1; seed <= 80; seed++) {
      const random = randomFrom(seed);
      const cards = Array.from({ length: Math.floor(random() * 9) }, () => 1 + Math.floor(random() * 20));
      const columns = 1 + Math.floor(random() * 4);
      const out = inColumns(cards, columns, own);
      expect(out.flat()).withContext(`seed ${seed}`).toEqual(cards);
      expect(out.length).withContext(`seed ${seed}`).toBeLessThanOrEqual(columns);
      expect(out.every((c) => c.length > 0)).toBeTrue();
    }
  });

  it('are as level as any other way to cut them would be', () => {
    // every way to cut, tried one by one
    const tallest = (cards: readonly number[], columns: number): number => {
      if (columns === 1 || cards.length === 0) return cards.reduce((s, h) => s + h, 0);
      return Math.min(
        ...Array.from({ length: cards.length + 1 }, (_, k) =>
          Math.max(
            cards.slice(0, k).reduce((s, h) => s + h, 0),
            tallest(cards.slice(k), columns - 1),
          ),
        ),
      );
    };
    for (let seed = 1; seed <= 40; seed++) {
      const random = randomFrom(seed + 500);
      const cards = Array.from({ length: 1 + Math.floor(random() * 7) }, () => 1 + Math.floor(random() * 20));
      const columns = 1 + Math.floor(random() * 3);
      const sums = inColumns(cards, columns, own).map((c) => c.reduce((s, h) => s + h, 0));
      expect(Math.max(...sums))
        .withContext(`seed ${seed}`)
        .toBe(tallest(cards, columns));
    }
  });
});
