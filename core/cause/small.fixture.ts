import { randomFrom } from '@core/quantity/random';
import type { Finding } from '@core/examination/finding';
import { type CauseData, CAUSES } from './cause-data';

/** A small body of knowledge made by chance: every number its own, as many causes, mechanisms and findings as are asked for. */
export function smallKnowledge(
  seed: number,
  causes: number,
  mechanisms: number,
  findings: number,
): CauseData {
  const random = randomFrom(seed);
  const share = (most: number) => 0.02 + (most - 0.02) * random();
  const names = (n: number, of: string) => Array.from({ length: n }, (_, i) => `${of}${i}`);
  const m = names(mechanisms, 'm');
  const f = names(findings, 'f');
  return {
    ...CAUSES,
    contradictions: [],
    judgement: undefined,
    causes: names(causes, 'c').map((key, i) => ({
      key,
      wording: key,
      family: i === causes - 1 ? 'no fault found' : 'fitting',
      prior: share(0.3),
      mechanism: '',
      consequence: '',
      bears: 'fitter' as const,
      symptoms: ['noisy', 'timing', 'leaks'][i % 3]!,
      life: { shape: 0.8 + 2 * random(), scale: 5000 + 80_000 * random() },
      works:
        i === causes - 1
          ? {}
          : Object.fromEntries(m.filter(() => random() < 0.5).map((k) => [k, share(0.95)])),
    })),
    mechanisms: m.map((key, i) => ({
      key,
      wording: key,
      leak: share(0.2),
      // each shows in some, so that findings couple them
      shows: Object.fromEntries(
        f
          .filter((_, j) => (i + j) % 2 === 0 || random() < 0.3)
          .map((k) => [k, { bad: share(0.5), worse: share(0.4) }]),
      ),
    })),
    findings: f.map((finding) => ({
      finding,
      sound: ['good', 'fine'],
      off: { bad: share(0.1), worse: share(0.1) },
    })),
  };
}

/** Findings of a small body of knowledge, some of them left out. */
export function smallFindings(seed: number, n: number): Finding[] {
  const random = randomFrom(seed);
  return Array.from({ length: n }, (_, i) => i)
    .filter(() => random() < 0.75)
    .map((i) => ({
      finding: `f${i}`,
      value: ['good', 'fine', 'bad', 'worse', 'bad'][Math.floor(5 * random())]!,
      facts: [`x${i}`],
    }));
}
