import { demoPack } from '../../demo/catalogue';
import { demoFacts } from '../../demo/cases';
import { demoScenario, SEED } from '../../demo/scenario';
import shipped from '../../demo/demo.json';
import { judgePointer } from '@core/bench/tensioners';
import { catalogueOf, findCode, nearestCodes } from '@core/catalogue/find-records';
import { CAUSES } from '@core/cause/cause-data';
import { logLife, logWeibull, runBy, survival } from '@core/cause/life';
import { checkSeals, sealedNow } from '@core/claim/seal';
import { factsDigest } from '@core/facts/digest';
import { judgeTerms } from '@core/claim/terms';
import { fileFact } from '@core/facts/change';
import type { Author, Fact } from '@core/facts/fact';
import { reduce } from '@core/facts/state';
import { nominalLength, tensionerIndex } from '@core/drive/layout';
import { limitsOf } from '@core/drive/carrier';
import { solveDrive } from '@core/drive/solve-drive';
import { tensionerSettings, travelFrom } from '@core/drive/tensioner';
import { smallestGaps } from '@core/drive/valve-safety';
import { answersFor, settled } from './answers';
import { undoTarget } from '@core/facts/change';
import { RULES, rulesWith } from '@core/house/rules';
import { reread, sealing } from './sealing';
import { difference, linesOf, LINE_KINDS, movedBy, readLine, writeLine } from './difference';
import { worldOf } from './world';

const value = <T>(r: { ok: true; value: T } | { ok: false; error: unknown }): T => {
  if (!r.ok) throw new Error(JSON.stringify(r.error));
  return r.value;
};
const cat = catalogueOf(demoPack());
const all = demoFacts(SEED);
const caseOf = (tag: string) => all.filter((f) => f.case === `demo-${tag}`);
const answers = (facts: readonly Fact[]) => answersFor(worldOf(cat), reduce(facts));
let n = 0;
const author: Author = {
  by: 'T',
  now: () => new Date(Date.UTC(2027, 0, 1) + ++n * 1000).toISOString(),
  newId: () => `t${++n}`,
};
const plus = (facts: readonly Fact[], key: string, value: Fact['value']) => [
  ...facts,
  fileFact(reduce(facts), facts[0]!.case, { key, value, how: 'seen' }, author),
];

describe('demo scenario', () => {
  it('is what the generator makes', () => {
    expect(JSON.parse(JSON.stringify(demoScenario()))).toEqual(shipped);
  });

  it('is physically true: each layout has its belt’s or chain’s length at the nominal reading, to 0.05 mm', () => {
    expect(cat.pack.variants.every((v) => v.layout !== undefined)).toBeTrue();
    for (const layout of cat.pack.layouts) {
      const solved = solveDrive(layout);
      if (!solved.ok) throw new Error(`${layout.id} ${solved.error.code}`);
      expect(Math.abs(solved.value.path.lengthMm - nominalLength(layout)))
        .withContext(layout.id)
        .toBeLessThan(0.05);
      const carrier = layout.wheels[tensionerIndex(layout)]?.carrier;
      if (!carrier) continue;
      const { nominal } = limitsOf(carrier).window;
      expect(Math.abs(solved.value.setting!.reading - nominal))
        .withContext(layout.id)
        .toBeLessThan(0.5);
      expect(travelFrom(layout, value(tensionerSettings(layout)), solved.value.setting!).followsMm)
        .withContext(layout.id)
        .toBeGreaterThan(1);
    }
  });
});

describe('interference in the demo', () => {
  it('is what stroke, rod and valve reach say, wherever they are given', () => {
    let seen = 0;
    for (const v of cat.pack.variants) {
      const valves = cat.layouts.get(v.layout!)?.valves;
      const stated = cat.engines.get(v.engine)!.interference;
      if (!valves || stated === 'unknown') continue;
      const phases = Array.from({ length: 36 }, (_, k) => k * 20);
      const meets = phases.some((p) => smallestGaps(valves, () => p).some((c) => c.gapMm <= 0));
      expect(meets)
        .withContext(v.id)
        .toBe(stated === 'yes');
      seen++;
    }
    expect(seen).toBeGreaterThan(6);
  });
});

