import { figuresOf } from './figures';
import { layoutOf } from './mail-layout';
import { type Mood, saidOf } from './said';
import { tokensOf } from './text';

const figures = (text: string) => figuresOf(tokensOf(text)).map((f) => f.grouped ?? f.value);
/** Mood of the clause in which a word stands. */
const moodAt = (text: string, word: string): Mood | undefined => {
  const said = saidOf(text);
  const token = said.tokens.find((t) => t.text === word);
  return token && said.clauses.get(token.clause)?.mood;
};

describe('a message taken apart', () => {
  it('reads numbers however they are written: words, thousands, fractions, ranges, repairs', () => {
    const told: [string, number][] = [
      ['9,300 km', 9300],
      ['9.300 km', 9300],
      ['9 300 km', 9300],
      ['104 thousand', 104_000],
      ['66k', 66_000],
      ['a hundred and ten thousand', 110_000],
      ['eighteen point four', 18.4],
      ['three hundred and twenty two point one', 322.1],
      ['one and a half teeth', 1.5],
      ['three quarters of a tooth', 0.75],
      ['half a dozen times', 6],
      ['3/8 inch', 0.375],
      ['9½ inch', 9.5],
      ['minus 96', -96],
      ['a quarter of a million', 250_000],
      ['its 4th step', 4],
      ['90 to 95 thousand km', 92_500],
    ];
    for (const [text, value] of told) expect(figures(text)).withContext(text).toEqual([value]);
    // two numbers side by side are two
    expect(figures('teeth twelve thirty two and fifty two')).toEqual([12, 32, 52]);
    // what was taken back at once is no number
    expect(saidOf('seven no hang on five screws').figures.map((f) => f.value)).toEqual([5]);
    expect(
      saidOf('a hundred and one thousand no sorry a hundred and ten thousand').figures.map((f) => f.value),
    ).toEqual([110_000]);
  });

  it('reads a long word with one letter wrong as the word that it is, and leaves names alone', () => {
    const low = (text: string) =>
      saidOf(text)
        .tokens.map((t) => t.low)
        .join(' ');
    expect(low('the tensionner and the antclockwise plungger')).toBe(
      'the tensioner and the anticlockwise plunger',
    );
    for (const name of ['Tensley', 'Brackwater', 'Chainey', 'Wrackline'])
      expect(low(name)).toBe(name.toLowerCase());
  });

  it('knows what is stated, asked, supposed, planned and told by others', () => {
    expect(moodAt('The belt is frayed.', 'frayed')).toBe('stated');
    expect(moodAt('Is the belt frayed?', 'frayed')).toBe('asked');
    expect(moodAt('Plate ends in K. Can we start it?', 'K')).toBe('stated');
    expect(moodAt('If the boot were torn I would agree.', 'torn')).toBe('if');
    expect(moodAt('Cams may have moved a hair.', 'moved')).toBe('maybe');
    expect(moodAt('I want to change the belt this week.', 'belt')).toBe('plan');
    const said = saidOf('Mr Sorrel tells me that the pump is seized. The box is here.');
    const theirs = (word: string) =>
      said.clauses.get(said.tokens.find((t) => t.text === word)!.clause)?.theirs;
    expect(theirs('seized')).toContain('Sorrel');
    expect(theirs('here')).toBeUndefined();
  });

  it('reads neither quoted mail nor signature as the writer’s own, and keeps every place in the text', () => {
    const text =
      'The pointer stands at 104 degrees.\n\nKind regards,\nOrla Tansey\nTel. 555 219\n\nOn 3 May you wrote:\n> should it ever stand at 150, take it out.\n';
    const layout = layoutOf(text);
    expect(layout.body.length).toBe(text.length);
    expect(layout.body).toContain('104');
    expect(layout.body).not.toContain('150');
    expect(layout.body).not.toContain('219');
    expect(layout.signature).toContain('Orla Tansey');
    for (const t of saidOf(text).tokens) expect(text.slice(t.from, t.to)).toBe(t.text);
    // greentext is somebody's own
    expect(layoutOf('>be me\n>Lanehopper, 198k').body).toContain('198k');
  });
});
