import { isBeyond, placeAt, type PlacedOn, placeWords, readPlace } from './place';
import { meanOf } from './repeats';
import { OBSERVABLES } from './registry';
import { readValue } from './read-value';
import { showValue } from './show-value';
import { silent, says, whySilent } from './silence';
import { asStructured, isStructured, plainText } from './value';
import { factOf } from './facts.fixture';
import { fileFact } from './change';
import { reduce } from './state';

const ctx = {
  notation: { dateOrder: 'dmy' as const, units: {} },
  today: '2026-11-25' as const,
  wheels: [
    { id: 'a', name: 'Left cam' },
    { id: 'b', name: 'Right cam' },
  ],
  findRef: (_: string, text: string) => (text === 'K1' ? 'K1' : undefined),
  nearestRefs: () => ['K1'],
};
const ofKind = (kind: string) => OBSERVABLES.filter((o) => o.type.kind === kind);

describe('a place', () => {
  const ON: readonly PlacedOn[] = ['tooth', 'edge', 'degree', 'station', 'link', 'track', 'piece'];

  it('in words is read back as the place that it is, one and a span, on whatever it is', () => {
    for (const on of ON)
      for (const span of [{ from: 7 }, { from: 7, to: 9 }, { from: 7, to: 7 }]) {
        const edge = on === 'edge' ? { edge: 'front' as const } : {};
        const words = placeWords({ on, ...edge, ...span });
        expect(words).withContext(on).toContain('7');
        expect(words.includes('9')).toBe('to' in span && span.to === 9);
        // a span to itself is one place
        if ('to' in span && span.to === 7) expect(words).toBe(placeWords({ on, ...edge, from: 7 }));
        const typed = `${'edge' in edge ? 'front ' : ''}7${'to' in span ? `-${span.to}` : ''} worn`;
        const read = readPlace(on, typed);
        expect(read?.place).toEqual({ on, ...edge, ...span });
        expect(read?.rest).toBe('worn');
      }
    expect(placeWords({ on: 'edge', edge: 'rear' })).not.toContain('undefined');
  });

  it('is refused with its bounds where there are that many only, and taken where nobody knows', () => {
    const o = { wording: 'x', place: 'tooth' as const };
    expect(placeAt(o, '121 worn', 120)).toEqual({
      ok: false,
      error: { code: 'beyond', place: { on: 'tooth', from: 121 }, most: 120 },
    });
    expect(placeAt(o, '121 worn', undefined).ok).toBeTrue();
    expect(placeAt(o, '120 worn', 120).ok).toBeTrue();
    expect(isBeyond({ on: 'edge', edge: 'front' }, 0)).toBeFalse();
  });
});

describe('repeats, at their edges', () => {
  it('of one are the gauge’s, of two never have one that stands out, of alike ones neither', () => {
    expect(meanOf([5], 0.2)).toEqual({ value: 5, u: 0.2, n: 1 });
    const two = meanOf([1, 9], 0);
    expect([two.value, two.n, two.outlier]).toEqual([5, 2, undefined]);
    expect(two.spread).toBeCloseTo(Math.sqrt(32), 12);
    expect(two.u).toBeCloseTo(4, 12);
    expect(meanOf([3, 3, 3, 3], 0.1)).toEqual({ value: 3, u: 0.1, n: 4, spread: 0 });
  });

  it('point at the one that stands out, wherever it is, unless the gauge cannot tell', () => {
    for (let at = 0; at < 8; at++) {
      const readings = [10, 10.1, 9.9, 10, 10.05, 9.95, 10.02, 9.98];
      readings[at] = 11;
      expect(meanOf(readings, 0.01).outlier).withContext(String(at)).toBe(at);
      expect(meanOf(readings, 2).outlier).toBeUndefined();
    }
    // more readings than the table has are judged by its last
    const many = Array.from({ length: 40 }, (_, i) => 10 + 0.1 * Math.sin(i));
    expect(meanOf([...many, 12], 0).outlier).toBe(40);
  });
});

