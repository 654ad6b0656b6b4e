import { oncePer } from '@core/quantity/keep';
import { must, nth } from '@core/quantity/must';
import { carriedCentre } from '@core/drive/carrier';
import { type Layout, tensionerIndex } from '@core/drive/layout';
import type { Circle, Path, Point } from '@core/drive/path';
import { circlesOf } from '@core/drive/path';
import { solveDrive } from '@core/drive/solve-drive';
import type { Stage } from '@core/drive/stages';
import type { StageNow } from '@core/fitting/drive-now';
import type { SheetStep } from '@core/fitting/sheet';
import { carrierDegOf } from '@core/fitting/step-motion';
import { driveScene } from '../ui/drive-scene';
import { beltPath, boxOf, fixed, shoeShape } from '../ui/drive-shapes';
import { labelPlaces } from '../ui/label-places';
import type { StepPicture, StepShape } from './step-shape';
import { turnArrow } from './turn-arrow';

/** Room in which it is usually shown, pixels. */
const SHOWN = { width: 360, height: 330 };
const TEXT_PX = 11.5;
const MARGIN = 16;
const RAD = Math.PI / 180;

type Ground = {
  layout: Layout;
  circles: readonly Circle[];
  path: Path;
  box: StepPicture['box'];
  textMm: number;
  base: readonly StepShape[];
};
/** What stands still in all pictures of a stage. */
const groundOf = oncePer((layout: Layout): Ground | undefined => {
  const solved = solveDrive(layout);
  return solved.ok ? makeGround(layout, solved.value.circles, solved.value.path) : undefined;
});

function makeGround(layout: Layout, circles: readonly Circle[], path: Path): Ground {
  const room = boxOf(layout, circles, MARGIN);
  const unit = Math.max(room.width / SHOWN.width, room.height / SHOWN.height);
  const textMm = TEXT_PX * unit;
  const { named, obstacles } = driveScene({ layout, circles, path });
  const names = labelPlaces(named, obstacles, unit);
  const base: StepShape[] = [];
  layout.wheels.forEach((w, i) => {
    if (w.carrier && w.role === 'tensioner') return;
    base.push(...wheelShapes(layout, w, nth(circles, i)));
  });
  for (const n of names) base.push({ tag: 'text', is: 'name', x: n.x, y: n.y + textMm * 0.35, text: n.name });
  const xs = [room.x, room.x + room.width, ...names.flatMap((n) => [n.x - n.width / 2, n.x + n.width / 2])];
  const ys = [
    room.y,
    room.y + room.height,
    ...names.flatMap((n) => [n.y - n.height / 2, n.y + n.height / 2]),
  ];
  const [x, y] = [Math.min(...xs), Math.min(...ys)];
  const box = { x, y, width: Math.max(...xs) - x, height: Math.max(...ys) - y };
  return { layout, circles, path, box, textMm, base };
}

function wheelShapes(layout: Layout, w: Layout['wheels'][number], c: Circle): StepShape[] {
  const r = w.teeth === undefined ? (w.outsideMm ?? c.r) : c.r - layout.toothMm / 2;
  const shoe = shoeShape(c, r);
  if (shoe) return [{ tag: 'path', is: 'shoe', d: shoe.d }];
  const out: StepShape[] = [
    { tag: 'circle', is: w.teeth === undefined ? 'smooth' : 'wheel', x: c.x, y: -c.y, r },
  ];
  if (w.markDeg !== undefined)
    out.push({ tag: 'path', is: 'mark', d: ray(c, w.markDeg, r * 0.55, r * 1.14) });
  return out;
}

/** A short line out from a centre, degrees anticlockwise from +x. */
function ray(c: Point, deg: number, from: number, to: number): string {
  const at = (r: number) =>
    `${fixed(c.x + r * Math.cos(deg * RAD))} ${fixed(-(c.y + r * Math.sin(deg * RAD)))}`;
  return `M${at(from)}L${at(to)}`;
}

/** Which wheels a step is done to. */
const TOUCHED: Partial<
  Record<NonNullable<SheetStep['on']>, (w: Layout['wheels'][number], i: number) => boolean>
