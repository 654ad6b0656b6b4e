import { must, nth } from '@core/quantity/must';
import {
  BENCH,
  INK,
  STEEL,
  DARK,
  RUBBER,
  CORD,
  PLASTIC,
  BURNT,
  PAPER,
  RUST,
  WET,
  patchRect,
  round,
  patchAt,
  patch,
  withCard,
  type PhotoScene,
} from './patches';
import type { Patch } from '@core/simulate/photograph';

type BeltScene = {
  kind: 'belt';
  widthMm: number;
  /** Teeth of the piece in view, and what was found at which. */
  teeth: number;
  damage?: Record<string, 'root_crack' | 'sheared' | 'hooked' | 'paint'>;
  frayed?: boolean;
};
/** A length of belt, teeth up. */
function beltScene({ widthMm, teeth, damage = {}, frayed }: BeltScene): PhotoScene {
  const pitch = 8;
  const length = teeth * pitch;
  const own = [patch(patchRect(0, 0, length, widthMm), DARK)];
  for (let k = 1; k <= teeth; k++) {
    const x = (k - 1) * pitch + 1.5;
    const found = damage[k];
    if (found === 'sheared') own.push(patch(patchRect(x, widthMm * 0.1, 5, widthMm * 0.8), CORD));
    else own.push(patch(patchRect(x, 0, found === 'hooked' ? 3.2 : 5, widthMm), RUBBER));
    if (found === 'root_crack') own.push(patch(patchRect(x + 5.2, 1, 0.8, widthMm - 2), PAPER));
    if (found === 'paint') own.push(patch(patchRect(x, 0, 5, widthMm * 0.4), PAPER));
  }
  if (frayed)
    for (let x = 0; x < length; x += 3)
      own.push(
        patch(
          [
            { x, y: widthMm },
            { x: x + 2, y: widthMm },
            { x: x + 1 + (x % 2), y: widthMm + 2 + (x % 4) },
          ],
          CORD,
        ),
      );
  const middle = length / 2;
  return withCard(own, { x: 0, y: 0, w: length, h: widthMm + 5 }, [
    { x: middle, y: 0 },
    { x: middle, y: widthMm },
  ]);
}

type WheelScene = {
  kind: 'wheel';
  outsideMm: number;
  teeth?: number;
  /** Teeth that are broken away. */
  broken?: number[];
  /** Band worn into the face, or the ring of rubber that came apart. */
  band?: boolean;
  /** A pointer at so many degrees from its start mark. */
  pointerDeg?: number;
  /** Windows of a sensor ring. */
  windows?: number;
  trail?: boolean;
};
/** A wheel from its face; measured across, or at its pointer. */
function wheelScene(w: WheelScene): PhotoScene {
  const r = w.outsideMm / 2;
  const own: Patch[] = [];
  if (w.teeth)
    for (let k = 0; k < w.teeth; k++) {
      if (w.broken?.includes(k + 1)) continue;
      const deg = (360 * k) / w.teeth;
      const half = 90 / w.teeth;
      own.push(
        patch(
          [
            patchAt(r * 0.9, deg - half),
            patchAt(r, deg - half),
            patchAt(r, deg + half),
            patchAt(r * 0.9, deg + half),
          ],
          STEEL,
        ),
      );
    }
  own.push(patch(round(0, 0, w.teeth ? r * 0.92 : r), STEEL));
  if (w.band) own.push(patch(round(0, 0, r * 0.86), RUST), patch(round(0, 0, r * 0.78), STEEL));
  if (w.trail)
    own.push(
      patch(
        [patchAt(r * 0.3, 60), patchAt(r * 0.98, 80), patchAt(r * 0.98, 110), patchAt(r * 0.3, 120)],
        WET,
      ),
    );
  own.push(patch(round(0, 0, r * 0.3), DARK), patch(round(0, 0, r * 0.12), INK));
  const windows = Array.from({ length: w.windows ?? 0 }, (_, k) =>
    patchAt(r * 0.86, (360 * k) / must(w.windows)),
  );
  for (const p of windows) own.push(patch(round(p.x, p.y, Math.min(2.4, r / windows.length), 16), INK));
  if (windows.length > 0) return withCard(own, { x: -r, y: -r, w: 2 * r, h: 2 * r }, windows);
  if (w.pointerDeg === undefined)
    return withCard(own, { x: -r, y: -r, w: 2 * r, h: 2 * r }, [
      { x: -r, y: 0 },
      { x: r, y: 0 },
    ]);
  const tip = patchAt(r * 0.95, w.pointerDeg);
  const start = patchAt(r * 0.95, 0);
  const foot = [patchAt(r * 0.08, w.pointerDeg + 90), patchAt(r * 0.08, w.pointerDeg - 90)];
  own.push(
    patch([nth(foot, 0), tip, nth(foot, 1)], PAPER),
    patch(patchRect(r * 0.8, -0.8, r * 0.2, 1.6), PAPER),
  );
  return withCard(own, { x: -r, y: -r, w: 2 * r, h: 2 * r }, [start, { x: 0, y: 0 }, tip]);
}

