import * as fc from 'fast-check';
import { demoPack } from '../../demo/catalogue';
import { catalogueOf, stagesFor } from '@core/catalogue/find-records';
import { fileFacts } from '@core/facts/change';
import type { Author } from '@core/facts/fact';
import { reduce } from '@core/facts/state';
import { SHIPPED_POLICY, policyWith } from '@core/policy/policy';
import { fittedAs } from './fitted';
import { makeSheet } from './sheet';
import { type SheetAnswers, readCode, writeCode } from './sheet-code';
import {
  sheetQuestions,
  caseMark,
  checkOf,
  readReturn,
  returnedTo,
  sheetDigest,
  type SheetReturn,
  isShortMark,
} from './sheet-return';

const cat = catalogueOf(demoPack());
const sheetOf = (id: string, policy = SHIPPED_POLICY) => {
  const v = cat.variants.get(id)!;
  return makeSheet(cat, v, stagesFor(cat, v.layout!), policy);
};
const sheet = sheetOf('QU13-STOA/A');
const home = { caseId: 'case-1', sheet, state: reduce([]) };
let n = 0;
const author: Author = {
  by: 'T',
  now: () => new Date(Date.UTC(2026, 0, 1) + ++n).toISOString(),
  newId: () => `n${++n}`,
};

const at = (end: string) => sheet.steps.find((s) => s.id.startsWith(end))!;
/** A filled sheet: all done in order, but the tensioner is never let go, and the rails come after the chain. */
function filled(change: Partial<SheetReturn> = {}): string {
  const order = sheet.steps.map((s) => s.id).filter((id) => id !== at('build.release').id);
  const rails = order.indexOf(at('build.rails').id);
  [order[rails], order[rails + 1]] = [order[rails + 1]!, order[rails]!];
  const rest: Omit<SheetReturn, 'check'> = {
    format: 'hollow-sprocket-sheet',
    formatVersion: 1,
    case: 'case-1',
    tag: '77',
    sheet: sheetDigest(sheet),
    fitter: 'A. Fitter',
    day: '2026-11-26',
    steps: sheet.steps.map((s) =>
      s.id === at('build.release').id
        ? { id: s.id, state: 'skipped' as const }
        : { id: s.id, state: 'done' as const, place: order.indexOf(s.id) + 1 },
    ),
    ...change,
  };
  return JSON.stringify({ ...rest, check: checkOf(rest) });
}
const codeOf = (r: ReturnType<typeof readReturn>) => (r.ok ? 'ok' : r.error.code);

