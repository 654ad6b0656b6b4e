import { INSTRUMENTS, greeting, lineAt, truthAt } from './instruments';

describe('simulated instruments', () => {
  it('send the same for the same seed, each in its own unit, near the truth and to its resolution', () => {
    for (const i of INSTRUMENTS) {
      const [a, b, c] = [lineAt(i, { seed: 5 }), lineAt(i, { seed: 5 }), lineAt(i, { seed: 6 })];
      const sent = Array.from({ length: 200 }, (_, k) => a(k));
      expect(Array.from({ length: 200 }, (_, k) => b(k))).toEqual(sent);
      expect(Array.from({ length: 200 }, (_, k) => c(k))).not.toEqual(sent);
      sent.forEach((line, k) => {
        if (line === undefined) return;
        const [, t, value, unit] = /^t=(\S+) (\S+) (.+)$/.exec(line)!;
        expect(Number(t)).toBeCloseTo(k / i.rateHz, 3);
        expect(unit).toBe(i.unit);
        const off = Math.abs(Number(value) - truthAt(i, Number(t), {}) - i.driftPerS * Number(t));
        expect(off)
          .withContext(`${i.key} ${line}`)
          .toBeLessThan(6 * i.noise + i.resolution);
      });
      const lost = sent.filter((s) => s === undefined).length / sent.length;
      expect(Math.abs(lost - i.dropOut))
        .withContext(i.key)
        .toBeLessThan(0.08);
      expect(greeting(i)).toContain(String(i.resolution));
    }
  });

  it('a plunger sinks at the rate asked for once its cushion has given way', () => {
    const dial = INSTRUMENTS.find((i) => i.motion === 'sinks')!;
    const at = (t: number) => truthAt(dial, t, { leakMmPerS: 0.05 });
    expect((at(20) - at(60)) / 40).toBeCloseTo(0.05, 6);
    expect(at(0)).toBe(dial.from);
  });
});