type PlungerScene = { kind: 'plunger'; bodyMm: number; outMm: number; boreMm: number; cut?: boolean };
/** A plunger that stands out of its body. */
function plungerScene({ bodyMm, outMm, boreMm, cut }: PlungerScene): PhotoScene {
  const tall = boreMm * 2.2;
  const [y, rod] = [(tall - boreMm) / 2, boreMm];
  const own = [
    patch(patchRect(0, 0, bodyMm, tall), STEEL),
    patch(patchRect(bodyMm * 0.15, -boreMm * 0.5, boreMm, boreMm * 0.5), STEEL),
    patch(patchRect(bodyMm, y, outMm, rod), DARK),
    ...Array.from({ length: Math.floor(outMm / 3) }, (_, i) =>
      patch(patchRect(bodyMm + 1 + 3 * i, y, 0.8, rod * 0.25), INK),
    ),
    patch(patchRect(bodyMm - 3, y - 1, 1.6, rod + 2), INK),
    ...(cut ? [patch(patchRect(bodyMm - 3.4, y + rod * 0.6, 2.6, 1.4), PAPER)] : []),
  ];
  return withCard(own, { x: 0, y: -boreMm * 0.5, w: bodyMm + outMm, h: tall + boreMm * 0.5 }, [
    { x: bodyMm, y: y + rod * 0.8 },
    { x: bodyMm + outMm, y: y + rod * 0.8 },
  ]);
}

type GuideScene = {
  kind: 'guide';
  lengthMm: number;
  deepMm: number;
  /** What is broken away of the free end, mm; grooves at stations; melted. */
  goneMm?: number;
  grooves?: number[];
  cracks?: number[];
  burnt?: boolean;
};
/** A guide in profile from its pivot; measured along its back, or around its outline. */
function guideScene({
  lengthMm,
  deepMm,
  goneMm = 0,
  grooves = [],
  cracks = [],
  burnt,
}: GuideScene): PhotoScene {
  const end = lengthMm - goneMm;
  const outline = [
    { x: 0, y: 0 },
    { x: end, y: 0 },
    ...(goneMm > 0 ? [{ x: end - deepMm * 0.4, y: deepMm * 0.5 }] : []),
    { x: end - (goneMm > 0 ? deepMm * 0.1 : 0), y: deepMm },
    { x: 0, y: deepMm },
  ];
  const own = [
    patch(outline, burnt ? BURNT : PLASTIC),
    patch(round(deepMm * 0.5, deepMm * 0.5, deepMm * 0.28), INK),
    ...grooves.filter((x) => x < end).map((x) => patch(patchRect(x - 3, 0, 6, deepMm * 0.18), BURNT)),
    ...cracks
      .filter((x) => x < end)
      .map((x) =>
        patch(
          [
            { x, y: 0 },
            { x: x + 1, y: 0 },
            { x: x + 2.4, y: deepMm },
            { x: x + 1.4, y: deepMm },
          ],
          PAPER,
        ),
      ),
  ];
  return withCard(own, { x: 0, y: 0, w: lengthMm, h: deepMm }, outline);
}

