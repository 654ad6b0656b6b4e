import { demoFacts } from '../../demo/cases';
import { SEED } from '../../demo/scenario';
import type { Fact } from '@core/facts/fact';
import { deskFileFrame, readDeskFile, saysDesk } from './desk-file';
import { readShape } from './read-shape';
import * as z from 'zod';

const facts = demoFacts(SEED);
const write = (all: readonly unknown[]): string => {
  const [head, foot] = deskFileFrame('2026-11-25T10:00:00.000Z', { 'c:complaint': 'half' });
  return head + all.map((f) => JSON.stringify(f)).join(',\n') + foot;
};
const codeOf = (text: string) => {
  const read = readDeskFile(text);
  return read.ok ? 'ok' : read.error.code;
};

describe('a desk file', () => {
  it('gives back every fact of every case, word for word, also when there is none', () => {
    const read = readDeskFile(write(facts));
    if (!read.ok) throw new Error(read.error.code);
    expect([...read.value.cases.values()].flat()).toEqual(facts);
    for (const [id, own] of read.value.cases) for (const f of own) expect(f.case).toBe(id);
    expect(read.value.drafts).toEqual({ 'c:complaint': 'half' });
    const none = readDeskFile(write([]));
    expect(none.ok && none.value.cases.size).toBe(0);
    expect(saysDesk(write(facts))).toBeTrue();
  });

  it('is refused whole for one bad place, with the case that has it', () => {
    const [a, b] = [facts[0]!, facts[1]!];
    const with_ = (...more: Partial<Fact>[]) =>
      write([...facts, ...more.map((m, i) => ({ ...a, id: `n${i}`, ...m }))]);
    expect(codeOf(with_({ id: b.id }))).toBe('fact_twice');
    expect(codeOf(with_({ how: 'guessed' as 'seen' }))).toBe('bad_shape');
    // an id is one fact's, whichever case it says
    expect(codeOf(with_({ id: a.id, case: 'other' }))).toBe('fact_twice');
  });

  it('is a rescue: what cannot stand with the rest of its case is left and told, all else is given back', () => {
    const a = facts[0]!;
    const more = [
      { ...a, id: 'n0', supersedes: 'n1' },
      { ...a, id: 'n1', supersedes: 'n0' },
      { ...a, id: 'n2', about: 'nobody-declared' },
    ];
    const read = readDeskFile(write([...facts, ...more]));
    if (!read.ok) throw new Error(read.error.code);
    expect(read.value.left.map((l) => [l.fact.id, l.why.code])).toEqual([
      ['n0', 'circle'],
      ['n1', 'circle'],
      ['n2', 'no_kind'],
    ]);
    expect([...read.value.cases.values()].flat().length).toBe(facts.length);
  });

  it('that is cut, of another format or newer is told as that', () => {
    const text = write(facts);
    expect(codeOf(text.slice(0, -40))).toBe('not_json');
    expect(codeOf(text.replace('hollow-sprocket-desk', 'hollow-sprocket-case'))).toBe('other_format');
    expect(codeOf(text.replace('"formatVersion":1', '"formatVersion":2'))).toBe('newer_version');
    expect(codeOf('null')).toBe('other_format');
    expect(saysDesk('{"format":"hollow-sprocket-case"}')).toBeFalse();
  });
});

/** What must not be. */
const fail = (): never => {
  throw new Error('it was read');
};

describe('the place of a JSON fault', () => {
  it('is the line and column where the text goes wrong', () => {
    const schema = z.strictObject({ format: z.string() });
    const good = '{\n "format": "x",\n "formatVersion": 1\n}';
    for (const sign of [':', ',', '1', '}']) {
      const at = good.indexOf(sign);
      const read = readShape(`${good.slice(0, at)}§${good.slice(at + 1)}`, 'x', 1, schema);
      const before = good.slice(0, at).split('\n');
      // engines point at the sign or just behind it
      const { line, column } = read.ok ? fail() : (read.error as { line: number; column: number });
      expect(line).withContext(sign).toBe(before.length);
      expect(Math.abs(column - before.at(-1)!.length))
        .withContext(sign)
        .toBeLessThanOrEqual(1);
    }
    const cut = readShape(good.slice(0, -1), 'x', 1, schema);
    expect(!cut.ok && cut.error).toEqual(jasmine.objectContaining({ code: 'not_json', line: 4 }));
  });
});
