import judged from '../../demo/judged.json';
import { OBSERVABLES } from '@core/facts/registry';
import { TOUR_NAMES } from '../commands/commands';
import { isDone, TOURS } from './tours';

describe('tours', () => {
  it('are those that are offered, each made on a case of the demo, with things to do that can be done', () => {
    expect(TOURS.map((t) => [t.key, t.name.toLowerCase()])).toEqual(TOUR_NAMES.map((t) => [...t]));
    for (const t of TOURS) {
      expect(judged.summaries.some((s) => s.id === t.case))
        .withContext(t.key)
        .toBeTrue();
      for (const { until } of t.steps)
        if (until && 'files' in until)
          expect(OBSERVABLES.some((o) => o.key.startsWith(until.files)))
            .withContext(until.files)
            .toBeTrue();
    }
  });

  it('a step is done by what it asks for, and by nothing else', () => {
    const files = { at: 'cause' as const, says: 's', until: { files: 'cause.decided' } };
    expect(isDone(files, [], '/case/x/cause')).toBeFalse();
    expect(isDone(files, ['claim.fault'], '/case/x/cause')).toBeFalse();
    expect(isDone(files, ['claim.fault', 'cause.decided'], '/case/x/cause')).toBeTrue();
    const goes = { at: 'examine' as const, says: 's', until: { goes: 'trace' } };
    expect(isDone(goes, ['cause.decided'], '/case/x/examine')).toBeFalse();
    expect(isDone(goes, [], '/case/x/trace?file=1')).toBeTrue();
    expect(isDone({ at: 'drive', says: 's' }, ['cause.decided'], '/case/x/drive')).toBeFalse();
  });
});