const FITS_IF: Record<string, 'fits' | 'no' | 'fits_if'> = {
  'MF-K121-0': 'fits_if',
  'MF-K121-1': 'fits_if',
  'MF-K121-2': 'fits_if',
  'MF-K123-1': 'fits_if',
  'MF-K123-2': 'fits_if',
};

describe('identification and kits', () => {
  const verdicts = (facts: readonly Fact[]) =>
    Object.fromEntries(answers(facts).kits.map((k) => [k.kit.number, k.verdict]));

  it('never rules out on unknown, and answers in three values', () => {
    const call = caseOf('2041');
    expect(verdicts(call)).toEqual(FITS_IF);
    expect(verdicts(plus(call, 'feature.cover-screws', 'unknown'))).toEqual(FITS_IF);
    expect(verdicts(plus(call, 'feature.cover-screws', 'seven'))).toEqual(
      jasmine.objectContaining({ 'MF-K121-1': 'no', 'MF-K123-1': 'fits' }),
    );
    expect(verdicts(plus(call, 'kit.number', 'MF-K117-1'))['MF-K117-1']).toBe('no');
  });

  it('shows facts that contradict each other instead of resolving them', () => {
    const both = plus(plus(caseOf('2041'), 'feature.cover-screws', 'seven'), 'feature.guide-roller', 'steel');
    const a = answers(both);
    expect(a.identification?.contradicted).toBeTrue();
    expect(a.identification?.standings.map((s) => s.excludedBy.length)).toEqual([1, 1]);
    expect(a.drive).toBeUndefined();
  });

  it('asks the cheaper of two equally telling questions first, worth the entropy of the shares', () => {
    const [first, second] = answers(caseOf('2041')).asking.questions;
    const h = -(0.62 * Math.log2(0.62) + 0.38 * Math.log2(0.38));
    expect(first!.feature.id).toBe('cover-screws');
    expect(first!.bits).toBeCloseTo(h, 12);
    expect(second!.minutes).toBeGreaterThan(first!.minutes);
  });

  it('finds a code however it is written and names the nearest otherwise', () => {
    expect(findCode(cat.engines.keys(), 'te 16 c0rm')).toBe('TE16-CORM');
    expect(nearestCodes(cat.engines.keys(), 'TE15-CORM', 1)).toEqual(['TE14-CORM']);
  });
});

describe('pointer', () => {
  const carrier = cat.pack.layouts[0]!.wheels.find((w) => w.carrier)!.carrier!;
  it('is judged with its uncertainty', () => {
    expect(judgePointer(90, 3, carrier, -102)).toBe('right');
    expect(judgePointer(97, 3, carrier, -102)).toBe('cannot_tell');
    expect(judgePointer(-96, 3, carrier, -102)).toBe('wrong_way');
    expect(judgePointer(40, 3, carrier, -102)).toBe('slack');
    expect(judgePointer(125, 3, carrier, -102)).toBe('beyond');
    expect(judgePointer(158, 3, carrier, -102)).toBe('end');
  });
});

