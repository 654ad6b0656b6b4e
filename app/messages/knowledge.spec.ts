import { demoPack } from '../../demo/catalogue';
import { registryFor, worldOf } from '@core/answer/world';
import { catalogueOf } from '@core/catalogue/find-records';
import { CAUSES, causesFor } from '@core/cause/cause-data';
import { type Change, checkChanges } from '@core/cause/changes';
import { type KnowledgeNumber, numbersOf } from '@core/cause/numbers';
import { METRIC } from '@core/facts/read-value';
import { changeWords, numberLabel, numberWords, numberPlaceWords, problemSentence } from './knowledge';
import type { SentenceContext } from './sentence-context';

const cat = catalogueOf(demoPack());
const context: SentenceContext = { notation: METRIC, cat, registry: registryFor(worldOf(cat)) };
const worded = causesFor(CAUSES, undefined);
const numbers = [...numbersOf(CAUSES).values()];
/** A key of the data, or what was meant to be filled in. */
const RAW = /[_{}]|undefined|\bNaN\b/;

describe('words of the knowledge', () => {
  it('name every number by what it says, none by its key, and no two of one entry alike', () => {
    const labels = new Map<string, Map<string, KnowledgeNumber>>();
    for (const n of numbers) {
      const label = numberLabel(n, worded, context);
      const whole = numberPlaceWords(n, n.place, worded, context);
      for (const words of [label, whole, numberWords(n, n.value)])
        expect(RAW.test(words)).withContext(`${n.place}: ${words}`).toBeFalse();
      expect(whole.endsWith(label)).toBeTrue();
      const mine = labels.get(`${n.kind} ${n.entry}`) ?? new Map<string, KnowledgeNumber>();
      labels.set(`${n.kind} ${n.entry}`, mine);
      expect(mine.get(label)?.place).withContext(label).toBeUndefined();
      mine.set(label, n);
    }
  });

  it('tell a number as finely as it is: two that differ by a tenth read differently', () => {
    for (const n of numbers)
      expect(numberWords(n, n.value))
        .withContext(n.place)
        .not.toBe(numberWords(n, n.value * 1.12));
  });

  it('say of every refusal which number it is about, and of a change what it is now', () => {
    const place = 'mechanisms/slack_drive/shows/setting.shown/slack';
    const change = (at: string, value: number | null): Change => ({
      place: at,
      value,
      ground: 'Own cases.',
      by: 'Ilse Fennick',
      at: '2026-11-26T09:00:00.000Z',
    });
    for (const [c, told] of [
      [change('causes/nowhere/prior', 0.1), 'causes/nowhere/prior'],
      [change('causes/set_hot/prior', 4), '4'],
      [change(place, 0.985), 'setting.shown'],
    ] as const) {
      const checked = checkChanges(CAUSES, [c]);
      expect(checked.ok ? '' : problemSentence(checked.error)).toContain(told);
    }
    const n = numbersOf(CAUSES).get(place);
    expect(changeWords(change(place, 0.25), n)).toContain('25\u00a0%');
    expect(changeWords(change(place, null), n)).not.toContain('%');
  });
});
