import { demoPack } from '../../demo/catalogue';
import type { IssueReason } from '@core/catalogue/pack-issue';
import { circlesOf, type PathError } from '@core/drive/path';
import { judgeOffset } from '@core/drive/judge-offset';
import { clearanceWords, pathSentence, readingWords, settingsSentence, settingWords } from './drive';
import {
  centresSentence,
  disagreeWords,
  inverseSentence,
  offsetWords,
  patternWords,
  signed,
  offsetVerdictWords,
} from './drive-results';
import { issueSentence } from './packs';
import { readSentence } from './reading';

const layouts = demoPack().layouts;
const belt = layouts.find((l) => l.id === 'corm-121')!;
const chain = layouts.find((l) => l.id === 'stoat-a')!;

describe('sentences about drives', () => {
  it('name the wheels at fault, whatever is wrong with a path', () => {
    const errors: PathError[] = [
      { code: 'no_radius', wheels: [1] },
      { code: 'wheels_overlap', wheels: [0, 4], byMm: 3.21 },
      { code: 'no_tangent', wheels: [1, 2] },
      { code: 'not_reached', wheels: [4] },
      { code: 'spans_cross', wheels: [0, 1, 2, 3] },
      { code: 'span_cuts_wheel', wheels: [0, 1, 4], byMm: 2 },
      { code: 'off_shoe', wheels: [1], byDeg: 4 },
    ];
    for (const e of errors) {
      const said = pathSentence(belt, e);
      const last = e.wheels.at(-1)!;
      expect(said).withContext(e.code).toContain(belt.wheels[last]!.name);
      expect(said).toMatch(/\.$/);
      expect(settingsSentence(belt, { code: 'no_geometry', why: e })).toContain(said);
    }
    expect(pathSentence(belt, errors[1]!)).toContain('3.2 mm');
    expect(settingsSentence(chain, { code: 'belt_too_long', byMm: 1.26 })).toBe(
      'The chain is 1.3 mm too long for any setting.',
    );
  });

  it('write readings in what stands on the part', () => {
    const [eccentric, plunger] = [belt, chain].map((l) => l.wheels.find((w) => w.carrier)!.carrier!);
    expect(readingWords(eccentric!, -102.34)).toBe('−102.3°');
    expect(readingWords(plunger!, 7.4)).toBe('7.40\u00a0mm');
    expect(settingWords(eccentric!, 90)).toMatch(/Key anticlockwise.*clockwise/);
    expect(settingWords(plunger!, 9)).toContain('window 6 mm to 17 mm, end 26 mm');
  });

  it('say which way a mark stands off, in every unit, and nothing when it does not', () => {
    const off = { teeth: -0.5, wheelDeg: -4.5, driverDeg: -9, rimMm: -4 };
    expect(offsetWords(off)).toBe(
      '0.50 teeth behind: 4.5° of the wheel, 9.0° of the crank, 4.0 mm at the rim',
    );
    expect(offsetWords({ teeth: 0.001, wheelDeg: 0, driverDeg: 0, rimMm: 0 })).toBe('in line');
    expect([signed(0.004), signed(-0.004), signed(1.2, 1)]).toEqual(['0.00', '0.00', '+1.2']);
    expect(offsetVerdictWords(judgeOffset(-2, 0.02, { teeth: 0 }, 0.25))).toBe('✕ 2 teeth out, retarded');
    expect(patternWords(belt, { pattern: 'from_wheel', wheel: 3 })).toContain('Cam sprocket');
  });

  it('tell apart between what things there is little room', () => {
    const n = circlesOf(belt).length;
    expect(n).toBe(5);
    expect(clearanceWords(belt, { mm: 2, between: { kind: 'wheels', wheels: [1, 2] } })).toBe(
      'between the rim of Guide roller and Tensioner',
    );
    expect(clearanceWords(belt, { mm: 2, between: { kind: 'strand_wheel', span: 4, wheel: 2 } })).toBe(
      'between the strand Water pump–Crank sprocket and Tensioner',
    );
  });

  it('tell what to measure next', () => {
    expect(inverseSentence(belt, { code: 'too_few', have: 1, need: 2 })).toContain(
      'at least 2 marks; 1 is here',
    );
    expect(inverseSentence(belt, { code: 'bank_not_seen', bank: 'head' })).toContain('Cylinder head');
    expect(centresSentence(['A', 'B', 'C'], { code: 'loose_wheels', wheels: [1, 2] })).toBe(
      'B and C can still move: measure one more distance to each.',
    );
    expect(disagreeWords([])).toEqual([]);
    expect(disagreeWords(['A to B'])[0]).toContain('A to B disagrees with all the others');
    expect(disagreeWords(['A to B', 'A to C'])[0]).toContain('it cannot be told which');
  });
});

describe('sentences about input', () => {
  it('give the place, what was typed and what would be right, for every fault of a catalogue row', () => {
    const reasons: IssueReason[] = [
      { code: 'missing_column', column: 'code' },
      { code: 'unknown_column', column: 'colour' },
      { code: 'empty' },
      { code: 'not_allowed', typed: 'perhaps', allowed: ['yes', 'no'] },
      { code: 'not_a_day', typed: '41.5.' },
      { code: 'bad_pair', typed: 'x', shape: 'part*quantity' },
      { code: 'duplicate', key: 'K1', firstRow: 3 },
      { code: 'dangling', key: 'K9', table: 'kits' },
      { code: 'supersession_loop', chain: ['A', 'B', 'A'] },
      { code: 'window_impossible', from: '2020-01-01', to: '2019-01-01' },
      { code: 'windows_overlap', other: 'V2' },
      { code: 'value_not_of_feature', feature: 'screws', value: 'nine', allowed: ['five', 'seven'] },
      { code: 'wrong_unit', typed: '1.9in' },
      { code: 'not_positive', typed: '-117' },
      { code: 'not_whole', typed: '2.5' },
      { code: 'not_a_number', typed: 'many' },
    ];
    const said = reasons.map((reason) =>
      issueSentence({ table: 'kits', row: 7, column: 'contents', reason }),
    );
    for (const [i, s] of said.entries()) {
      expect(s)
        .withContext(reasons[i]!.code)
        .toMatch(/^kits, line 7, contents: .+\.$/);
      const r = reasons[i]!;
      if ('typed' in r) expect(s).toContain(r.typed);
    }
    expect(new Set(said).size).toBe(said.length);
    expect(said[8]).toContain('A → B → A');
  });

  it('say for every value that cannot be read how to write it', () => {
    expect(readSentence({ code: 'not_a_date', typed: '31.31.', order: 'dmy' })).toContain('day.month.year');
    expect(readSentence({ code: 'out_of_range', typed: '900', min: '0 mm', max: '80 mm' })).toContain(
      '0 mm to 80 mm',
    );
    expect(readSentence({ code: 'unknown_unit', typed: 'ells', allowed: ['mm', 'in'] })).toContain(
      'Use mm and in.',
    );
  });
});
