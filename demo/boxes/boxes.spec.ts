import { decode } from 'fast-png';
import { answersFor } from '@core/answer/answers';
import { applies } from '@core/answer/applies';
import { registryFor, worldOf } from '@core/answer/world';
import { measureOnPhoto, type PicturePoint } from '@core/examination/photo';
import { catalogueOf } from '@core/catalogue/find-records';
import { KINDS } from '@core/facts/kinds';
import { isBeyond } from '@core/facts/place';
import { optionsOf } from '@core/facts/observable';
import { reduce } from '@core/facts/state';
import { readOverlay } from '@core/examination/photo-overlay';
import shipped from '../boxes.json';
import { demoPack } from '../catalogue';
import { BOXES, boxFacts, taken } from './boxes';
import { BENCH, CARD } from './patches';
import { plainText } from '@core/facts/value';

const world = worldOf(catalogueOf(demoPack()));
const registry = registryFor(world);
const boxes = BOXES.map((box) => {
  const made = boxFacts(box);
  return { box, ...made, a: answersFor(world, reduce(made.facts)) };
});

describe('the boxes of the demo', () => {
  it('are at least two dozen over all kinds of parts and all engines, each with a photograph, and ship as they are made', () => {
    expect(boxes.length).toBeGreaterThanOrEqual(24);
    const kinds = new Set(
      boxes.flatMap(({ a }) => a.examination.things.filter((t) => t.done > 0).map((t) => t.kind)),
    );
    const missing = [...KINDS.values()].filter((k) => k.part && !kinds.has(k.kind)).map((k) => k.kind);
    expect(missing).toEqual([]);
    expect(new Set(BOXES.map((b) => b.engine)).size).toBe(world.catalogue.pack.engines.length);
    expect(boxes.every((b) => b.photos.length > 0)).toBeTrue();
    expect(shipped.facts as unknown).toEqual(
      JSON.parse(JSON.stringify(boxes.flatMap((b) => b.facts.filter((f) => !f.key.startsWith('cause.'))))),
    );
    const files = [...boxes.flatMap((b) => b.photos), ...boxes.flatMap((b) => b.captures)];
    expect(shipped.files.map((f) => f.hash)).toEqual(files.map((p) => p.ref.hash));
    expect(boxes.flatMap((b) => b.captures).length).toBeGreaterThanOrEqual(3);
  });

  for (const { box, facts, a } of boxes)
    it(`${box.tag} says of its drive only what that drive has, in values that there are, with nothing contradicted`, () => {
      expect(a.possible.designs.length).toBe(1);
      expect(a.kits.find((k) => k.kit.number === box.kit)?.verdict).toBe('fits');
      for (const f of facts) {
        const o = registry.get(f.key);
        if (!o) continue;
        expect(applies(o, a.possible)).withContext(f.key).toBeTrue();
        const keys = optionsOf(o).map((x) => x.key);
        if (o.type.kind === 'choice') expect(keys).withContext(f.key).toContain(plainText(f.value));
        if (o.type.kind === 'number') {
          expect(Number(f.value)).withContext(f.key).toBeGreaterThanOrEqual(o.type.min);
          expect(Number(f.value)).withContext(f.key).toBeLessThanOrEqual(o.type.max);
        }
        if (f.place?.on === 'tooth' && o.part === 'belt') {
          const count = a.damage.find((d) => d.about === (f.about ?? ''))?.count;
          expect(count !== undefined && !isBeyond(f.place, count))
            .withContext(f.key)
            .toBeTrue();
        }
      }
      // a photograph of a further thing is of one that is there
      for (const p of box.photos)
        expect([...KINDS.keys(), ...(box.things ?? []).map((t) => t.id)]).toContain(p.of);
      expect(a.contradictions).toEqual([]);
    });

  const damage = (tag: string, about = '') =>
    boxes.find((b) => b.box.tag === tag)!.a.damage.find((d) => d.about === about)!.spacing;
  it('hold belts whose marks name a wheel, and one whose marks cannot be told between two', () => {
    expect(damage('1931')).toEqual(jasmine.objectContaining({ verdict: 'wheel', wheel: 'crank', alike: [] }));
    expect(damage('1936', 'belt-lower')).toEqual(
      jasmine.objectContaining({ verdict: 'wheel', wheel: 'oil-pump', alike: [] }),
    );
    const both = damage('1933');
    expect(both.verdict === 'wheel' && [both.wheel, ...both.alike].sort()).toEqual([
      'crank',
      'exhaust',
      'intake',
    ]);
  });

  it('hold a guide of which a piece is missing, and a plunger that leaks down', () => {
    const of = (tag: string) => boxes.find((b) => b.box.tag === tag)!.a;
    expect(of('1943').balances.find((b) => b.by === 'mass')?.verdict).toBe('missing');
    expect(of('1951').leaks[0]?.verdict).toBe('above');
    expect(of('1945').spreads.find((s) => s.kind === 'guide')?.answer.verdict).toBe('to_end');
  });
});

