import edition3 from '@core/claim/fixtures/edition-3.json';
import edition4 from '@core/claim/fixtures/edition-4.json';
import { writeCaseFile, type ReadCase, readCaseFile } from '@core/claim/case-file';
import { checkSeals } from '@core/claim/seal';
import { catalogueOf } from '@core/catalogue/find-records';
import { observed, standing } from '@core/facts/read';
import { reduce } from '@core/facts/state';
import { readOverlay } from '@core/examination/photo-overlay';
import { sentSheets } from '@core/fitting/sheet-return';
import { answersFor, settled } from './answers';
import { worldOf } from './world';

const readFile = (content: unknown): ReadCase =>
  (readCaseFile(JSON.stringify(content)) as { ok: true; value: ReadCase }).value;

describe('a sealed case of an earlier edition', () => {
  it('verifies word for word, its issue too, and is written anew as the edition of today', () => {
    for (const content of [edition3, edition4]) {
      const { file, digest } = readFile(content);
      expect(digest).withContext(`${file.formatVersion}`).toBe('verified');
      const seals = checkSeals(reduce(file.facts));
      expect(seals.map((c) => [c.verdict, c.signatures])).toEqual([['intact', []]]);
      const again = writeCaseFile(file.case, file.facts, file.catalogue, file.exportedAt);
      expect(again.facts).toEqual(file.facts);
      expect(readFile(again).digest).toBe('verified');
    }
  });
});

describe('a sealed case of the third edition', () => {
  const { file } = readFile(edition3);
  const state = reduce(file.facts);

  it('is understood: what it wrote for nothing said, and what it wrote as text', () => {
    expect(observed(state, 'vehicle.market').is).toBe('unknown');
    expect(observed(state, 'belt.kink').is).toBe('unknown');
    expect(observed(state, 'belt.smell').is).toBe('notExamined');
    const step = state.log.find((f) => f.key === 'step.done')!;
    expect(standing(state, 'step.done', step.about)?.value).toBe('skipped');
    expect(readOverlay(standing(state, 'photo.overlay', 'belt')?.value)).toEqual({
      is: 'overlay',
      hash: 'ab'.repeat(32),
      key: 'belt.width',
      scale: 'ruler',
      sides: [50],
      sideU: 0.1,
      marks: [
        { x: 1, y: 2 },
        { x: 300.5, y: 4 },
      ],
      spots: [
        { x: 9.25, y: 8 },
        { x: 160, y: 8 },
      ],
    });
    const a = settled(answersFor(worldOf(catalogueOf(file.catalogue)), state));
    expect(a.policy.chosen['turns']).toBe('4');
    expect(a.leaks.map((l) => l.points.length)).toEqual([20]);
    expect(sentSheets(state).map((s) => s.length)).toEqual([64]);
  });
});
