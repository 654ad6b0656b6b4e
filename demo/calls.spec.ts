import { QUESTIONS } from '@core/advice/advice';
import { ASKED_WORDS, spokenText } from '../app/messages/advice';
import { demoCalls } from './calls';
import shipped from './calls.json';
import { plainText } from '@core/facts/value';
import { demoPack } from './catalogue';

describe('calls of the demo', () => {
  const calls = demoCalls({ spoken: spokenText, asked: ASKED_WORDS });

  it('are what the generator makes', () => {
    expect(JSON.parse(JSON.stringify(calls))).toEqual(shipped);
  });

  it('are at least twenty messages, and a question about every engine whose answer stands on facts that are there', () => {
    const caseIds = [...new Set(calls.facts.map((f) => f.case))];
    expect(caseIds.length).toBeGreaterThanOrEqual(20);
    const asked = calls.facts.filter((f) => f.key === 'call.asked');
    expect(asked.length).toBeGreaterThanOrEqual(12);
    for (const f of asked)
      for (const key of f.value as string[])
        expect((QUESTIONS as readonly string[]).includes(key)).toBeTrue();
    expect(calls.facts.flatMap((f) => (f.key === 'engine.code' ? [plainText(f.value)] : [])).sort()).toEqual(
      demoPack()
        .engines.map((e) => e.code)
        .sort(),
    );
    for (const told of calls.facts.filter((f) => f.key === 'call.told')) {
      expect(told.basis?.length).withContext(told.id).toBeGreaterThan(0);
      for (const id of told.basis ?? [])
        expect(calls.facts.find((f) => f.id === id)?.case)
          .withContext(id)
          .toBe(told.case);
    }
  });
});
