import { lastPer, oncePer, oncePerName } from './keep';

describe('what is kept', () => {
  it('is worked out once for each object, also where nothing comes of it', () => {
    const asked: object[] = [];
    const f = oncePer((of: { n: number }) => {
      asked.push(of);
      return of.n > 1 ? of.n : undefined;
    });
    const [a, b] = [{ n: 1 }, { n: 2 }];
    expect([f(a), f(b), f(a), f(b)]).toEqual([undefined, 2, undefined, 2]);
    expect(asked).toEqual([a, b]);
    // Alike is not the same.
    f({ n: 1 });
    expect(asked.length).toBe(3);
  });

  it('is worked out once for each name under an object', () => {
    let made = 0;
    const kept = oncePerName<object, number>();
    const [a, b] = [{}, {}];
    const all = [kept(a, 'x', () => ++made), kept(a, 'y', () => ++made), kept(b, 'x', () => ++made)];
    expect(all).toEqual([1, 2, 3]);
    expect(kept(a, 'x', () => ++made)).toBe(1);
  });

  it('goes when it no longer holds, and what comes in its place is kept', () => {
    let made = 0;
    const kept = lastPer<object, { n: number }>();
    const of = {};
    const ask = (holds: boolean) =>
      kept(
        of,
        () => holds,
        () => ({ n: ++made }),
      ).n;
    expect([ask(false), ask(true), ask(false), ask(true)]).toEqual([1, 1, 2, 2]);
  });
});