describe('the photographs of the demo', () => {
  it('show what the facts say that was read off them: measured again on the picture it is the same, and near what was laid there', () => {
    const laid: Record<string, (s: never) => number> = {
      'belt.width': (s: { widthMm: number }) => s.widthMm,
      'roller.od': (s: { outsideMm: number }) => s.outsideMm,
      'tensioner.roller_od': (s: { outsideMm: number }) => s.outsideMm,
      'bolt.length': (s: { lengthMm: number }) => s.lengthMm,
      'ring.windows': (s: { windows: number }) => s.windows,
    };
    let read = 0;
    for (const { box, facts } of boxes)
      for (const p of box.photos.filter((x) => x.measure !== undefined && laid[x.measure])) {
        const value = facts.find((f) => f.key === p.measure && f.files?.[0]?.name === p.name)!;
        expect(Math.abs(Number(value.value) - laid[p.measure!]!(p.scene as never))).toBeLessThanOrEqual(
          2 * (value.u ?? 0),
        );
        const overlay = readOverlay(
          facts.find((f) => f.key === 'photo.overlay' && f.files?.[0]?.hash === value.files![0]!.hash)!.value,
        )!;
        expect(overlay.key).toBe(p.measure!);
        if (overlay.scale !== 'rectangle') continue;
        const corners = overlay.marks as [PicturePoint, PicturePoint, PicturePoint, PicturePoint];
        const again = measureOnPhoto(
          {
            kind: 'rectangle',
            corners,
            width: overlay.sides[0]!,
            height: overlay.sides[1]!,
            u: overlay.sideU,
          },
          { what: 'length', spots: overlay.spots },
          1.5,
        );
        expect(again.ok && again.value.value).toBeCloseTo(Number(value.value), 9);
        read++;
      }
    expect(read).toBeGreaterThan(8);
  });

  it('are pictures in which the card is where the overlay says', () => {
    const photo = taken({ kind: 'bolt', m: 10, lengthMm: 60 }, 4, 'bolt.png');
    const { width, data } = decode(photo.png);
    const at = ({ x, y }: PicturePoint) => [
      ...data.slice(3 * (Math.floor(y) * width + Math.floor(x))).slice(0, 3),
    ];
    const [a, b, c] = photo.corners as [PicturePoint, PicturePoint, PicturePoint];
    const inside = { x: (a.x + c.x) / 2, y: (a.y + c.y) / 2 };
    expect(at(inside)).not.toEqual([...BENCH]);
    const beyond = { x: a.x + (a.x - inside.x) * 0.1, y: a.y + (a.y - inside.y) * 0.1 };
    expect(at(beyond)).toEqual([...BENCH]);
    expect(CARD.width / CARD.height).toBeGreaterThan(1);
    expect(Math.hypot(b.x - a.x, b.y - a.y)).toBeGreaterThan(100);
  });
});
