import { num, nth } from '@core/quantity/must';
import { oncePer } from '@core/quantity/keep';
import { type Layout, tensionerIndex } from '@core/drive/layout';
import { solveDrive } from '@core/drive/solve-drive';
import type { Stage } from '@core/drive/stages';
import { turnedBy } from '@core/drive/turned';
import type { SheetStep } from '@core/fitting/sheet';
import type { MotionFrame } from '@core/fitting/step-motion';
import { driveScene, turnScene, wheelScene } from '../ui/drive-scene';
import { fixed } from '../ui/drive-shapes';
import { type Label, labelPlaces } from '../ui/label-places';
import type { StepPicture, StepShape } from './step-shape';
import { stepOver, stepTitle, touchedWheels } from './step-picture';

/** Room in which the large drawing is usually shown, pixels: names and words have their usual size there. */
const SHOWN = { width: 330, height: 400 };
const TEXT_PX = 12;

type Ground = {
  box: StepPicture['box'];
  unit: number;
  textMm: number;
  names: readonly Label[];
  /** Id of the wheel that the tensioner carries. */
  tensioner: string | undefined;
};
/** What stands still at a step: room, names, arrows and words. */
type StageStill = Ground & {
  arrows: readonly Extract<StepShape, { tag: 'path' }>[];
  words: readonly Extract<StepShape, { tag: 'text' }>[];
  title: string;
};
type StageWheel = {
  id: string;
  lit: boolean;
  opacity: number;
  r: number;
  teeth: string;
  shoe: string | undefined;
  /** Where it stands, turned; where its mark points, and where that should. */
  at: string;
  mark: string | undefined;
  index: string;
  pointer: string;
  line: string;
};
type StageScene = {
  wheels: StageWheel[];
  belt: string;
  beltWidth: number;
  teeth: string;
  slack: boolean;
  loop: number;
  tensioner: number;
  carriers: { d: string; pivot: { x: number; y: number }; plunger?: string; opacity: number }[];
};

const groundOf = oncePer((layout: Layout): Ground | undefined => {
  const solved = solveDrive(layout);
  if (!solved.ok) return undefined;
  const scene = driveScene({ layout, ...solved.value });
  const unit = Math.max(scene.box.width / SHOWN.width, scene.box.height / SHOWN.height);
  const names = labelPlaces(scene.named, scene.obstacles, unit);
  const textMm = TEXT_PX * unit;
  const xs = [
    scene.box.x,
    scene.box.x + scene.box.width,
    ...names.flatMap((n) => [n.x - n.width / 2, n.x + n.width / 2]),
  ];
  const ys = [
    scene.box.y,
    scene.box.y + scene.box.height,
    ...names.flatMap((n) => [n.y - n.height / 2, n.y + n.height / 2]),
  ];
  const [x, y] = [Math.min(...xs), Math.min(...ys)];
  return {
    box: { x, y, width: Math.max(...xs) - x, height: Math.max(...ys) - y },
    unit,
    textMm,
    tensioner: layout.wheels[tensionerIndex(layout)]?.id,
    names: names.map((n) => ({ ...n, y: n.y + textMm * 0.35 })),
  };
});

/** All of the large drawing that stands still; undefined for a drive that cannot be laid out. */
export function stageStill(step: SheetStep, stages: readonly Stage[]): StageStill | undefined {
  const layout = stages[step.spot.stage]?.layout;
  const ground = layout && groundOf(layout);
  if (!ground) return undefined;
  const over = stepOver(step, stages, ground.textMm);
  return {
    ...ground,
    arrows: over.flatMap((s) => (s.tag === 'path' && s.is.startsWith('arrow') ? [s] : [])),
    words: over.flatMap((s) => (s.tag === 'text' ? [s] : [])),
    title: stepTitle(step, stages),
  };
}

/** All of it that moves, at one moment. */
export function stageScene(layout: Layout, step: Pick<SheetStep, 'on' | 'spot'>, f: MotionFrame): StageScene {
  const lit = new Set(touchedWheels(layout, step));
  const tensioner = tensionerIndex(layout);
  const { circles, path } = f;
  const turned = path
    ? turnScene({ layout, circles, path }, f.driverDeg)
    : { teeth: '', wheels: layout.wheels.map(() => ({ turnDeg: 0 })) };
  // What no belt joins does not turn with the crank.
  const joined = f.loop > 0;
  const by = turnedBy(layout, circles, joined ? f.driverDeg : 0).wheelDeg;
  const scene = path && driveScene({ layout, circles, path });
  const wheels = layout.wheels.map((w, i): StageWheel => {
    const c = nth(circles, i);
    const s = wheelScene(layout, w, c);
    const put = (deg: number) => `translate(${fixed(s.x)} ${fixed(s.y)}) rotate(${fixed(deg)})`;
    const deg = -num(by, i);
    return {
      id: w.id,
      lit: lit.has(i),
      opacity: i === tensioner ? f.tensioner : 1,
      r: s.r,
      teeth: s.teeth,
      shoe: s.shoe,
      at: put(deg),
      mark: w.markDeg === undefined ? undefined : put(deg - w.markDeg),
      index: put(-(w.markDeg ?? 0)),
      pointer: `M${fixed(s.r - 3)} 0l-9 -4v8z`,
      line: `M${fixed(s.r + 5)} 0h10`,
    };
  });
  const carried = layout.wheels.flatMap((w, i) => (w.carrier ? [i] : []));
  return {
    wheels,
    belt: f.loop > 0 ? (scene?.belt ?? '') : '',
    beltWidth: scene?.beltWidth ?? 1,
    teeth: turned.teeth,
    slack: f.slack,
    loop: f.loop,
    tensioner: f.tensioner,
    carriers: (scene?.carriers ?? []).map((c, k) => ({
      ...c,
      opacity: carried[k] === tensioner ? f.tensioner : 1,
    })),
  };
}