describe('a filled sheet that comes back', () => {
  it('becomes facts of its steps, and shows both faults with their steps and the way back', () => {
    const came = readReturn(filled(), home);
    if (!came.ok) return fail(came.error.code);
    const facts = fileFacts(home.state, 'case-1', came.value.entries, author);
    const f = fittedAs(sheet, reduce(facts), SHIPPED_POLICY)!;
    expect(f.faults.map((x) => [x.code, x.step, x.how]).sort()).toEqual(
      [
        ['REL-ERLY', at('build.route').id, 'reversed'],
        ['REL-NONE', at('build.release').id, 'skipped'],
      ].sort(),
    );
    expect(f.back.way?.startAt).toBe(at('build.route').id);
    expect(f.unconfirmed).toEqual([]);
    // Only what stands elsewhere than on the sheet has a place told.
    expect(facts.filter((x) => x.key === 'step.place').length).toBe(1);
    expect(readReturn(filled(), { ...home, state: reduce(facts) })).toEqual({
      ok: false,
      error: { code: 'twice' },
    });
  });

  it('is refused by name when it is cut, edited, of another case or version, or cannot be; nothing comes of it', () => {
    const whole = filled();
    expect(codeOf(readReturn(whole.slice(0, -40), home))).toBe('cut');
    expect(codeOf(readReturn(whole.replace('"skipped"', '"done"'), home))).toBe('edited');
    expect(codeOf(readReturn('{"format":"x"}', home))).toBe('shape');
    expect(codeOf(readReturn(filled({ case: 'case-2' }), home))).toBe('other_case');
    expect(codeOf(readReturn(filled({ sheet: 'a'.repeat(64) }), home))).toBe('other_version');
    const odd = (step: Partial<SheetReturn['steps'][number]>) =>
      readReturn(filled({ steps: [{ id: at('ready.cold').id, state: 'done', ...step }] }), home);
    expect(codeOf(odd({ id: 'no.such' }))).toBe('step_unknown');
    expect(codeOf(odd({ values: { over: 900 } }))).toBe('impossible');
    expect(codeOf(odd({ values: { nobody: 1 } }))).toBe('step_unknown');
    expect(codeOf(odd({ values: { over: 2, stood: 600 } }))).toBe('ok');
    expect(codeOf(readReturn('HS1 0000', home))).toBe('not_a_code');
  });

  it('is refused where no fitter can have done so, and brings a remark that was added later', () => {
    const steps = (JSON.parse(filled()) as SheetReturn).steps;
    const [a, b] = steps as [SheetReturn['steps'][number], SheetReturn['steps'][number]];
    expect(codeOf(readReturn(filled({ steps: [] }), home))).toBe('empty');
    expect(codeOf(readReturn(filled({ steps: [a, a] }), home))).toBe('step_twice');
    expect(codeOf(readReturn(filled({ steps: [a, { ...b, place: a.place! }] }), home))).toBe('place_twice');
    for (const day of ['2026-02-30', 'Friday'])
      expect(codeOf(readReturn(filled({ day }), home))).toBe('no_day');
    const first = readReturn(filled(), home);
    if (!first.ok) return fail(first.error.code);
    const state = reduce(fileFacts(home.state, 'case-1', first.value.entries, author));
    const said = filled({ steps: steps.map((s, i) => (i === 3 ? { ...s, note: 'page torn' } : s)) });
    const later = readReturn(said, { ...home, state });
    expect(later.ok && later.value.entries.map((e) => [e.key, e.value])).toEqual([
      ['step.note', 'page torn'],
    ]);
    const now = reduce([
      ...state.log,
      ...(later.ok ? fileFacts(state, 'case-1', later.value.entries, author) : []),
    ]);
    expect(codeOf(readReturn(said, { ...home, state: now }))).toBe('twice');
  });

  it('tells cases apart by forty bits, and still reads a code of sixteen', () => {
    const coded = {
      sheet: 'a'.repeat(64),
      case: '0123456789abcdef',
      steps: [{ state: 'done' as const, values: [] }],
    };
    const asked = [{ asks: 0, instead: 0 }];
    const [old, now] = [writeCode(coded, asked, 'HS1'), writeCode(coded, asked)];
    expect([old.slice(0, 3), now.slice(0, 3)]).toEqual(['HS1', 'HS2']);
    for (const [text, mark] of [
      [old, '0123'],
      [now, '0123456789'],
    ] as const) {
      expect(returnedTo(text)).toEqual({ mark });
      expect(isShortMark(mark)).toBe(text === old);
      const back = readCode(text, asked);
      expect(back.ok && back.value.steps[0]!.state).toBe('done');
    }
  });

  it('is taken of an earlier version that was sent from here', () => {
    const sent = fileFacts(
      home.state,
      'case-1',
      [{ key: 'fit.sheet_sent', value: `${'b'.repeat(64)} 30 steps`, how: 'decided', series: 'sheets' }],
      author,
    );
    const old = filled({ sheet: 'b'.repeat(64) });
    expect(codeOf(readReturn(old, { ...home, state: reduce(sent) }))).toBe('ok');
  });

  it('says the same as a code, is known again as the same, and names its case', () => {
    const order = JSON.parse(filled()) as SheetReturn;
    const moved = new Map([
      [at('build.route').id, order.steps.find((s) => s.id === at('build.route').id)!.place!],
    ]);
    const steps: SheetAnswers[] = order.steps.map((s) => ({
      state: s.state,
      place: moved.get(s.id),
      values: (sheet.steps.find((x) => x.id === s.id)?.proof?.asks ?? []).map(() => undefined),
    }));
    const code = writeCode(
      { sheet: order.sheet, case: caseMark('case-1'), steps },
      sheetQuestions(sheet.steps),
    );
    const [a, b] = [readReturn(code, home), readReturn(filled(), home)];
    if (!a.ok || !b.ok) return fail('refused');
    const bare = (r: typeof a) =>
      r.value.entries.filter((e) => e.key.startsWith('step.')).map((e) => [e.about, e.key, e.value]);
    expect(bare(a)).toEqual(bare(b));
    const facts = fileFacts(home.state, 'case-1', b.value.entries, author);
    expect(codeOf(readReturn(code, { ...home, state: reduce(facts) }))).toBe('twice');
    expect(codeOf(readReturn(code, { ...home, caseId: 'case-9' }))).toBe('other_case');
    const others = { ...home, sheet: sheetOf('QU13-STOA/B') };
    expect(codeOf(readReturn(code, others))).toBe('other_version');
    expect(returnedTo(code)).toEqual({ mark: caseMark('case-1') });
    expect(returnedTo(filled())).toEqual({ id: 'case-1' });
    // Short enough to be typed: some thirty steps in under thirty groups of four.
    expect(code.split(' ').length).toBeLessThan(30);
  });
});

