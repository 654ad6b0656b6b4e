import { nth } from '@core/quantity/must';
import { angleAtReading, type Carrier, limitsOf } from '@core/drive/carrier';
import { type Layout, senseOf, tensionerIndex } from '@core/drive/layout';
import { type Circle, circlesOf, type Path, solvePath } from '@core/drive/path';
import { solveDrive } from '@core/drive/solve-drive';
import type { Stage } from '@core/drive/stages';
import { leastTurns, type Policy } from '@core/policy/policy';
import { asFound, type DriveNow, type StageNow } from './drive-now';
import type { Sheet, SheetStep } from './sheet';

/** What moves on the drive of a step's stage while the step is done. */
export type StepMotion = {
  /**
   * Degrees of the stage's driving wheel from its mark, in its running sense, at the start and at the end. A crank that is
   * brought to its mark comes from an eighth of a turn before it: where it stood is not known.
   */
  driver?: { fromDeg: number; toDeg: number; toMark: boolean };
  /** Whole turns of the crank, where they are counted. */
  turns?: number;
  /** Angle of the tensioner's carrier, degrees. */
  carrier?: { wheel: number; fromDeg: number; toDeg: number };
  loop?: { from: StageNow['loop']; to: StageNow['loop'] };
  tensioner?: 'on' | 'off';
};
/** The stage at one moment of a motion. */
export type MotionFrame = {
  circles: readonly Circle[];
  /** None where a belt cannot lie round the wheels as they stand. */
  path: Path | undefined;
  driverDeg: number;
  /** How much of belt or chain, and of the tensioner, is there: 0 to 1. */
  loop: number;
  tensioner: number;
  /** It hangs slack at that moment. */
  slack: boolean;
};

/** How far before its mark a crank is shown to come from, degrees. */
const BEFORE_DEG = 45;
const TURNED = new Set(['mark', 'turns']);

/** How the drive stood before a step: as the step in front of it left it, or as it was found. */
export function beforeStep(
  sheet: Pick<Sheet, 'steps'>,
  step: Pick<SheetStep, 'id'>,
  stages: number,
): DriveNow {
  const at = sheet.steps.findIndex((s) => s.id === step.id);
  return at > 0 ? nth(sheet.steps, at - 1).now : asFound(stages);
}

const isSet = (now: Pick<StageNow, 'tensioner'>): boolean =>
  now.tensioner === 'fitted' || now.tensioner === 'nominal';

/** Angle at which a tensioner stands, degrees of its carrier: set at its nominal reading, else at its start. */
export function carrierDegOf(carrier: Carrier, now: Pick<StageNow, 'tensioner'>): number {
  return (
    (isSet(now) ? angleAtReading(carrier, limitsOf(carrier).window.nominal) : undefined) ?? carrier.startDeg
  );
}

/** As found is taut. */
const loopLooks = (now: StageNow) => (now.loop === 'fitted' ? 'taut' : now.loop);

/** The same as it comes to stand on the drive: set, it is where belt and tensioner agree. */
function standsAt(layout: Layout, carrier: Carrier, now: StageNow): number {
  const solved = isSet(now) ? solveDrive(layout) : undefined;
  return (solved?.ok ? solved.value.setting?.carrierDeg : undefined) ?? carrierDegOf(carrier, now);
}

/**
 * What moves at a step; undefined where nothing of the drive does.
 * @param before how the drive stood before it, see {@link beforeStep}
 */
export function stepMotion(
  step: Pick<SheetStep, 'spot' | 'now' | 'does' | 'turns'>,
  before: DriveNow,
  stages: readonly Stage[],
  policy: Policy,
): StepMotion | undefined {
  const stage = stages[step.spot.stage];
  if (!stage) return undefined;
  const [from, to] = [nth(before.stages, step.spot.stage), nth(step.now.stages, step.spot.stage)];
  const out: StepMotion = {};
  const turned = (step.does ?? []).find(
    (e) => e[0] === 'turned' && e[1] === 'crank' && TURNED.has(e[2] ?? ''),
  );
  if (turned?.[2] === 'turns') {
    out.turns = leastTurns(policy, step.turns);
    out.driver = { fromDeg: 0, toDeg: 360 * out.turns * stage.ratio, toMark: true };
  } else if (turned) out.driver = { fromDeg: -BEFORE_DEG * stage.ratio, toDeg: 0, toMark: true };
  const wheel = tensionerIndex(stage.layout);
  const carrier = stage.layout.wheels[wheel]?.carrier;
  if (carrier && from.tensioner !== 'off' && to.tensioner !== 'off') {
    const [fromDeg, toDeg] = [from, to].map((n) => standsAt(stage.layout, carrier, n)) as [number, number];
    if (Math.abs(toDeg - fromDeg) > 1e-6) out.carrier = { wheel, fromDeg, toDeg };
  }
  if (loopLooks(from) !== loopLooks(to)) out.loop = { from: from.loop, to: to.loop };
  if ((from.tensioner === 'off') !== (to.tensioner === 'off'))
    out.tensioner = to.tensioner === 'off' ? 'off' : 'on';
  return Object.keys(out).length > 0 ? out : undefined;
}

/**
 * The stage at a moment of a motion, or as a step leaves it.
 * @param share of the motion that is done, 0 to 1
 */
export function motionFrame(
  layout: Layout,
  now: StageNow,
  motion: StepMotion | undefined,
  share: number,
): MotionFrame {
  const between = (a: number, b: number) => a + (b - a) * share;
  const wheel = tensionerIndex(layout);
  const carrier = layout.wheels[wheel]?.carrier;
  const c = motion?.carrier;
  const off = now.tensioner === 'off' && motion?.tensioner === undefined;
  const deg = c ? between(c.fromDeg, c.toDeg) : carrier && !off ? standsAt(layout, carrier, now) : undefined;
  const circles = circlesOf(layout, deg === undefined ? [] : [{ wheel, carrierDeg: deg }]);
  const path = solvePath(circles, senseOf(layout));
  const there = (is: boolean, change: 'on' | 'off' | undefined) =>
    change === undefined ? Number(is) : change === 'on' ? share : 1 - share;
  const loop = motion?.loop;
  const laid = loop?.from === 'off' ? 'on' : loop?.to === 'off' ? 'off' : undefined;
  return {
    circles,
    path: path.ok ? path.value : undefined,
    driverDeg: motion?.driver ? between(motion.driver.fromDeg, motion.driver.toDeg) : 0,
    loop: there(now.loop !== 'off', laid),
    tensioner: there(now.tensioner !== 'off', motion?.tensioner),
    slack: (loop && share < 1 && loop.from !== 'off' ? loop.from : now.loop) === 'slack',
  };
}
