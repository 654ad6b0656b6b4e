import { demoPack } from '../../demo/catalogue';
import { catalogueOf, stagesFor } from '@core/catalogue/find-records';
import { thingOf } from '@core/catalogue/effects';
import { SHIPPED_POLICY } from '@core/policy/policy';
import { fastenersOf, howMany } from './how-many';
import { makeSheet } from './sheet';

const cat = catalogueOf(demoPack());
const designs = [...cat.variants.values()].map((v) => {
  const stages = stagesFor(cat, v.layout!);
  return { v, stages, sheet: makeSheet(cat, v, stages, SHIPPED_POLICY) };
});

/** How many of each thing a sheet fits, and of each fastener it tightens; and which fasteners are used once. */
function countsOf({ sheet, stages }: (typeof designs)[number]) {
  const counts = new Map<string, number>();
  const once = new Map<string, number>();
  for (const s of sheet.steps)
    for (const e of s.does ?? []) {
      const kind = thingOf(e[1])?.kind;
      if (e[0] !== 'fitted' && !(e[0] === 'tightened' && kind === 'fastener')) continue;
      const n =
        kind === 'fastener'
          ? fastenersOf(
              {
                ...s,
                torque: undefined,
                ...(s.torque?.count ? { torque: { ...s.torque, stages: [] } } : {}),
              },
              stages,
            )
          : (howMany(e, s.spot, stages) ?? 1);
      counts.set(e[1], (counts.get(e[1]) ?? 0) + (n ?? 1));
      if (kind === 'fastener' && s.torque?.singleUse) once.set(e[1], (once.get(e[1]) ?? 0) + (n ?? 1));
    }
  return { counts, once };
}

describe('parts of kit, list and steps', () => {
  it('are one count: each part of a kit has a step that fits it, as often as the kit holds it', () => {
    let looked = 0;
    for (const d of designs) {
      const { counts } = countsOf(d);
      for (const number of cat.kitsOf.get(d.v.id) ?? []) {
        const kit = cat.kits.get(number)!;
        const held = new Map<string, number>();
        for (const c of kit.contents) {
          const as = cat.parts.get(c.part)!.as;
          expect(as).withContext(`${number} ${c.part}`).toBeDefined();
          held.set(as!, (held.get(as!) ?? 0) + c.quantity);
        }
        for (const [as, n] of held) {
          expect(counts.get(as)).withContext(`${d.v.id} ${number} ${as}`).toBe(n);
          looked++;
        }
      }
    }
    console.log(`kits and sheets: ${looked} counts compared`);
    expect(looked).toBeGreaterThan(300);
  });

  it('leave nothing out: what is used once or seals is in every kit of the design, or on its list, as often as steps take it', () => {
    let looked = 0;
    for (const d of designs) {
      const { counts, once } = countsOf(d);
      const seals = [...counts].filter(([k]) => thingOf(k)?.kind === 'seal');
      for (const [as, n] of [...once, ...seals]) {
        const job = (cat.jobsOf.get(d.v.id) ?? []).find((j) => j.as === as);
        const kits = (cat.kitsOf.get(d.v.id) ?? []).filter((k) => cat.kits.get(k)!.status === 'current');
        const inAll = kits.every((k) =>
          cat.kits.get(k)!.contents.some((c) => cat.parts.get(c.part)!.as === as && c.quantity === n),
        );
        expect(inAll || job?.quantity === n)
          .withContext(`${d.v.id} ${as} ${n}`)
          .toBeTrue();
        looked++;
      }
    }
    expect(looked).toBeGreaterThan(100);
  });

  it('are not those of a sister design where they differ: what is counted or measured refuses the other one', () => {
    let refused = 0;
    const numbers = (id: string) =>
      designs
        .find((d) => d.v.id === id)!
        .sheet.steps.flatMap((s) =>
          (s.proof?.asks ?? []).map((a) => ({ key: `${s.id} ${a.id}`, from: a.from, to: a.to })),
        );
    for (const d of designs)
      for (const other of designs) {
        if (other === d || other.v.engine !== d.v.engine) continue;
        const theirs = new Map(numbers(other.v.id).map((a) => [a.key, a]));
        for (const mine of numbers(d.v.id)) {
          const x = theirs.get(mine.key);
          if (mine.from === undefined || mine.to === undefined || x?.from === undefined || x.to === undefined)
            continue;
          if (x.from === mine.from && x.to === mine.to) continue;
          // Links of an old chain are counted over any stretch of it; windows of tensioners overlap by nature.
          if (mine.key.startsWith('old.measure') || /(?:ext|ptr)$/.test(mine.key)) continue;
          const middle = (x.from + x.to) / 2;
          expect(middle >= mine.from && middle <= mine.to)
            .withContext(`${d.v.id} ${mine.key} takes ${other.v.id}`)
            .toBeFalse();
          refused++;
        }
      }
    console.log(`sister designs: ${refused} bounds refuse the other one`);
    expect(refused).toBeGreaterThan(12);
  });
});
