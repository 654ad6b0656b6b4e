import type { Finding } from '@core/examination/finding';
import { randomFrom } from '@core/quantity/random';
import type { CauseData } from './cause-data';
import { planOf, sumBy } from './eliminate';
import { decibans, explain } from './explain';
import { checkBits, checkWorth } from './next-check';
import { rankCauses } from './rank';
import { weigh } from './weighed';
import { smallFindings, smallKnowledge } from './small.fixture';

/**
 * The same posterior the long way: every state of every mechanism under every cause, finding by finding, from the words of the model and with none of its code.
 * The last is none of these.
 */
function byHand(data: CauseData, findings: readonly Finding[]): { shares: number[]; total: number } {
  const n = data.mechanisms.length;
  const said = (f: Finding) => (typeof f.value === 'string' ? f.value : '');
  const likely = (p: (i: number) => number) => {
    let sum = 0;
    for (let s = 0; s < 2 ** n; s++) {
      const on = (i: number) => ((s >> i) & 1) === 1;
      let x = 1;
      for (let i = 0; i < n; i++) x *= on(i) ? p(i) : 1 - p(i);
      for (const f of findings) {
        const spec = data.findings.find((k) => k.finding === f.finding)!;
        const at = [
          spec.off,
          ...data.mechanisms.filter((m, i) => on(i)).map((m) => m.shows[f.finding] ?? {}),
        ];
        const stays = at.reduce((q, g) => q * (1 - Object.values(g).reduce((a, b) => a + b, 0)), 1);
        const of = (grade: string) => at.reduce((a, g) => a + (g[grade] ?? 0), 0);
        const all = Object.keys(spec.off).reduce((a, g) => a + of(g), 0);
        x *= spec.sound.includes(said(f)) ? stays : ((1 - stays) * of(said(f))) / all;
      }
      sum += x;
    }
    return sum;
  };
  const leak = (i: number) => data.mechanisms[i]!.leak;
  const scores = data.causes.map((c) => {
    const works = (i: number) => c.works[data.mechanisms[i]!.key] ?? 0;
    const p = (i: number) =>
      c.family === 'no fault found' ? data.quiet * leak(i) : 1 - (1 - leak(i)) * (1 - works(i));
    return c.prior * likely(p);
  });
  scores.push(data.none.prior * likely(leak));
  const total = scores.reduce((a, b) => a + b, 0);
  return { shares: scores.map((s) => s / total), total };
}
const shares = (data: CauseData, findings: readonly Finding[]): number[] => {
  const r = rankCauses(data, findings, 1.5);
  return [...data.causes.map((c) => r.causes.find((x) => x.cause === c)!.probability), r.none];
};
const found = (finding: string, value: Finding['value']): Finding => ({ finding, value, facts: [finding] });

const entropy = (ps: readonly number[]) => -ps.reduce((h, p) => h + (p > 0 ? p * Math.log2(p) : 0), 0);

describe('causes weighed through mechanisms', () => {
  it('have the shares of a full enumeration over all states, on 60 small bodies of knowledge, 1e-9', () => {
    for (let seed = 1; seed <= 60; seed++) {
      const data = smallKnowledge(seed, 3 + (seed % 4), 2 + (seed % 6), 3 + (seed % 5));
      const findings = smallFindings(seed + 100, data.findings.length);
      const [mine, hand] = [shares(data, findings), byHand(data, findings).shares];
      mine.forEach((p, i) => expect(p).withContext(`${seed} ${i}`).toBeCloseTo(hand[i]!, 9));
    }
  });

  it('are at their priors with nothing known, and whatever says nothing moves nothing', () => {
    const data = smallKnowledge(3, 5, 4, 5);
    const prior = data.causes.reduce((s, c) => s + c.prior, data.none.prior);
    const nothing = shares(data, []);
    data.causes.forEach((c, i) => expect(nothing[i]).toBeCloseTo(c.prior / prior, 12));
    expect(rankCauses(data, [], 1.5).weighed).toBe(0);
    for (const odd of [found('f0', 'purple'), found('f0', { x: 3, u: 1 }), found('elsewhere', 'bad')]) {
      const r = rankCauses(data, [odd], 1.5);
      expect(shares(data, [odd])).toEqual(nothing);
      expect(r.strange.length).toBe(odd.finding === 'f0' ? 1 : 0);
    }
  });

  it('are moved less by a second finding of a mechanism that the first one showed already', () => {
    const base = smallKnowledge(5, 2, 1, 2);
    const works: Record<string, number>[] = [{ m0: 0.9 }];
    const data: CauseData = {
      ...base,
      causes: base.causes.map((c, i) => ({
        ...c,
        prior: 0.2,
        works: works[i] ?? {},
      })),
      mechanisms: [{ key: 'm0', wording: '', leak: 0.05, shows: { f0: { bad: 0.8 }, f1: { bad: 0.8 } } }],
    };
    const odds = (f: Finding[]) => {
      const p = shares(data, f)[0]!;
      return Math.log(p / (1 - p));
    };
    const [none, one, two] = [[], [found('f0', 'bad')], [found('f0', 'bad'), found('f1', 'bad')]].map(
      odds,
    ) as [number, number, number];
    expect(one - none).toBeGreaterThan(1);
    expect(two - one).toBeGreaterThan(0);
    expect(two - one).toBeLessThan(0.9 * (one - none));
    // a thing looked at twice in the same way is one inspection
    expect(odds([found('f0', 'bad'), { ...found('f0', 'bad'), about: 'second' }])).toBeCloseTo(one, 12);
    // of two things the abnormal one speaks
    expect(odds([found('f0', 'good'), { ...found('f0', 'bad'), about: 'second' }])).toBeCloseTo(one, 12);
  });

  it('show of each finding what the odds are without it', () => {
    const data = smallKnowledge(8, 5, 5, 6);
    const findings = smallFindings(9, 6);
    const r = rankCauses(data, findings, 1.5);
    const odds = (p: number) => Math.log(p / (1 - p));
    for (const c of r.causes.slice(0, 2))
      for (const w of c.weights) {
        const without = shares(
          data,
          findings.filter((f) => f.finding !== w.finding),
        )[data.causes.indexOf(c.cause)]!;
        expect(w.nats)
          .withContext(w.finding)
          .toBeCloseTo(odds(c.probability) - odds(without), 9);
      }
  });
});

