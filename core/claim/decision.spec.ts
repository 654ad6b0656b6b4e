import { registryOf } from '@core/facts/observable';
import { OBSERVABLES } from '@core/facts/registry';
import { factOf as fact } from '@core/facts/facts.fixture';
import { reduce } from '@core/facts/state';
import { daySpan } from '@core/quantity/dates';
import type { Fact } from '@core/facts/fact';
import type { CauseEntry } from '@core/cause/cause-data';
import type { RankedCause, Ranking } from '@core/cause/rank';
import { checkDecision, type DecidedOn } from './decision';
import { FAULTS, faultEvidence, faultStep, severityOf } from './faults';
import { judgeTerms, monthsRun } from './terms';

const REGISTRY = registryOf(OBSERVABLES);
const cause = (key: string, probability: number, weights: [string, number, string[]][], fault?: string) =>
  ({
    cause: { key, ...(fault === undefined ? {} : { fault }) } as unknown as CauseEntry,
    probability,
    weights: weights.map(([finding, nats, facts]) => ({ finding, nats, facts })),
  }) as unknown as RankedCause;
const ranking = (...causes: RankedCause[]): Ranking => ({ causes }) as unknown as Ranking;
const ON: DecidedOn = {
  ranking: ranking(cause('bent', 0.9, [])),
  terms: undefined,
  recorded: [],
  speaks: 0.5,
  weakLeader: 0.4,
  likely: 0.5,
  tie: false,
  gross: 0,
  secondFrom: 200_000,
};
const check = (facts: readonly Fact[], on: Partial<DecidedOn> = {}) =>
  checkDecision(reduce(facts), REGISTRY, { ...ON, ...on });
const codes = (facts: readonly Fact[], on: Partial<DecidedOn> = {}) =>
  check(facts, on).objections.map((o) => o.code);
const DECLINED = [
  fact('claim.decision', 'decline', { how: 'decided' }),
  fact('claim.reason', 'x', { how: 'decided' }),
  fact('claim.alternative', 'x', { how: 'decided' }),
];
const documents = ['claim.invoice', 'claim.sheet', 'claim.photos'].map((k) => fact(k, 'yes'));

describe('a decline rests on what was taken from the parts or the fitting and speaks for the fault', () => {
  const stands = (f: Fact, on: Partial<DecidedOn> = {}) =>
    !codes([...DECLINED, f], on).includes('decline_needs_evidence');

  it('an abnormal look does, seen or measured, and no sound one, no report, nothing of the vehicle', () => {
    expect(stands(fact('belt.back', 'cracked'))).toBeTrue();
    expect(stands(fact('belt.back', 'cracked', { how: 'measured' }))).toBeTrue();
    expect(stands(fact('belt.back', 'sound'))).toBeFalse();
    for (const how of ['reported', 'document', 'decided'] as const)
      expect(stands(fact('belt.back', 'cracked', { how })))
        .withContext(how)
        .toBeFalse();
    expect(stands(fact('engine.heat', 'yes'))).toBeFalse();
    expect(stands(fact('no.such', 'cracked'))).toBeFalse();
  });

  it('a measured number does where it makes what is accused likelier by more than the house asks', () => {
    const width = fact('belt.width', 21, { how: 'measured' });
    const by = (nats: number, key = 'bent', facts = [width.id]) => ({
      ranking: ranking(cause('bent', 0.9, []), cause(key, 0.2, [['belt.width', nats, facts]])),
    });
    const decided = fact('cause.decided', 'worn', { how: 'decided' });
    const with2 = (on: Partial<DecidedOn>) =>
      !codes([...DECLINED, decided, width], on).includes('decline_needs_evidence');
    expect(with2(by(0.6, 'worn'))).toBeTrue();
    expect(with2(by(0.5, 'worn'))).toBeFalse();
    expect(with2(by(-3, 'worn'))).toBeFalse();
    // of another cause than the one that is decided, and on another fact
    expect(with2(by(3, 'other'))).toBeFalse();
    expect(with2(by(3, 'worn', ['elsewhere']))).toBeFalse();
    // nobody decided: the leader is accused
    expect(stands(width, by(3, 'worn'))).toBeFalse();
    expect(
      stands(width, { ranking: ranking(cause('worn', 0.5, [['belt.width', 3, [width.id]]])) }),
    ).toBeTrue();
  });

  it('of a recorded fault only what the fault stands on, and only causes of that fault', () => {
    const seen = fact('belt.back', 'cracked');
    const other = fact('belt.flanks', 'hooked');
    const recorded = [fact('claim.fault', 'step', { about: 'fault:SET-WAY', basis: [other.id] })];
    expect(codes([...DECLINED, seen], { recorded })).toContain('decline_needs_evidence');
    expect(codes([...DECLINED, seen, other], { recorded })).not.toContain('decline_needs_evidence');
    const width = fact('belt.width', 21, { how: 'measured' });
    const of = (fault: string) => ({
      recorded: [fact('claim.fault', 'step', { about: 'fault:SET-WAY', basis: [width.id] })],
      ranking: ranking(cause('a', 0.9, [['belt.width', 3, [width.id]]], fault)),
    });
    expect(codes([...DECLINED, width], of('SET-WAY'))).not.toContain('decline_needs_evidence');
    expect(codes([...DECLINED, width], of('CLN-OIL'))).toContain('decline_needs_evidence');
  });
});

