import { demoPack } from '../../demo/catalogue';
import { tensionerIndex } from '@core/drive/layout';
import { PANEL_NAMES, drivePartsOf } from './drive-parts';

describe('the parts of the drive bench', () => {
  it('hold every panel once, for every drive of the catalogue, and begin with what it has', () => {
    for (const l of demoPack().layouts)
      for (const nearer of [false, true]) {
        const parts = drivePartsOf(l, nearer);
        const all = parts.flatMap((p) => p.panels);
        expect([...all].sort())
          .withContext(l.id)
          .toEqual(Object.keys(PANEL_NAMES).sort() as typeof all);
        const [fit, wear] = parts;
        expect(wear!.panels[0])
          .withContext(l.id)
          .toBe(l.kind === 'chain' ? 'wear' : 'heat');
        const heads = nearer && (l.banks ?? []).length > 0;
        const first = tensionerIndex(l) >= 0 ? 'setting' : 'marks';
        expect(fit!.panels[0])
          .withContext(l.id)
          .toBe(heads ? 'heads' : first);
      }
  });
});