describe('distance since fitting', () => {
  const ran = (now: number, then: number, u: number | undefined) => {
    const facts = plus(plus(caseOf('2041'), 'vehicle.odometer', now), 'kit.fitted_odometer', then);
    return answers(facts.map((f) => (f.key.endsWith('odometer') && u !== undefined ? { ...f, u } : f)));
  };
  const life = (a: ReturnType<typeof answers>, key: string) =>
    a.ranking.causes.find((c) => c.cause.key === key)?.weights.find((w) => w.finding === 'distance.run');

  it('says nothing within the noise of its two readings, whether or not that noise was typed', () => {
    for (const u of [500, undefined]) {
      expect(life(ran(100_010, 100_000, u), 'tooth_out')).toBeUndefined();
      expect(life(ran(101_300, 100_000, u), 'tooth_out')).toBeUndefined();
      expect(life(ran(101_500, 100_000, u), 'tooth_out')).toBeDefined();
    }
    expect(life(ran(100_010, 100_000, 1), 'tooth_out')!.nats).toBeGreaterThan(2);
  });

  it('is weighed as the density integrated over what it may be, checked by a fine sum, 0.5 %', () => {
    for (const [km, u, shape, scale] of [
      [1500, 700, 0.8, 4000],
      [9000, 700, 1.6, 9000],
      [120_000, 2500, 5, 150_000],
      [3000, 1500, 1.2, 12_000],
    ] as const) {
      let sum = 0;
      const dx = u / 2000;
      for (let x = dx / 2; x < km + 8 * u; x += dx)
        sum += Math.exp(logWeibull(x, { shape, scale }) - 0.5 * ((x - km) / u) ** 2) * dx;
      const fine = sum / (u * Math.sqrt(2 * Math.PI));
      expect(Math.exp(logLife({ x: km, u }, { shape, scale })) / fine)
        .withContext(`${km} ± ${u}`)
        .toBeCloseTo(1, 2);
    }
    const sharp = logLife({ x: 9000, u: 1 }, { shape: 1.6, scale: 9000 });
    for (const share of [0.01, 0.5, 0.9])
      expect(survival(runBy(share, { shape: 1.6, scale: 9000 }), { shape: 1.6, scale: 9000 })).toBeCloseTo(
        1 - share,
        12,
      );
    expect(sharp).toBeCloseTo(logWeibull(9000, { shape: 1.6, scale: 9000 }), 4);
  });
});

describe('contradictions', () => {
  const codes = (facts: readonly Fact[]) => answers(facts).contradictions.map((c) => c.code);
  it('of time, distance, catalogue and drive are told with the facts that they lie in', () => {
    const base = caseOf('2027');
    expect(codes(base)).toEqual([]);
    const told = (key: string, value: Fact['value']) => {
      const a = answers(plus(base, key, value)).contradictions;
      return a.map((c) => `${c.code}: ${c.facts.map((f) => f.key).join(' ')}`);
    };
    expect(told('case.date', '2026-07-01')).toEqual(['days_reversed: kit.fitted case.date']);
    expect(told('vehicle.odometer', 60_000)).toEqual(['odometer_back: kit.fitted_odometer vehicle.odometer']);
    expect(told('vehicle.odometer', 89_500)).toEqual([]);
    expect(told('case.date', '2031-01-01')).toContain('in_the_future: case.date');
    expect(told('tensioner.extension', 7)).toEqual(['not_on_drive: tensioner.extension']);
    expect(told('belt.teeth_count', 3)).toContain('cannot_be: belt.teeth_count');
    const late = plus(plus(caseOf('2041'), 'engine.code', 'TE14-CORM'), 'vehicle.built', '2011-04-01');
    expect(codes(late)).toContain('built_before_engine');
  });

  it('of the odometer are no missing reading', () => {
    const a = answers(plus(caseOf('2027'), 'vehicle.odometer', 60_000));
    expect(a.terms).toEqual(jasmine.objectContaining({ verdict: 'cannot_tell', missing: ['distance_back'] }));
  });
});

describe('causes', () => {
  const examined = answers(caseOf('2027'));

  it('add up to one with "none of these"', () => {
    const sum = examined.ranking.causes.reduce((s, c) => s + c.probability, examined.ranking.none);
    expect(sum).toBeCloseTo(1, 12);
  });

  it('are all neutral on unknown', () => {
    expect(answers(plus(caseOf('2041'), 'belt.contamination', 'unknown')).ranking.none).toBeCloseTo(
      answers(caseOf('2041')).ranking.none,
      12,
    );
  });

  it('weigh distance by life densities that integrate to one', () => {
    let area = 0;
    for (let x = 5; x < 400000; x += 10) area += Math.exp(logWeibull(x, { shape: 1.6, scale: 9000 })) * 10;
    expect(area).toBeCloseTo(1, 4);
    const far = answers(plus(caseOf('2038'), 'vehicle.odometer', 160000)).ranking.causes.find(
      (c) => c.cause.key === 'set_wrong_way',
    )!;
    const near = answers(caseOf('2038')).ranking.causes.find((c) => c.cause.key === 'set_wrong_way')!;
    expect(far.probability).toBeLessThan(near.probability / 3);
  });

  it('name what the leader leaves unexplained, and facts that contradict each other', () => {
    const odd = plus(plus(caseOf('2027'), 'pump.bearing', 'seized'), 'tensioner.key_turn', 'ccw');
    const r = answers(odd).ranking;
    expect(r.causes[0]!.cause.key).toBe('set_wrong_way');
    expect(r.unexplained.map((f) => f.finding)).toContain('pump.bearing');
    expect(r.contradictions.length).toBe(1);
  });
});