type BoltScene = { kind: 'bolt'; m: number; lengthMm: number; necked?: boolean };
/** A bolt on its side, measured under its head. */
function boltScene({ m, lengthMm, necked }: BoltScene): PhotoScene {
  const shank = lengthMm * 0.45;
  const own = [
    patch(patchRect(-m * 0.7, -m * 0.85, m * 0.7, m * 1.7), STEEL),
    patch(patchRect(0, -m * 0.5, shank, m), STEEL),
    patch(patchRect(shank, -m * 0.5, lengthMm - shank, m), DARK),
    ...Array.from({ length: Math.floor((lengthMm - shank) / 2) }, (_, i) =>
      patch(patchRect(shank + 2 * i, -m * 0.5, 0.7, m), INK),
    ),
  ];
  if (necked)
    for (const y of [-m * 0.5, m * 0.35])
      own.push(patch(patchRect(shank - m * 0.4, y, m * 0.8, m * 0.15), BENCH));
  return withCard(own, { x: -m * 0.7, y: -m, w: lengthMm + m, h: 2 * m }, [
    { x: 0, y: m * 0.5 },
    { x: lengthMm, y: m * 0.5 },
  ]);
}

type ChainScene = { kind: 'chain'; pitchMm: number; links: number; blue?: boolean };
/** A length of chain, links counted from the left; measured from pin to pin. */
function chainScene({ pitchMm, links, blue }: ChainScene): PhotoScene {
  const own: Patch[] = [];
  for (let k = 0; k < links; k++)
    own.push(
      patch(
        patchRect(k * pitchMm - pitchMm * 0.3, -pitchMm * 0.4, pitchMm * 1.6, pitchMm * 0.8),
        k % 2 === 0 ? (blue ? [70, 84, 128] : STEEL) : DARK,
      ),
    );
  for (let k = 0; k <= links; k++) own.push(patch(round(k * pitchMm, 0, pitchMm * 0.2, 20), INK));
  return withCard(own, { x: -pitchMm, y: -pitchMm, w: (links + 2) * pitchMm, h: 2 * pitchMm }, [
    { x: 0, y: 0 },
    { x: links * pitchMm, y: 0 },
  ]);
}

type PlateScene = {
  kind: 'plate';
  wide: number;
  tall: number;
  rubbed?: boolean;
  crushed?: boolean;
  wet?: boolean;
};
/** A cover, a cassette or a box: a plate with what was found on it. */
function plateScene({ wide, tall, rubbed, crushed, wet }: PlateScene): PhotoScene {
  const own = [patch(patchRect(0, 0, wide, tall), crushed ? CORD : PLASTIC)];
  for (const [x, y] of [
    [8, 8],
    [wide - 8, 8],
    [8, tall - 8],
    [wide - 8, tall - 8],
  ] as const)
    own.push(patch(round(x, y, 3, 20), INK));
  if (rubbed)
    own.push(
      patch(patchRect(wide * 0.3, tall * 0.4, wide * 0.4, tall * 0.08), PAPER),
      patch(patchRect(wide * 0.4, tall * 0.42, wide * 0.2, tall * 0.04), INK),
    );
  if (crushed)
    own.push(
      patch(
        [
          { x: wide, y: 0 },
          { x: wide * 0.75, y: 0 },
          { x: wide, y: tall * 0.3 },
        ],
        BENCH,
      ),
    );
  if (wet) own.push(patch(round(wide * 0.5, tall * 0.6, tall * 0.25), RUBBER));
  return withCard(own, { x: 0, y: 0, w: wide, h: tall }, [
    { x: 0, y: 0 },
    { x: wide, y: 0 },
  ]);
}

export type SceneOf =
  | BeltScene
  | WheelScene
  | PlungerScene
  | GuideScene
  | BoltScene
  | ChainScene
  | PlateScene;
export function sceneOf(s: SceneOf): PhotoScene {
  switch (s.kind) {
    case 'belt':
      return beltScene(s);
    case 'wheel':
      return wheelScene(s);
    case 'plunger':
      return plungerScene(s);
    case 'guide':
      return guideScene(s);
    case 'bolt':
      return boltScene(s);
    case 'chain':
      return chainScene(s);
    case 'plate':
      return plateScene(s);
  }
}
