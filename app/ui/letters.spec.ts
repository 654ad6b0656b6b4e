import { anyWords } from '../testing/any-words';
import { lettersOf } from './letters';

describe('letters of choices', () => {
  it('takes the initial, then what is free', () => {
    const letters = lettersOf(
      ['Five', 'Frayed', 'Four of them', 'Unknown'].map((wording) => ({ key: wording, wording })),
    ).map((c) => c.letter);
    expect(letters).toEqual(['f', 'r', 'o', 'u']);
  });

  it('never gives one letter twice, and gives one to each as long as there are any', () => {
    for (let seed = 1; seed <= 60; seed++) {
      const choices = anyWords(seed, 30);
      const letters = lettersOf(choices).map((c) => c.letter);
      const given = letters.filter((l) => l !== undefined);
      expect(new Set(given).size).withContext(`seed ${seed}`).toBe(given.length);
      expect(given.length).withContext(`seed ${seed}`).toBe(Math.min(26, choices.length));
      // what is added behind moves no letter before it
      expect(lettersOf(choices.slice(0, 9)).map((c) => c.letter)).toEqual(letters.slice(0, 9));
    }
  });
});