describe('a value', () => {
  it('with parts is told from a list, a text and nothing, and has no plain text', () => {
    const series = { is: 'series' as const, t: [0, 1], values: [2, 3] };
    expect(asStructured('series', series)).toBe(series);
    for (const other of [null, undefined, 'series', 3, ['series'], { is: 'sheet' }, silent('unknown')])
      expect(asStructured('series', other)).toBeUndefined();
    expect(isStructured(series)).toBeTrue();
    for (const other of [null, 'x', 3, silent('unknown')]) expect(isStructured(other)).toBeFalse();
    expect([plainText(series), plainText(silent('unknown'))]).toEqual(['', '']);
    expect([plainText('a'), plainText(2.5), plainText(['a', 'b'])]).toEqual(['a', '2.5', 'a,b']);
  });

  it('that says nothing says why, in today’s words and in those of before', () => {
    const why = (value: Parameters<typeof whySilent>[0]['value'], key = 'belt.back') =>
      whySilent({ key, value });
    expect([why(silent('notExamined')), why(silent('unknown'))]).toEqual(['notExamined', 'unknown']);
    expect([why('skipped'), why('unknown'), why('frayed'), why(3)]).toEqual([
      'notExamined',
      'unknown',
      undefined,
      undefined,
    ]);
    expect(why('skipped', 'step.done')).toBeUndefined();
    expect([says(factOf('belt.back', 'frayed')), says(factOf('belt.back', 'unknown'))]).toEqual([
      true,
      false,
    ]);
  });

  it('keeps no half of a sign, however deep it stands', () => {
    const half = 'a\ud83db';
    const filed = fileFact(
      reduce([]),
      'c',
      { key: 'belt.back', value: [half, 'whole'], how: 'seen', note: half },
      { by: 'T', now: () => '2026-11-25T08:00:00.000Z', newId: () => 'f1' },
    );
    expect(JSON.stringify(filed)).not.toContain('\\ud83d');
    expect(Array.isArray(filed.value) && filed.value[1]).toBe('whole');
  });
});

describe('what is typed for each kind of observable', () => {
  it('is refused when it is empty, and taken as not known only where that is an answer', () => {
    let known = 0;
    for (const o of OBSERVABLES) {
      const empty = readValue(o, '  ', ctx);
      expect(!empty.ok && empty.error.code)
        .withContext(o.key)
        .toBe('empty');
      const asked = readValue(o, '?', ctx);
      if (asked.ok && JSON.stringify(asked.value.value) === JSON.stringify(silent('unknown'))) known++;
    }
    expect(known).toBeGreaterThan(20);
  });

  it('counts whole numbers within their bounds and says which they are', () => {
    for (const o of ofKind('count')) {
      if (o.type.kind !== 'count') continue;
      const { min, max } = o.type;
      const code = (text: string) => {
        const r = readValue(o, text, ctx);
        return r.ok ? r.value.value : r.error.code;
      };
      expect(code(String(min)))
        .withContext(o.key)
        .toBe(min);
      expect(code(String(max))).toBe(max);
      expect([code(String(max + 1)), code(`${min}.5`), code('x')]).toEqual([
        'out_of_range',
        'not_a_count',
        'not_a_number',
      ]);
      const beyond = readValue(o, String(max + 1), ctx);
      expect(!beyond.ok && beyond.error.code === 'out_of_range' && beyond.error.min).toBe(String(min));
      const wrong = readValue(o, 'x', ctx);
      expect(!wrong.ok && 'typed' in wrong.error && wrong.error.typed).toBe('x');
    }
    expect(ofKind('count').length).toBeGreaterThan(3);
  });

  it('is read back from what is shown of it: each option of every choice', () => {
    let options = 0;
    for (const o of ofKind('choice')) {
      if (o.type.kind !== 'choice') continue;
      for (const x of o.type.options) {
        const shown = showValue(o, x.key, ctx.notation, (_, k) => k);
        const read = readValue(o, shown, ctx);
        expect(read.ok && read.value.value)
          .withContext(`${o.key} ${x.key}`)
          .toBe(x.key);
        options++;
      }
    }
    expect(options).toBeGreaterThan(200);
  });

  it('of a catalogue is one that is there, else with the nearest', () => {
    const [ref] = ofKind('ref');
    expect(readValue(ref!, 'K1', ctx)).toEqual({ ok: true, value: { value: 'K1' } });
    const none = readValue(ref!, 'K9', ctx);
    expect(!none.ok && none.error.code === 'not_found' && none.error.nearest).toEqual(['K1']);
  });
});
