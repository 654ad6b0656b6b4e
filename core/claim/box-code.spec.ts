import fc from 'fast-check';
import { boxCode, caseOfCode, readBoxCode } from './box-code';

/** What calipers and scanners may type; see what listens to them. */
const TYPED = /^[A-Za-z0-9.,+\-|;]+$/;

describe('the code on a box', () => {
  it('leads back to its case and part, by signs that a scanner types alike on every keyboard', () => {
    const part = fc.option(fc.constantFrom('tensioner', 'belt', crypto.randomUUID()), { nil: undefined });
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.string({ minLength: 1 }), { minLength: 2, maxLength: 40 }),
        part,
        (ids, thing) => {
          const cases = ids.map((id) => ({ id }));
          for (const c of cases) {
            const code = boxCode(c.id, thing);
            expect(code).toMatch(TYPED);
            for (const said of [code, ` ${code} `, code.toLowerCase(), code.toUpperCase()]) {
              const read = readBoxCode(said)!;
              expect(read.thing).toBe(thing);
              expect(caseOfCode(read, cases)).toBe(c);
            }
            expect(caseOfCode(readBoxCode(boxCode(`${c.id}-other`))!, [c])).toBeUndefined();
          }
        },
      ),
      { numRuns: 40 },
    );
  });

  it('is told from every other text', () => {
    const code = boxCode('demo-2027', 'belt');
    for (const other of [
      '',
      'HSBOX',
      'HSBOX|',
      'HSBOX|12',
      code.slice(1),
      `${code}|x`,
      `${code} and`,
      `x${code}`,
      code.replace('|', ':'),
    ])
      expect(readBoxCode(other)).withContext(other).toBeUndefined();
  });
});
