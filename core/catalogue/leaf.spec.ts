import { demoPack } from '../../demo/catalogue';
import { catalogueOf } from './find-records';
import { engineLeaf, engineOfNumber } from './leaf';

const pack = demoPack();
const cat = catalogueOf(pack);

describe('the page of an engine', () => {
  it('shows every design with its drive, and the features by which any two of them differ', () => {
    for (const e of pack.engines) {
      const leaf = engineLeaf(cat, e.code)!;
      expect(leaf.designs.map((d) => d.variant.id)).toEqual(
        pack.variants.filter((v) => v.engine === e.code).map((v) => v.id),
      );
      for (const [i, a] of leaf.designs.entries()) {
        expect(a.stages.length).withContext(a.variant.id).toBeGreaterThan(0);
        for (const b of leaf.designs.slice(i + 1)) {
          const differ = pack.features
            .filter((f) => [a, b].some((d) => d.variant.features[f.id] !== undefined))
            .filter((f) => String(a.variant.features[f.id]) !== String(b.variant.features[f.id]))
            .map((f) => f.id);
          const shown = new Set([...a.telling, ...b.telling].map((t) => t.feature.id));
          for (const f of differ) expect(shown.has(f)).withContext(`${a.variant.id} ${f}`).toBeTrue();
        }
      }
    }
    expect(engineLeaf(cat, 'XX00-NONE')).toBeUndefined();
  });

  it('holds every kit that serves a design once, with what it replaces and what replaced it', () => {
    const leaf = engineLeaf(cat, 'TE16-CORM')!;
    const numbers = leaf.kits.map((k) => k.kit.number);
    expect(new Set(numbers).size).toBe(numbers.length);
    for (const a of pack.applications) {
      const engine = cat.variants.get(a.variant)!.engine;
      const kit = engineLeaf(cat, engine)!.kits.find((k) => k.kit.number === a.kit);
      expect(kit?.serves.map((v) => v.id))
        .withContext(a.kit)
        .toContain(a.variant);
    }
    const old = pack.kits.find((k) => k.supersededBy !== undefined)!;
    const page = engineLeaf(cat, engineOfNumber(cat, old.number)!)!;
    expect(page.kits.find((k) => k.kit.number === old.number)!.replacedBy).toBe(old.supersededBy);
    expect(page.kits.find((k) => k.kit.number === old.supersededBy)!.replaces).toContain(old.number);
    for (const k of page.kits) for (const c of k.contents) expect(c.part?.number).toBe(c.number);
  });

  it('is found by any number that stands on it', () => {
    for (const k of pack.kits) {
      const code = engineOfNumber(cat, k.number);
      if (!pack.applications.some((a) => a.kit === k.number)) continue;
      expect(engineLeaf(cat, code!)!.kits.some((x) => x.kit.number === k.number))
        .withContext(k.number)
        .toBeTrue();
    }
    const part = pack.kits[0]!.contents[0]!.part;
    const page = engineLeaf(cat, engineOfNumber(cat, part)!)!;
    expect(page.kits.some((k) => k.contents.some((c) => c.number === part))).toBeTrue();
    expect(engineOfNumber(cat, 'NO-SUCH-1')).toBeUndefined();
  });
});
