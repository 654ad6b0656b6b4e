import { logWeibull } from '@core/cause/life';
import { answers, caseOf, plus } from '@core/answer/demo-case.fixture';

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
