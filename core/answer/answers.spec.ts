import { CAUSES } from '@core/cause/cause-data';
import { logLife, logWeibull, runBy, survival } from '@core/cause/life';
import type { Fact } from '@core/facts/fact';
import { reduce } from '@core/facts/state';
import { answersFor, settled } from './answers';
import { undoTarget } from '@core/facts/change';
import { SHIPPED_POLICY, policyWith } from '@core/policy/policy';
import { reread, sealing } from './sealing';
import { LINE_KINDS, answerDifference, linesOf, movedBy, readAnswerLine, writeLine } from './difference';
import { worldOf } from './world';
import { answers, author, caseOf, cat, plus } from './demo-case.fixture';

describe('distance since fitting', () => {
  const ran = (now: number, then: number, u: number | undefined) => {
    const facts = plus(plus(caseOf('2041'), 'vehicle.odometer', now), 'kit.fitted_odometer', then);
    return answers(facts.map((f) => (f.key.endsWith('odometer') && u !== undefined ? { ...f, u } : f)));
  };
  const life = (a: ReturnType<typeof answers>, key: string) =>
    a.ranking.causes.find((c) => c.cause.key === key)?.weights.find((w) => w.finding === 'distance.run');

  it('weighs however near nought it is: by all that it may be, and the less the more it is in doubt', () => {
    for (const u of [500, undefined])
      for (const now of [100_000, 100_010, 101_300]) {
        const w = life(ran(now, 100_000, u), 'tooth_out');
        // as likely as not to be a long run by this standard, it says little either way
        expect(Math.abs(w!.nats)).withContext(`${now}`).toBeGreaterThan(0.01);
        expect(Math.abs(w!.nats)).toBeLessThan(1);
      }
    expect(life(ran(100_010, 100_000, 1), 'past_interval')!.nats).toBeLessThan(-2);
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
      expect(answerDifference(a!, a!)).toEqual([]);
      const there = answerDifference(a!, b!);
      const back = answerDifference(b!, a!).map((d) => ({ ...d, before: d.after, after: d.before }));
      const byName = (x: { what: string; of: string }, y: typeof x) =>
        x.what + x.of < y.what + y.of ? -1 : 1;
      expect(back.sort(byName)).toEqual([...there].sort(byName));
      expect(new Set(a!.map((l) => `${l.what} ${l.of}`)).size).toBe(a!.length);
      const read = a!.map((l) => readAnswerLine(writeLine(l))!);
      expect(answerDifference(a!, read)).toEqual([]);
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
    const four = policyWith({ turns: '4' });
    const open = caseOf('2038');
    const issued = [...open, ...sealing(worldOf(cat, { policy: four }), reduce(open), open[0]!.case, author)];
    const turns = (facts: readonly Fact[], policy = SHIPPED_POLICY) =>
      answersFor(worldOf(cat, { policy }), reduce(facts)).policy.chosen['turns'];
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
      causes: { ...CAUSES, causes: [...others, { ...wrongWay, seen: undefined, prior: 0.0001 }] },
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