const answered = fc.record({
  state: fc.constantFrom(undefined, 'done' as const, 'skipped' as const, 'wrong' as const),
  place: fc.option(fc.integer({ min: 1, max: 120 }), { nil: undefined }),
  values: fc.array(
    fc.option(
      fc.integer({ min: -9999, max: 999_999 }).map((v) => v / 100),
      { nil: undefined },
    ),
    { minLength: 2, maxLength: 2 },
  ),
  instead: fc.option(fc.integer({ min: 0, max: 3 }), { nil: undefined }),
});

describe('a code', () => {
  it('comes back as it was written, also typed in small letters, without blanks and with letters for digits', () => {
    fc.assert(
      fc.property(fc.array(answered, { minLength: 1, maxLength: 60 }), (steps) => {
        const asked = steps.map(() => ({ asks: 2, instead: 4 }));
        const coded = { sheet: '0123abcd', case: 'beef012345', steps };
        const code = writeCode(coded, asked);
        const read = readCode(code, asked);
        expect(read).toEqual({ ok: true, value: coded });
        const typed = code
          .toLowerCase()
          .replace(/ /g, '')
          .replace(/0/g, 'o')
          .replace(/(?<!^hs)1/g, 'l');
        expect(readCode(typed, asked)).toEqual(read);
      }),
    );
  });

  it('does not hold together with one sign wrong, two changed round or one missing', () => {
    const asked = Array.from({ length: 30 }, () => ({ asks: 0, instead: 0 }));
    const steps = asked.map((_, i) => ({
      state: i % 3 ? ('done' as const) : ('skipped' as const),
      values: [],
    }));
    const code = writeCode({ sheet: '0123abcd', case: 'beef012345', steps }, asked).replace(/ /g, '');
    let [tried, missed] = [0, 0];
    for (let i = 3; i < code.length; i++)
      for (const wrong of [
        code.slice(0, i) + (code[i] === 'A' ? 'B' : 'A') + code.slice(i + 1),
        code.slice(0, i) + code.slice(i + 1),
        ...(code[i] === code[i + 1]
          ? []
          : [code.slice(0, i) + (code[i + 1] ?? '') + (code[i] ?? '') + code.slice(i + 2)]),
      ]) {
        if (wrong === code) continue;
        tried++;
        const read = readCode(wrong, asked);
        if (read.ok || read.error.code !== 'code_broken') missed++;
      }
    expect(tried).toBeGreaterThan(80);
    expect(missed).toBe(0);
  });
});

describe('house rules on sheets', () => {
  it('each change a sheet of the catalogue, or what is said on it, and are printed on the sheets they shape', () => {
    const ids = [...cat.variants.keys()];
    const plain = ids.map((id) => sheetOf(id));
    const read = (s: typeof sheet) => s.steps.map((x) => [x.text, x.proof?.text, x.tool]);
    const none: string[] = [];
    for (const key of Object.keys(SHIPPED_POLICY.chosen)) {
      const policy = policyWith({ [key]: otherOf(key) });
      const changed = ids.filter(
        (id, i) => JSON.stringify(read(sheetOf(id, policy))) !== JSON.stringify(read(plain[i]!)),
      );
      if (changed.length === 0) none.push(key);
      else
        for (const id of changed)
          expect(sheetOf(id, policy).shapedBy).withContext(`${key} ${id}`).toContain(key);
    }
    expect(none).toEqual([]);
  });
});
const otherOf = (key: string): string => {
  const other: Record<string, string> = {
    locking_tools: 'substitutes',
    old_plunger: 'reuse',
    used_belt: 'inspect',
    tensioner_only: 'set',
    marks: 'exact',
    turns: '4',
    turning_back: 'never',
    impeller: 'metal',
    threadlocker: 'always',
    wrench: 'feel',
    tension_check: 'converted',
    around: 'failed',
    balance: 'remove',
    uprated: 'uprated',
  };
  return other[key]!;
};