describe('a second signature', () => {
  const by = (name: string) => fact('claim.decision', 'decline', { how: 'decided', by: name });
  const rest = DECLINED.slice(1);
  const unsigned = (facts: readonly Fact[], on: Partial<DecidedOn>) =>
    codes([...rest, ...facts], on).filter((c) => c.endsWith('unsigned') || c === 'second_same');
  const signed = (name: string) => fact('claim.second', name, { how: 'decided' });

  it('is wanted to decline what does not part supplier and fitter, whatever the sum', () => {
    expect(unsigned([by('Ada')], { tie: true })).toEqual(['tie_unsigned']);
    expect(unsigned([by('Ada'), signed('Bo')], { tie: true })).toEqual([]);
    expect(unsigned([by('Ada'), signed(' ada ')], { tie: true })).toEqual(['second_same']);
    for (const value of ['accept', 'part', 'goodwill', 'wait'])
      expect(unsigned([fact('claim.decision', value, { how: 'decided' })], { tie: true }))
        .withContext(value)
        .toEqual([]);
  });

  it('is wanted from the house’s sum on for every decision, and for none while it waits', () => {
    for (const value of ['accept', 'part', 'goodwill', 'decline'])
      for (const [gross, wanted] of [
        [199_999, []],
        [200_000, ['amount_unsigned']],
      ] as const)
        expect(unsigned([fact('claim.decision', value, { how: 'decided' })], { gross }))
          .withContext(`${value} ${gross}`)
          .toEqual([...wanted]);
    expect(unsigned([fact('claim.decision', 'wait', { how: 'decided' })], { gross: 900_000 })).toEqual([]);
    expect(unsigned([by('Ada'), signed('Bo')], { gross: 900_000, tie: true })).toEqual([]);
  });
});

describe('a decision', () => {
  it('is there, with its reason, its share where it goes in part, and its documents', () => {
    expect(codes([])).toEqual(['no_decision']);
    const decided = (value: string) => fact('claim.decision', value, { how: 'decided' });
    expect(codes([decided('accept')])).toEqual(['no_reason']);
    const reason = fact('claim.reason', 'x', { how: 'decided' });
    expect(codes([decided('part'), reason])).toEqual(['share_missing']);
    expect(codes([decided('part'), reason, fact('claim.share', 50)])).toEqual([]);
    expect(codes([decided('accept'), reason], { required: ['invoice'] })).toEqual(['missing_document']);
    expect(codes([decided('accept'), reason, ...documents], { required: ['invoice'] })).toEqual([]);
    // to wait needs no document yet
    expect(codes([decided('wait'), reason], { required: ['invoice'] })).toEqual([]);
    expect(check([decided('wait'), reason]).warnings).toEqual([]);
  });

  it('is pointed at where the leader is weak, or overruled by one that is likely, or terms say otherwise', () => {
    const warned = (decided: string, leader: number) =>
      check([...documents, fact('cause.decided', decided, { how: 'decided' })], {
        ranking: ranking(cause('bent', leader, [])),
      }).warnings.map((w) => w.code);
    expect(warned('bent', 0.4)).toEqual([]);
    expect(warned('bent', 0.39)).toEqual(['leader_weak']);
    expect(warned('worn', 0.39)).toEqual(['cause_overrules']);
    expect(warned('undecidable', 0.49)).toEqual([]);
    expect(warned('undecidable', 0.5)).toEqual(['cause_overrules']);
    const accept = [...documents, fact('claim.decision', 'accept'), fact('claim.reason', 'x')];
    const out = { verdict: 'out', overKm: 1, overDays: 0, roughly: false } as const;
    expect(check(accept, { terms: out }).warnings.map((w) => w.code)).toEqual(['out_of_terms_accepted']);
    const part = [
      fact('claim.decision', 'part', { how: 'decided' }),
      fact('claim.share', 0.4, { how: 'decided' }),
    ];
    const laid = (...shares: number[]) => check(part, { laid: shares });
    expect(laid(0.6).warnings.map((w) => w.code)).not.toContain('shares_apart');
    expect(laid(0.3, 0.3).warnings.map((w) => w.code)).not.toContain('shares_apart');
    expect(laid(0.5).warnings.map((w) => w.code)).toContain('shares_apart');
    expect(laid().warnings.map((w) => w.code)).not.toContain('shares_apart');
    expect(laid(0.7, 0.4).objections).toContain(jasmine.objectContaining({ code: 'faults_over' }));
    expect(laid(0.6, 0.4).objections.map((o) => o.code)).not.toContain('faults_over');
    const left = (stands: 'applies' | 'unknown') =>
      check(accept, { exclusions: [{ key: 'kit.renewed', is: ['some_old'], why: 'whole.', stands }] });
    expect(left('applies').warnings.map((w) => w.code)).toContain('excluded_accepted');
    expect(left('unknown').warnings.map((w) => w.code)).not.toContain('excluded_accepted');
    expect(
      check(accept, { terms: { verdict: 'in', ends: '2027-01-01', daysLeft: 3, roughly: false } }).warnings,
    ).toEqual([]);
  });
});