> = {
  crank: (_, i) => i === 0,
  cams: (w) => w.role === 'cam' || w.role === 'intermediate',
  cam: (w) => w.role === 'cam',
  tensioner: (w) => w.role === 'tensioner',
  shoes: (w) => w.arc !== undefined,
  rollers: (w, i) => i > 0 && w.teeth === undefined && w.arc === undefined && w.role !== 'pump',
  pump: (w) => w.role === 'pump',
  ring: (w) => w.role === 'cam',
};

/** True when a step touches the drive, so that it is drawn. */
export const isDrawn = (s: Pick<SheetStep, 'on' | 'sets'>): boolean =>
  (s.sets?.length ?? 0) > 0 || s.on === 'loop' || (s.on !== undefined && TOUCHED[s.on] !== undefined);

/** The stage of the drive as it stands when a step is done, with what the step does shown on it. */
export function stepPicture(step: SheetStep, stages: readonly Stage[]): StepPicture | undefined {
  const layout = stages[step.spot.stage]?.layout;
  const ground = layout && groundOf(layout);
  if (!ground || !isDrawn(step)) return undefined;
  const now = nth(step.now.stages, step.spot.stage);
  const over = overOf(ground, now, step);
  const look = now.loop === 'off' ? undefined : now.loop;
  return {
    box: ground.box,
    textMm: ground.textMm,
    base: ground.base,
    loop: look ? [{ tag: 'path', is: `loop ${look}`, d: beltPath(ground) }] : [],
    over,
    baseId: ground.layout.id,
    title: titleOf(ground, now, step),
  };
}

const overOf = (ground: Ground, now: StageNow, step: SheetStep): StepShape[] => [
  ...tensionerShapes(ground, now, step),
  ...touched(ground, step),
  ...shaftWords(ground, now, step),
  ...arrows(ground, step),
];

/** What a step shows on the drive, whether it touches it or not, with letters of this height. */
export function stepOver(step: SheetStep, stages: readonly Stage[], textMm: number): StepShape[] {
  const layout = stages[step.spot.stage]?.layout;
  const ground = layout && groundOf(layout);
  return ground ? overOf({ ...ground, textMm }, nth(step.now.stages, step.spot.stage), step) : [];
}

/** How the drive stands at a step, in words. */
export function stepTitle(step: SheetStep, stages: readonly Stage[]): string {
  const layout = stages[step.spot.stage]?.layout;
  return layout ? titleOf({ layout }, nth(step.now.stages, step.spot.stage), step) : '';
}

function tensionerShapes({ layout, circles, textMm }: Ground, now: StageNow, step: SheetStep): StepShape[] {
  const index = tensionerIndex(layout);
  const w = layout.wheels[index];
  if (!w?.carrier || now.tensioner === 'off') return [];
  const { carrier } = w;
  const nominal = now.tensioner === 'fitted' || now.tensioner === 'nominal';
  const at = nominal ? undefined : [{ wheel: index, carrierDeg: carrierDegOf(carrier, now) }];
  const c = at ? nth(circlesOf(layout, at), index) : nth(circles, index);
  const deg = carrierDegOf(carrier, now);
  const centre = carriedCentre(carrier, deg * RAD);
  const out = wheelShapes(
    layout,
    w,
    w.arc ? c : { ...c, x: nominal ? c.x : centre.x, y: nominal ? c.y : centre.y },
  );
  if (carrier.kind === 'eccentric' && step.sets?.includes('show-key')) {
    const r = (w.outsideMm ?? 24) + textMm;
    out.push(...turnArrow(carrier.pivot, r, carrier.keyTurn, 'arrow', 'key', textMm));
    out.push(...turnArrow(carrier.pivot, r * 0.55, carrier.turn, 'arrow thin', '', textMm));
  }
  if (now.pin) {
    const p = c.arc ? must(shoeShape(c, w.outsideMm ?? c.r)).label : { x: c.x, y: -c.y };
    const word = now.pin === 'in' ? 'pinned' : 'let go';
    out.push({ tag: 'text', is: 'word', x: p.x, y: p.y - textMm * 1.2, text: word });
  }
  return out;
}