describe('claim', () => {
  const terms = { months: 24, km: 60000 };
  it('is in to the last day and kilometre and out by how much', () => {
    const km = (v: number) => ({ km: v, u: 0 });
    expect(judgeTerms(terms, '2024-11-24', '2026-11-24', km(60000)).verdict).toBe('in');
    expect(judgeTerms(terms, '2024-11-24', '2026-11-25', km(100))).toEqual({
      verdict: 'out',
      ends: '2026-11-24',
      overKm: 0,
      overDays: 1,
    });
    expect(judgeTerms(terms, '2026-01-01', '2026-02-01', km(60100))).toEqual(
      jasmine.objectContaining({ verdict: 'out', overKm: 100, overDays: 0 }),
    );
    expect(judgeTerms(terms, '2026-01-01', '2026-02-01', undefined).verdict).toBe('cannot_tell');
    expect(judgeTerms(terms, '2020-01-01', '2026-02-01', undefined).verdict).toBe('out');
    // 59,800 km between two readings of ± 500 are neither in nor out; three times the distance is out whenever it began.
    expect(judgeTerms(terms, '2026-01-01', '2026-02-01', { km: 59800, u: 500 })).toEqual(
      jasmine.objectContaining({ verdict: 'cannot_tell', missing: ['distance_near'] }),
    );
    expect(judgeTerms(terms, undefined, undefined, { km: 180000, u: 500 })).toEqual({
      verdict: 'out',
      ends: undefined,
      overKm: 120000,
      overDays: 0,
    });
  });

  it('may not be declined on a story alone, without an alternative or plain words', () => {
    const told = caseOf('2027').filter(
      (f) =>
        !['measured', 'seen'].includes(f.how) &&
        !f.key.startsWith('claim.alternative') &&
        f.key !== 'claim.reason',
    );
    const codes = answers(told).decision.objections.map((o) => o.code);
    expect(codes).toContain('decline_needs_evidence');
    expect(codes).toContain('decline_needs_alternative');
    expect(codes).toContain('no_reason');
    expect(answers(caseOf('2027')).decision.objections).toEqual([]);
  });

  it('may not be declined on a fact that was not taken from the parts or the fitting, fault or no fault', () => {
    const codes = (facts: readonly Fact[]) => answers(facts).decision.objections.map((o) => o.code);
    // the vehicle's reading was measured, yet says nothing of the parts
    const bare = caseOf('2027').filter(
      (f) => !f.key.startsWith('tensioner.') && !/^(belt|wheel|cover|claim.fault)/.test(f.key),
    );
    const read = bare.map((f) => (f.key === 'vehicle.odometer' ? { ...f, how: 'measured' as const } : f));
    expect(codes(read)).toContain('decline_needs_evidence');
    // A sound look, one that was passed over, one in vain: none of them speaks for a fault.
    for (const value of ['sound', 'skipped', 'unknown'])
      expect(codes(plus(read, 'belt.back', value)))
        .withContext(value)
        .toContain('decline_needs_evidence');
    expect(codes(plus(read, 'belt.back', 'cracked'))).not.toContain('decline_needs_evidence');
  });

  it('waits for a document that the terms require, or for a reason to go on without it', () => {
    const without = caseOf('2027').filter((f) => f.key !== 'claim.invoice' && f.key !== 'report.issue');
    const check = (facts: readonly Fact[]) => answers(facts).decision;
    expect(check(without).objections).toEqual([{ code: 'missing_document', document: 'invoice' }]);
    const reasoned = plus(
      without,
      'claim.without_document',
      'The workshop burnt down; the counter confirms the sale.',
    );
    expect(check(reasoned).objections).toEqual([]);
    expect(check(reasoned).warnings).toContain({ code: 'missing_document', document: 'invoice' });
    expect(check(plus(without, 'claim.decision', 'wait')).objections).toEqual([]);
  });

  it('does not decline over what this desk advised, before somebody says how that bears on it', () => {
    const told = plus(
      caseOf('2027').filter((f) => f.key !== 'report.issue'),
      'call.told',
      'Key clockwise.',
    );
    const codes = (facts: readonly Fact[]) => answers(facts).decision.objections.map((o) => o.code);
    expect(codes(told)).toEqual(['told_unweighed']);
    expect(codes(plus(told, 'claim.told_weighed', 'They were told the other sense.'))).toEqual([]);
    expect(codes(plus(told, 'claim.decision', 'accept'))).toEqual([]);
  });

  it('offers a fault only with evidence that speaks for it', () => {
    const offered = answers(caseOf('2027'))
      .faults.filter((f) => f.evidence.length > 0)
      .map((f) => f.fault.code);
    expect(offered).toEqual(['SET-WAY']);
  });

  it('proves a sealed report and notices what was altered or filed later', () => {
    const sealed = caseOf('2027');
    expect(checkSeals(reduce(sealed))[0]).toEqual(jasmine.objectContaining({ verdict: 'intact', later: 0 }));
    expect(checkSeals(reduce(plus(sealed, 'belt.back', 'cut')))[0]).toEqual(
      jasmine.objectContaining({ verdict: 'intact', later: 1 }),
    );
    // merged later with an earlier time: newer facts exist all the same
    const early = { ...plus(sealed, 'belt.back', 'cut').at(-1)!, at: '2020-01-01T00:00:00.000Z' };
    expect(checkSeals(reduce([...sealed, early]))[0]).toEqual(
      jasmine.objectContaining({ verdict: 'intact', later: 1 }),
    );
    expect(sealedNow(checkSeals(reduce([...sealed, early])))).toBeUndefined();
    const hollow = sealed.map((f) =>
      f.key === 'report.issue' ? { ...f, basis: [], value: factsDigest([]) } : f,
    );
    expect(checkSeals(reduce(hollow))[0]!.verdict).toBe('void');
    const bent = sealed.map((f) => (f.key === 'cover.rub' ? { ...f, value: 'none' } : f));
    expect(checkSeals(reduce(bent))[0]!.verdict).toBe('altered');
    expect(checkSeals(reduce(sealed.filter((f) => f.key !== 'cover.rub')))[0]!.verdict).toBe('altered');
  });
});