describe('what a check would tell', () => {
  it('is the same where many mechanisms are coupled, by enumeration, 1e-9, and leaves out only what is below the least', () => {
    let coupled = 0;
    for (let seed = 1; coupled < 1 && seed < 60; seed++) {
      const data = smallKnowledge(seed, 4, 11, 9);
      const findings = data.findings.slice(0, 7).map((f) => found(f.finding, 'bad'));
      const { conditioned } = weigh(data, findings);
      if (Math.max(0, ...conditioned.parts.map((p) => p.mechanisms.length)) <= 10) continue;
      coupled++;
      const shown = (finding: string) => finding !== 'symptom';
      const checks = checkWorth(data, findings, shown);
      const before = byHand(data, findings);
      for (const { finding } of checks) {
        const bits = checkBits(data, findings, finding);
        const drop = ['good', 'bad', 'worse'].reduce((left, value) => {
          const after = byHand(data, [...findings, found(finding, value)]);
          return left - (after.total / before.total) * entropy(after.shares);
        }, entropy(before.shares));
        expect(bits).withContext(`${seed} ${finding}`).toBeCloseTo(drop, 9);
      }
      const least = checks[0]!.settles * 0.9;
      expect(checkWorth(data, findings, shown, least)).toEqual(checks.filter((c) => c.settles >= least));
    }
    expect(coupled).toBe(1);
  });

  it('is the mean drop of entropy over its results, each weighed with all else that is known, by enumeration, 1e-9', () => {
    for (let seed = 1; seed <= 12; seed++) {
      const data = smallKnowledge(seed, 4, 2 + (seed % 4), 5);
      const findings = smallFindings(seed + 40, 4);
      const open = data.findings.map((f) => f.finding).filter((f) => !findings.some((x) => x.finding === f));
      for (const finding of open) {
        const before = byHand(data, findings);
        const drop = ['good', 'bad', 'worse'].reduce((left, value) => {
          const after = byHand(data, [...findings, found(finding, value)]);
          return left - (after.total / before.total) * entropy(after.shares);
        }, entropy(before.shares));
        expect(checkBits(data, findings, finding))
          .withContext(`${seed} ${finding}`)
          .toBeCloseTo(drop, 9);
      }
    }
  });
});

describe('what a check would settle', () => {
  it('is the mean drop of doubt whether it is the leader, where none is nearly sure, by enumeration, 1e-9', () => {
    const binary = (p: number) => entropy([p, 1 - p]);
    let tried = 0;
    for (let seed = 1; seed <= 40; seed++) {
      const data = smallKnowledge(seed, 4, 2 + (seed % 4), 5);
      const findings = smallFindings(seed + 40, 4);
      const before = byHand(data, findings);
      const causes = before.shares.slice(0, -1);
      const leader = causes.indexOf(Math.max(...causes));
      if (causes[leader]! > 0.6) continue;
      for (const { finding, settles } of checkWorth(data, findings, (f) => f !== 'symptom')) {
        const drop = ['good', 'bad', 'worse'].reduce((left, value) => {
          const after = byHand(data, [...findings, found(finding, value)]);
          return left - (after.total / before.total) * binary(after.shares[leader]!);
        }, binary(before.shares[leader]!));
        // a look that shows no likely cause counts for less of it
        const of = settles / drop;
        expect(Math.abs(of - 1) < 1e-6 || Math.abs(of - 0.15) < 1e-6)
          .withContext(`${seed} ${finding} ${of}`)
          .toBeTrue();
        tried++;
      }
    }
    expect(tried).toBeGreaterThan(10);
  });
});

