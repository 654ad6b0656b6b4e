import Papa from 'papaparse';
import { CAUSES, causesFor } from './cause-data';
import {
  beforeLast,
  type Change,
  changeRows,
  checkChanges,
  holding,
  knowledgeWith,
  readChanges,
  takingBack,
} from './changes';
import { groundOf, lintGrounds } from './grounds';
import { numbersOf, numberRange, withNumbers } from './numbers';

const change = (place: string, value: number | null, ground = 'Seen here three times.'): Change => ({
  place,
  value,
  ground,
  by: 'Ilse Fennick',
  at: '2026-11-26T09:00:00.000Z',
});

describe('numbers of the knowledge', () => {
  it('are all found by their place, can each be set by it, and lie in their range', () => {
    const numbers = [...numbersOf(CAUSES).values()];
    expect(numbers.length).toBeGreaterThan(1500);
    expect(new Set(numbers.map((n) => n.place)).size).toBe(numbers.length);
    const [lowest, highest] = [numbers, numbers].map((ns, k) =>
      withNumbers(CAUSES, new Map(ns.map((n) => [n.place, numberRange(n)[k]!]))),
    );
    // every number of the data was one of them: none is left as it was
    for (const n of numbersOf(lowest!).values()) expect(n.value).withContext(n.place).toBe(0);
    for (const n of numbersOf(highest!).values())
      expect(n.value).withContext(n.place).toBe(numberRange(n)[1]);
    for (const n of numbers) {
      const [from, to] = numberRange(n);
      expect(n.value > from && n.value < to)
        .withContext(n.place)
        .toBeTrue();
    }
  });

  it('carry a ground each, and no ground speaks of none', () => {
    expect(lintGrounds(CAUSES)).toEqual({ without: [], idle: [] });
    const at = (place: string) => groundOf(CAUSES, numbersOf(CAUSES).get(place)!)?.ground;
    expect(at('mechanisms/set_far_side/shows/setting.shown/wrong_way')).toBe('computed');
    expect(at('causes/set_hot/prior')).toBe('reasoning');
  });
});

describe('changes of the house', () => {
  it('hold until a later one of the same place, go back to what ships, and leave all else', () => {
    const place = 'causes/tensioner_bearing/prior';
    const shipped = numbersOf(CAUSES).get(place)!.value;
    const list = [change(place, 0.2), change('mechanisms/slack_drive/leak', 0.1), change(place, 0.3)];
    const is = (changes: Change[]) => {
      const now = numbersOf(knowledgeWith(CAUSES, changes));
      const other = [...numbersOf(CAUSES)].filter(([k, n]) => now.get(k)!.value !== n.value).map(([k]) => k);
      return [now.get(place)!.value, other.length];
    };
    expect(is(list)).toEqual([0.3, 2]);
    expect(is([...list, change(place, null)])).toEqual([shipped, 1]);
    expect(holding([...list, change(place, null)]).size).toBe(1);
    expect(knowledgeWith(CAUSES, list)).toBe(knowledgeWith(CAUSES, list));
  });

  it('are taken back by the act in which they were seen, each place to what held before, and the taking back too', () => {
    const act = (minute: number, ...of: [string, number][]) =>
      of.map(
        ([place, value]): Change => ({
          ...change(place, value),
          at: `2026-11-26T09:0${minute}:00.000Z`,
        }),
      );
    const [a, b] = ['causes/set_hot/prior', 'causes/tensioner_bearing/prior'] as const;
    const list = [...act(1, [a, 0.2]), ...act(2, [a, 0.3], [b, 0.4])];
    const values = (changes: readonly Change[]) =>
      [a, b].map((p) => numbersOf(knowledgeWith(CAUSES, changes)).get(p)!.value);
    expect(values(beforeLast(list))).toEqual(values(act(1, [a, 0.2])));
    const back = (changes: Change[], minute: number): Change[] => [
      ...changes,
      ...takingBack(changes, 'x').map((c) => ({
        ...change(c.place, c.value),
        at: act(minute, [a, 0.1])[0]!.at,
      })),
    ];
    const once = back(list, 3);
    expect(values(once)).toEqual(values(beforeLast(list)));
    expect(values(back(once, 4))).toEqual(values(list));
    expect(takingBack([], 'x')).toEqual([]);
  });

  it('are refused where they cannot be, by their number in the list', () => {
    const good = change('causes/set_hot/prior', 0.1);
    const cases: [Change[], number, 'no_such_number' | 'out_of_range' | 'inconsistent'][] = [
      [[good, change('causes/no_such/prior', 0.1)], 1, 'no_such_number'],
      [[change('causes/set_hot/prior', 1)], 0, 'out_of_range'],
      [[good, change('causes/set_hot/life/scale', -4)], 1, 'out_of_range'],
      [
        [
          good,
          change('mechanisms/slack_drive/shows/setting.shown/slack', 0.6),
          change('mechanisms/slack_drive/shows/setting.shown/end', 0.5),
          good,
        ],
        2,
        'inconsistent',
      ],
    ];
    for (const [list, index, code] of cases) {
      const checked = checkChanges(CAUSES, list);
      expect(checked.ok ? undefined : [checked.error.index, checked.error.code]).toEqual([index, code]);
    }
    expect(checkChanges(CAUSES, [good, change('causes/set_hot/prior', null)]).ok).toBeTrue();
  });

  it('come back from their file, and a bad line is named and nothing taken', () => {
    const list = [
      change('causes/set_hot/prior', 0.1, '=looks like a sum'),
      change('causes/set_hot/prior', null, 'Not so; "one" case, misread'),
    ];
    const csv = Papa.unparse(changeRows(list), { escapeFormulae: true });
    const back = readChanges(CAUSES, csv);
    expect(back.ok && back.value).toEqual(list);
    const bad = (text: string) => {
      const read = readChanges(CAUSES, text);
      return read.ok ? undefined : [read.error.code, read.error.line];
    };
    expect(bad('place,value\n')).toEqual(['no_columns', 1]);
    expect(bad(`${csv}\n\ncauses/set_hot/prior,many,x,y,2026-11-26T09:00:00Z`)).toEqual(['bad_cell', 5]);
    expect(bad(`${csv}\n\ncauses/set_hot/prior,7,x,y,2026-11-26T09:00:00Z`)).toEqual(['refused', 5]);
    expect(bad(`${csv}\ncauses/set_hot/prior,0.2,,y,2026-11-26T09:00:00Z`)).toEqual(['bad_cell', 4]);
  });
});

describe('how common causes are', () => {
  const prior = (data: typeof CAUSES, key: string) => data.causes.find((c) => c.key === key)!.prior;
  it('depends on the drive and on how it came, by their family', () => {
    const chain = new Set(['chain', 'shoe', 'plunger']);
    const at = (has: ReadonlySet<string> | undefined, arrival?: string) =>
      prior(causesFor(CAUSES, has, arrival), 'sensor_at_fault');
    const tilt = (when: string, family: string) => CAUSES.tilts[when]![family]!;
    const shipped = prior(CAUSES, 'sensor_at_fault');
    expect(at(undefined)).toBe(shipped);
    expect(at(new Set(['belt', 'chain']))).toBe(shipped);
    expect(at(chain)).toBeCloseTo(shipped * tilt('chain', 'engine side'), 12);
    const quiet = prior(causesFor(CAUSES, chain, 'return'), 'no_fault');
    expect(quiet).toBeCloseTo(prior(CAUSES, 'no_fault') * tilt('return', 'no fault found'), 12);
    expect(at(chain, 'question')).toBe(at(chain));
  });
});