describe('an installation fault', () => {
  const sheet = {
    steps: [{ id: 'a' }, { id: 'b', faults: { skipped: 'SET-WAY' } }, { id: 'c' }],
    gates: [
      { before: 'c', after: 'a', fault: 'CLN-OIL' },
      { before: 'b', after: 'a', fault: 'SET-WAY' },
    ],
  } as unknown as NonNullable<Parameters<typeof faultStep>[1]>;

  it('belongs to the step that it follows from, else to the one that a gate makes wait', () => {
    expect(faultStep({ code: 'SET-WAY' }, sheet)?.id).toBe('b');
    expect(faultStep({ code: 'CLN-OIL' }, sheet)?.id).toBe('c');
    expect(faultStep({ code: 'NON-ONE' }, sheet)).toBeUndefined();
    expect(faultStep({ code: 'SET-WAY' }, undefined)).toBeUndefined();
  });

  it('stands on findings that can prove it and make its cause likelier, once that cause is no remote one', () => {
    const fault = FAULTS.find((f) => f.evidence.some((e) => e !== 'sheet.fault'))!;
    const proves = fault.evidence.find((e) => e !== 'sheet.fault')!;
    const speaks = { speaks: { nats: 0.5, share: 0.05 } };
    const of = (probability: number, ...w: [string, number, string[]][]) =>
      faultEvidence(fault, ranking(cause('x', probability, w, fault.code)), speaks);
    expect(of(0.05, [proves, 0.6, ['1', '2']], [proves, 0.7, ['2']])).toEqual(['1', '2']);
    expect(of(0.05, [proves, 0.5, ['1']])).toEqual([]);
    expect(of(0.05, ['belt.none', 3, ['1']])).toEqual([]);
    expect(of(0.04, [proves, 3, ['1']])).toEqual([]);
    expect(faultEvidence(fault, ranking(cause('x', 0.9, [[proves, 3, ['1']]])), speaks)).toEqual([]);
    const told = FAULTS.find((f) => f.evidence.includes('sheet.fault'));
    if (told)
      expect(
        faultEvidence(told, ranking(cause('x', 0.01, [['sheet.fault', 3, ['s']]], told.code)), speaks),
      ).toEqual(['s']);
  });
});

describe('terms', () => {
  const terms = { months: 24, km: 60_000 };
  it('say what is missing, one by one, and how much is left', () => {
    expect(judgeTerms(terms, undefined, undefined, undefined)).toEqual({
      verdict: 'cannot_tell',
      missing: ['start', 'failure', 'distance'],
      ends: undefined,
    });
    expect(judgeTerms(terms, daySpan('2026-01-31'), daySpan('2026-02-01'), undefined, true)).toEqual({
      verdict: 'cannot_tell',
      missing: ['distance_back'],
      ends: '2028-01-31',
    });
    expect(judgeTerms(terms, daySpan('2026-01-31'), undefined, { km: 10, u: 1 })).toEqual(
      jasmine.objectContaining({ verdict: 'cannot_tell', missing: ['failure'] }),
    );
    expect(judgeTerms(terms, daySpan('2026-01-31'), daySpan('2026-02-01'), { km: 59_000, u: 100 })).toEqual({
      verdict: 'in',
      ends: '2028-01-31',
      kmLeft: 1000,
      daysLeft: 729,
      roughly: false,
    });
    // 60,001 ± 707 against 60,000 cannot tell by a kilometre
    expect(judgeTerms(terms, daySpan('2026-01-31'), daySpan('2026-02-01'), { km: 60_001, u: 707 })).toEqual(
      jasmine.objectContaining({ verdict: 'cannot_tell', missing: ['distance_near'] }),
    );
    expect(monthsRun('2026-01-15', '2026-04-14')).toBe(2);
    expect(monthsRun(undefined, '2026-04-14')).toBeUndefined();
    expect(monthsRun('2026-01-15', undefined)).toBeUndefined();
  });

  it('a fault of the timing is grave wherever valves may meet pistons, and no fault is graver than that', () => {
    const of = (engine: 'yes' | 'no' | 'unknown') =>
      new Map(FAULTS.map((f) => [f.code, severityOf(f, engine)]));
    const [yes, unknown, no] = [of('yes'), of('unknown'), of('no')];
    expect(unknown).toEqual(yes);
    expect([...no.values()]).not.toContain('grave');
    for (const f of FAULTS) {
      expect(yes.get(f.code) === 'grave')
        .withContext(f.code)
        .toBe(no.get(f.code) !== yes.get(f.code));
      // what no finding on a part can prove costs none
      if (f.harms === 'none') expect(no.get(f.code)).toBe('slight');
    }
    expect([yes.get('SET-WAY'), yes.get('SEA-DRY'), yes.get('REC-MISS')]).toEqual([
      'grave',
      'serious',
      'slight',
    ]);
  });
});