describe('the difference of two readings', () => {
  const world = worldOf(cat);
  const all = ['2027', '2033', '2036', '2041', '2044'].map(caseOf);

  it('names what a fact moved, and nothing for a fact that moved nothing', () => {
    const facts = caseOf('2027');
    const moves = (key: string) => movedBy(world, facts, facts.find((f) => f.key === key)!);
    expect(moves('tensioner.pointer')).toContain({
      what: 'setting',
      of: '',
      before: undefined,
      after: 'wrong_way',
    });
    expect(moves('vehicle.built').map((m) => m.what)).toContain('designs');
    expect(moves('call.who')).toEqual([]);
  });

  it('is empty against itself, turns round with its sides, and survives being written', () => {
    for (const [i, facts] of all.entries()) {
      const [a, b] = [facts, all[(i + 1) % all.length]!].map((f) => linesOf(answers(f)));
      expect(difference(a!, a!)).toEqual([]);
      const there = difference(a!, b!);
      const back = difference(b!, a!).map((d) => ({ ...d, before: d.after, after: d.before }));
      const byName = (x: { what: string; of: string }, y: typeof x) =>
        x.what + x.of < y.what + y.of ? -1 : 1;
      expect(back.sort(byName)).toEqual([...there].sort(byName));
      expect(new Set(a!.map((l) => `${l.what} ${l.of}`)).size).toBe(a!.length);
      const read = a!.map((l) => readLine(writeLine(l))!);
      expect(difference(a!, read)).toEqual([]);
      for (const l of a!) expect(LINE_KINDS).toContain(l.what);
    }
  });
});