/** Which wheels of its stage a step is done to, by their place in running order. */
export function touchedWheels(layout: Layout, step: Pick<SheetStep, 'on' | 'spot'>): number[] {
  const is = step.on === undefined ? undefined : TOUCHED[step.on];
  if (!is) return [];
  return [...layout.wheels.entries()].flatMap(([i, w]) =>
    (step.spot.wheel !== undefined ? step.spot.wheel === i : is(w, i)) ? [i] : [],
  );
}

function touched({ layout, circles }: Ground, step: SheetStep): StepShape[] {
  return touchedWheels(layout, step).flatMap((i): StepShape[] => {
    const w = nth(layout.wheels, i);
    const c = nth(circles, i);
    const r = w.teeth === undefined ? (w.outsideMm ?? c.r) : c.r;
    const shoe = shoeShape(c, r);
    return [
      shoe
        ? { tag: 'path', is: 'lit', d: shoe.d }
        : { tag: 'circle', is: 'lit', x: c.x, y: -c.y, r: r * 1.06 + 2 },
    ];
  });
}

/** What holds a shaft, or that it turns free, written in its wheel. */
function shaftWords({ layout, circles, textMm }: Ground, now: StageNow, step: SheetStep): StepShape[] {
  const { lockedCrank, lockedCams, located } = step.now;
  return layout.wheels.flatMap((w, i): StepShape[] => {
    const words: string[] = [];
    if (i === 0 && w.role === 'crank') {
      if (lockedCrank) words.push('locked');
      else if (located) words.push('stop');
    }
    if (w.role === 'cam') {
      if (lockedCams) words.push('locked');
      if (now.cam === 'loose') words.push('loose');
    }
    const c = nth(circles, i);
    return words.map((text, k) => ({
      tag: 'text',
      is: text === 'loose' ? 'word look' : 'word',
      x: c.x,
      y: -c.y + textMm * (0.35 + k * 1.1 - (words.length - 1) * 0.55),
      text,
    }));
  });
}

function arrows({ layout, circles, textMm }: Ground, step: SheetStep): StepShape[] {
  const out: StepShape[] = [];
  if (step.sets?.includes('show-running')) {
    const c = nth(circles, 0);
    out.push(...turnArrow(c, c.r + textMm * 0.9, layout.runs, 'arrow', '', textMm));
  }
  if (step.sets?.includes('show-marks'))
    layout.wheels.forEach((w, i) => {
      const c = nth(circles, i);
      if (w.markDeg !== undefined)
        out.push({ tag: 'path', is: 'mark lit', d: ray(c, w.markDeg, c.r * 0.3, c.r * 1.3) });
    });
  const wheel = step.spot.wheel === undefined ? undefined : layout.wheels[step.spot.wheel];
  if (wheel?.carrier?.kind === 'eccentric' && step.kind === 'align')
    out.push(
      ...turnArrow(
        wheel.carrier.pivot,
        (wheel.outsideMm ?? 20) + textMm,
        wheel.carrier.keyTurn,
        'arrow',
        'key',
        textMm,
      ),
    );
  return out;
}

const LOOP_WORDS: Record<StageNow['loop'], string> = {
  fitted: 'as found',
  off: 'off',
  slack: 'on, slack',
  taut: 'on, taut',
};

function titleOf({ layout }: Pick<Ground, 'layout'>, now: StageNow, { now: drive }: SheetStep): string {
  const held = [
    drive.lockedCrank ? 'crank locked' : drive.located ? 'crank at its stop' : '',
    drive.lockedCams ? 'cams locked' : '',
    now.cam === 'loose' ? 'cam sprocket loose' : '',
    now.pin === 'in' ? 'tensioner pinned' : now.pin === 'out' ? 'tensioner let go' : '',
  ];
  return [`${layout.name ?? 'Drive'}: ${layout.kind} ${LOOP_WORDS[now.loop]}`, ...held.filter(Boolean)].join(
    ', ',
  );
}
