import type { Fact } from '@core/facts/fact';
import { bundlePath, checkBundle, filesOf, statedHash } from './bundle';

const hash = (letter: string) => letter.repeat(64);
const file = (letter: string, name: string) => ({ hash: hash(letter), name, type: '', bytes: 1 });
const fact = (id: string, files: Fact['files']): Fact => ({
  id,
  case: 'c',
  key: 'thing.file',
  value: id,
  how: 'seen',
  by: 'T',
  at: '2026-11-25T10:00:00.000Z',
  ...(files ? { files } : {}),
});

describe('a bundle', () => {
  const facts = [
    fact('1', [file('a', 'One.PNG'), file('b', 'two')]),
    fact('2', [file('a', 'again.png')]),
    fact('3', undefined),
  ];
  const all = new Map([
    [hash('a'), hash('a')],
    [hash('b'), hash('b')],
  ]);

  it('holds a file once per content, under a name that states its hash and nothing of a path', () => {
    expect(filesOf(facts).map((f) => [f.name, f.fact])).toEqual([
      ['One.PNG', '1'],
      ['two', '1'],
    ]);
    for (const f of filesOf(facts)) expect(statedHash(bundlePath(f))).toBe(f.hash);
    expect(bundlePath(file('a', 'One.PNG'))).toBe(`files/${hash('a')}.png`);
    for (const odd of ['../../etc/passwd', 'x.php/../y', 'no ending', 'a.tar.gz%00'])
      expect(bundlePath(file('c', odd)).replace(hash('c'), '')).toMatch(/^files\/(\.[a-z0-9]+)?$/);
    for (const other of ['files/', `files/${'a'.repeat(63)}.png`, `x/files/${hash('a')}`, 'case.json'])
      expect(statedHash(other)).toBeUndefined();
  });

  it('is whole, or its first fault is named: another content, or a file that is neither there nor told as missing', () => {
    expect(checkBundle({ facts }, all)).toBeUndefined();
    const wrong = new Map([...all, [hash('b'), hash('f')]]);
    expect(checkBundle({ facts }, wrong)).toEqual({
      code: 'wrong_hash',
      name: 'two',
      stated: hash('b'),
      found: hash('f'),
    });
    const lacks = new Map([[hash('a'), hash('a')]]);
    expect(checkBundle({ facts }, lacks)).toEqual({
      code: 'file_missing',
      fact: '1',
      name: 'two',
      hash: hash('b'),
    });
    expect(checkBundle({ facts, missing: [hash('b')] }, lacks)).toBeUndefined();
    // the report that was put into it is the one that is in it
    const told = { facts, report: hash('d') };
    expect(checkBundle(told, all, hash('d'))).toBeUndefined();
    expect(checkBundle(told, all, hash('e'))).toEqual({ code: 'other_report', found: true });
    expect(checkBundle(told, all)).toEqual({ code: 'other_report', found: false });
  });
});