describe('answers of a case that grows', () => {
  it('are the same whether they were kept from before or computed afresh, and what nothing touched is kept', () => {
    const world = worldOf(cat);
    for (const tag of ['2027', '2033', '2036']) {
      const facts = caseOf(tag);
      let kept: ReturnType<typeof answersFor> | undefined;
      for (let n = 1; n <= facts.length; n++) {
        const state = reduce(facts.slice(0, n));
        kept = answersFor(world, state, kept);
        const fresh = answersFor(world, state);
        for (const name of Object.keys(Object.getPrototypeOf(kept) as object) as (keyof typeof kept)[])
          expect(kept[name])
            .withContext(`${tag} ${n} ${name}`)
            .toEqual(fresh[name] as never);
      }
    }
    const facts = caseOf('2027');
    const before = settled(answersFor(world, reduce(facts)));
    const after = answersFor(world, reduce(plus(facts, 'call.who', 'somebody else')), before);
    for (const name of ['identification', 'drive', 'findings', 'ranking', 'terms', 'asking'] as const)
      expect(after[name])
        .withContext(name)
        .toBe(before[name] as never);
    const moved = answersFor(world, reduce(plus(facts, 'belt.back', 'cut')), before);
    expect(moved.identification).toBe(before.identification);
    expect(moved.ranking).not.toBe(before.ranking);
  });
});

describe('an issued report', () => {
  it('and the one after it do not contradict each other', () => {
    const facts = caseOf('2027');
    const again = [...facts, ...sealing(worldOf(cat), reduce(facts), facts[0]!.case, author)];
    const a = answers(again);
    expect(a.seals.map((s) => s.verdict)).toEqual(['intact', 'intact']);
    expect(a.contradictions).toEqual(answers(facts).contradictions);
  });

  it('keeps the house rules that it was judged by: under other rules the case still reads as it did', () => {
    const four = rulesWith({ turns: '4' });
    const open = caseOf('2038');
    const issued = [...open, ...sealing(worldOf(cat, { rules: four }), reduce(open), open[0]!.case, author)];
    const turns = (facts: readonly Fact[], rules = RULES) =>
      answersFor(worldOf(cat, { rules }), reduce(facts)).rules.chosen['turns'];
    expect([turns(open), turns(open, four), turns(issued), turns(issued, four)]).toEqual([
      '2',
      '4',
      '4',
      '4',
    ]);
    expect(answersFor(worldOf(cat), reduce(issued)).seals.map((s) => [s.verdict, s.later])).toEqual([
      ['intact', 0],
    ]);
    expect(undoTarget(reduce(issued), author.by)?.key).not.toBe('case.rules');
    // The next issue keeps them too, and adds no second answer.
    const again = [...issued, ...sealing(worldOf(cat), reduce(issued), open[0]!.case, author)];
    expect(again.filter((f) => f.key === 'case.rules').length).toBe(1);
  });

  it('keeps how it read and in which world, and tells what another world would say', () => {
    const world = worldOf(cat);
    const facts = caseOf('2027');
    const [check] = answers(facts).seals;
    expect(reread(world, reduce(facts), check!)).toEqual({ changed: [], differs: [] });
    const wrongWay = CAUSES.causes.find((c) => c.key === 'set_wrong_way')!;
    const others = CAUSES.causes.filter((c) => c !== wrongWay);
    const knowledge = {
      ...world.knowledge,
      causes: { ...CAUSES, causes: [...others, { ...wrongWay, prior: 0.0001 }] },
    };
    const other = reread({ ...world, knowledge }, reduce(facts), check!)!;
    expect(other.changed.map((c) => c.part)).toEqual(['knowledge']);
    const moved = other.differs.find((d) => d.of === 'set_wrong_way')!;
    expect(Number(moved.after)).toBeLessThan(Number(moved.before));
    // an issue of before kept no reading: nothing is claimed of it
    const old = facts.map((f) =>
      f.key === 'report.issue' ? { ...f, basis: f.basis!.filter((id) => !id.endsWith('said')) } : f,
    );
    const bare = old.filter((f) => f.key !== 'report.said');
    expect(reread(world, reduce(bare), { ...check!, seal: bare.at(-1)! })).toBeUndefined();
  });
});