describe('an explanation', () => {
  it('weighs leader against runner-up finding by finding, and what it says would turn the order does', () => {
    let turned = 0;
    for (let seed = 1; seed <= 25; seed++) {
      const data = smallKnowledge(seed, 6, 5, 7);
      const findings = smallFindings(seed + 7, 7);
      const e = explain(data, findings)!;
      const r = rankCauses(data, findings, 1.5);
      expect([e.leader, e.runner]).toEqual([r.causes[0]!.cause, r.causes[1]!.cause]);
      for (const line of e.lines) {
        const rest = findings.filter((f) => f.finding !== line.finding.finding);
        const of = (fs: readonly Finding[]) => {
          const p = shares(data, fs);
          return Math.log(p[data.causes.indexOf(e.leader)]! / p[data.causes.indexOf(e.runner)]!);
        };
        expect(line.decibans).toBeCloseTo(decibans(of(findings) - of(rest)), 6);
      }
      const gone = new Set(e.turns.map((f) => f.finding));
      if (gone.size === 0) continue;
      turned++;
      const rest = findings.filter((f) => !gone.has(f.finding));
      expect(rankCauses(data, rest, 1.5).causes[0]!.cause).not.toBe(e.leader);
    }
    expect(turned).toBeGreaterThan(10);
  });

  it('finds two causes where each explains what the other cannot, and no pair where one explains all', () => {
    const base = smallKnowledge(5, 3, 2, 2);
    const works: Record<string, number>[] = [{ m0: 0.95 }, { m1: 0.95 }];
    const shows = (f: string) => ({ [f]: { bad: 0.95 } });
    const data: CauseData = {
      ...base,
      causes: base.causes.map((c, i) => ({
        ...c,
        family: 'fitting',
        prior: 0.1,
        works: works[i] ?? {},
      })),
      mechanisms: [
        { key: 'm0', wording: '', leak: 0.001, shows: shows('f0') },
        { key: 'm1', wording: '', leak: 0.001, shows: shows('f1') },
      ],
      findings: ['f0', 'f1'].map((finding) => ({ finding, sound: ['good'], off: { bad: 0.0005 } })),
    };
    const both = explain(data, [found('f0', 'bad'), found('f1', 'bad')])!;
    expect(both.pair?.causes.map((c) => c.key).sort()).toEqual(['c0', 'c1']);
    expect(both.working.map((w) => [w.mechanism, w.shows.map((f) => f.finding)])).toEqual([
      [both.leader.key === 'c0' ? 'm0' : 'm1', [both.leader.key === 'c0' ? 'f0' : 'f1']],
    ]);
    expect(explain(data, [found('f0', 'bad'), found('f1', 'good')])!.pair).toBeUndefined();
    expect(explain(data, [])).toBeUndefined();
  });
});

describe('summing variables out of a product', () => {
  it('gives what a walk over all their states gives, whatever is kept', () => {
    const random = randomFrom(3);
    for (let k = 0; k < 40; k++) {
      const n = 2 + Math.floor(6 * random());
      const all = Array.from({ length: n }, (_, i) => 10 + i);
      const factors = Array.from({ length: 1 + Math.floor(4 * random()) }, () => {
        const vars = all.filter(() => random() < 0.5);
        return { vars, table: Float64Array.from({ length: 2 ** vars.length }, random) };
      });
      const there = all.filter((v) => factors.some((f) => f.vars.includes(v)));
      const keep = there.filter(() => random() < 0.3);
      const w = new Map(there.map((v) => [v, [random(), random()] as const]));
      const got = sumBy(
        planOf(factors, keep),
        (v) => w.get(v)![0],
        (v) => w.get(v)![1],
      );
      const want = new Float64Array(2 ** keep.length);
      for (let s = 0; s < 2 ** there.length; s++) {
        const on = (v: number) => (s >> there.indexOf(v)) & 1;
        let x = there.reduce((p, v) => p * w.get(v)![on(v)]!, 1);
        for (const f of factors) x *= f.table[f.vars.reduce((at, v, i) => at | (on(v) << i), 0)]!;
        want[keep.reduce((at, v, i) => at | (on(v) << i), 0)]! += x;
      }
      got.forEach((x, i) => expect(x).toBeCloseTo(want[i]!, 10));
    }
  });
});
