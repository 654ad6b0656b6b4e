import { demoPack } from '../../demo/catalogue';
import { demoFacts } from '../../demo/cases';
import { SEED } from '../../demo/scenario';
import { answersFor } from '@core/answer/answers';
import { reread } from '@core/answer/sealing';
import { worldOf } from '@core/answer/world';
import { extractPack } from '@core/catalogue/extract-pack';
import { catalogueOf } from '@core/catalogue/find-records';
import type { Fact } from '@core/facts/fact';
import { reduce } from '@core/facts/state';
import { readCaseFile, writeCaseFile } from './case-file';

const cat = catalogueOf(demoPack());
const all = demoFacts(SEED);
const caseOf = (tag: string) => all.filter((f) => f.case === `demo-${tag}`);
const answers = (facts: readonly Fact[]) => answersFor(worldOf(cat), reduce(facts));

describe('case file', () => {
  const facts = caseOf('2027');
  const file = writeCaseFile(
    'demo-2027',
    facts,
    extractPack(cat, 'TE16-CORM', 'MF-K121-1'),
    '2026-11-24T10:00:00.000Z',
  );
  const text = JSON.stringify(file, null, 2);
  const code = (t: string) => {
    const r = readCaseFile(t);
    return r.ok ? r.value.digest : r.error.code;
  };

  it('gives the same answers elsewhere with the catalogue that it carries', () => {
    const read = readCaseFile(text);
    if (!read.ok) return fail(read.error.code);
    const there = answersFor(worldOf(catalogueOf(read.value.file.catalogue)), reduce(read.value.file.facts));
    const here = answers(facts);
    expect(there.ranking).toEqual(here.ranking);
    expect(there.kits.map((k) => [k.kit.number, k.verdict])).toEqual(
      here.kits.map((k) => [k.kit.number, k.verdict]),
    );
    expect(there.drive).toEqual(here.drive);
    expect(there.terms).toEqual(here.terms);
  });

  it('can be read back for every demo case, verified, with the catalogue it carries in order', () => {
    for (const tag of new Set(all.map((f) => f.case))) {
      const facts = all.filter((f) => f.case === tag);
      const say = (key: string) => facts.find((f) => f.key === key)?.value as string | undefined;
      const own = writeCaseFile(
        tag,
        facts,
        extractPack(cat, say('engine.code'), say('kit.number')),
        '2026-11-24T10:00:00.000Z',
      );
      expect(code(JSON.stringify(own)))
        .withContext(tag)
        .toBe('verified');
    }
  });

  it('is verified, reported as altered, or refused with the place', () => {
    expect(code(text)).toBe('verified');
    expect(code(text.replace('"value": -100', '"value": 90'))).toBe('altered');
    // what the answers depend on is covered too: longer terms do not read as verified
    expect(code(text.replace('"months": 24', '"months": 999'))).toBe('altered');
    const before = { ...file, digest: { algorithm: file.digest.algorithm, facts: file.digest.facts } };
    expect(code(JSON.stringify(before))).toBe('altered');
    // an earlier make covered the facts, or facts and catalogue
    expect(code(JSON.stringify({ ...before, formatVersion: 1 }))).toBe('in_part');
    const second = { ...file, formatVersion: 2, digest: { ...file.digest, file: undefined } };
    expect(code(JSON.stringify(second))).toBe('in_part');
    // nothing that a reader relies on is under no digest
    const other = '2020-01-01T00:00:00.000Z';
    expect(code(JSON.stringify({ ...file, exportedAt: other }))).toBe('altered');
    expect(code(JSON.stringify({ ...file, missing: ['a'.repeat(64)] }))).toBe('altered');
    expect(code(JSON.stringify({ ...file, report: 'a'.repeat(64) }))).toBe('altered');
    expect(code(JSON.stringify({ ...file, formatVersion: 2 }))).toBe('altered');
    const twice = { ...file.catalogue, features: [...file.catalogue.features, file.catalogue.features[0]!] };
    expect(code(JSON.stringify({ ...file, catalogue: twice }))).toBe('bad_catalogue');
    const dangling = { ...file.catalogue, kits: [] };
    expect(code(JSON.stringify({ ...file, catalogue: dangling }))).toBe('bad_catalogue');
    expect(code(text.slice(0, 4000))).toBe('not_json');
    expect(code('{"format":"something"}')).toBe('other_format');
    expect(code(text.replace('"formatVersion": 5', '"formatVersion": 6'))).toBe('newer_version');
    expect(code(text.replace('"how": "measured"', '"how": "dreamt"'))).toBe('bad_shape');
    expect(code(JSON.stringify({ ...file, facts: [...facts, facts[0]] }))).toBe('fact_twice');
    expect(code(JSON.stringify({ ...file, case: 'other' }))).toBe('foreign_fact');
    const more = (...extra: Partial<Fact>[]) =>
      code(
        JSON.stringify({
          ...file,
          facts: [...facts, ...extra.map((e, i) => ({ ...facts[0]!, id: `x${i}`, ...e }))],
        }),
      );
    const kind = (value: string) => ({ about: 'tensioner-2', key: 'thing.kind', value });
    expect(more(kind('tensioner'), kind('belt'))).toBe('two_kinds');
    expect(more({ about: 'tensioner-2', key: 'tensioner.extension', value: 7 })).toBe('no_kind');
    expect(more({ supersedes: 'x1' }, { supersedes: ['x0'] })).toBe('circle');
    const at = (from: number) => ({
      key: 'belt.tooth_damage',
      value: 'sheared',
      place: { on: 'tooth' as const, from },
    });
    const longest = Math.max(...file.catalogue.layouts.map((l) => l.count));
    // a place that no drive of it has is read too: it contradicts, and is told
    expect(more(at(longest + 9))).toBe('altered');
    // it is read, and told apart from what the file was sealed on
    expect(more(at(longest))).toBe('altered');
  });
});

describe('an issue read again at another desk', () => {
  const facts = caseOf('2027');
  const [check] = answers(facts).seals;
  const at = (pack: typeof cat.pack) => reread(worldOf(catalogueOf(pack)), reduce(facts), check!)!;
  const part = extractPack(cat, 'TE16-CORM', 'MF-K121-1');

  it('tells another catalogue from an alteration, and an honest part from both', () => {
    expect(at(part).changed).toEqual([]);
    // a part of the part is the same part, of every engine
    for (const e of cat.pack.engines) {
      const own = extractPack(cat, e.code, undefined);
      expect(extractPack(catalogueOf(own), e.code, undefined))
        .withContext(e.code)
        .toEqual(own);
    }
    expect(at({ ...part, version: '2027.1' }).changed).toEqual([
      { part: 'catalogue', as: 'another', stated: 'Marrowfen 2026.3' },
    ]);
    const bent = { ...part, engines: part.engines.map((e) => ({ ...e, interference: 'no' as const })) };
    expect(at(bent).changed).toEqual([{ part: 'catalogue', as: 'content', stated: 'Marrowfen 2026.3' }]);
  });
});
