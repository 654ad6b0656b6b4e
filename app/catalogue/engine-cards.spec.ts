import { engineLeaf } from '@core/catalogue/leaf';
import { catalogueOf } from '@core/catalogue/find-records';
import { demoPack } from '../../demo/catalogue';
import { list } from '../language/list';
import { lower } from '../language/lower';
import { headWords } from '../messages/column-heads';
import { closeDesk, openDesk, paint, until } from '../testing/demo-desk';
import { EngineCards } from './engine-cards';

describe('engines as cards', () => {
  beforeEach(() => openDesk());
  afterEach(closeDesk);

  it('each has its drive drawn, and is told apart by just what its page says', async () => {
    const cat = catalogueOf(demoPack());
    const page = await paint(EngineCards, { catalogue: cat });
    const cards = () => page.all('a.card');
    expect(cards().length).toBe(cat.pack.engines.length);
    await until(() => page.all('hs-drive-drawing').length === cat.pack.engines.length);
    let several = 0;
    for (const card of cards()) {
      const leaf = engineLeaf(cat, card.querySelector('b')!.textContent)!;
      expect(card.getAttribute('href')).toBe(`/catalogue/engine/${leaf.engine.code}`);
      const features = [
        ...new Set(
          leaf.designs.length > 1
            ? leaf.designs.flatMap((d) => d.telling.map((t) => lower(t.feature.wording)))
            : [],
        ),
      ];
      const said = card.textContent;
      if (features.length > 0) several++;
      for (const f of features) expect(said).withContext(leaf.engine.code).toContain(f);
      if (features.length > 0) expect(said).toContain(list(features));
      else expect(said).not.toContain('told apart');
      expect(said.includes('▲')).toBe(leaf.engine.interference !== 'no');
    }
    expect(several).toBeGreaterThan(5);
  });

  it('columns of the open tables read as headings, a unit apart', () => {
    expect(['code', 'built_from', 'terms_km', 'km'].map(headWords)).toEqual([
      'Code',
      'Built from',
      'Terms, km',
      'Km',
    ]);
  });
});
