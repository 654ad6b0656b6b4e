import type { Gate } from '@core/catalogue/expand-procedure';
import { limitsOf, readingUnit } from '@core/drive/carrier';
import { tensionerIndex } from '@core/drive/layout';
import { settingsOf } from '@core/drive/settings-of';
import type { Stage } from '@core/drive/stages';
import { intendedSetting, travelFrom } from '@core/drive/tensioner';
import { type DriveNow } from '@core/fitting/drive-now';
import { type Broken, brokenGates, wayBack } from '@core/fitting/order';
import { roomAt } from '@core/fitting/recover';
import type { Sheet, SheetStep } from '@core/fitting/sheet';
import { beforeStep } from '@core/fitting/step-motion';
import { must, nth } from '@core/quantity/must';
import { randomFrom } from '@core/quantity/random';

/** How a hand goes wrong at a step: too early, another tool, against the running direction, to the far side, otherwise than it says. */
type TrapKind = 'early' | 'tool' | 'against' | 'far_side' | 'otherwise';
export type Trap = {
  kind: TrapKind;
  step: string;
  /** Of `early`: what has to be done first. */ gate?: Gate;
};

/** What the drive computes of a hand gone wrong; figures only where geometry gives them. */
export type TrapFigure =
  /** A sprung tensioner finds nothing in its way and runs from one reading to its end. */
  | { is: 'runs_out'; from: number; to: number; unit: '°' | 'mm' }
  /** The crank alone turns into a valve: the first contact, degrees of the crank either way. */
  | { is: 'valves_meet'; crankDeg: number; valve: string; cylinder: string }
  /** Turned far enough, nothing meets anything. */
  | { is: 'valves_free' }
  /** The catalogue gives no valves: it counts as if they met. */
  | { is: 'valves_unknown' }
  /** The strand with the tensioner becomes the pulling one: so much of it goes to the other side, mm, teeth, and degrees of the crank. */
  | { is: 'slack_moves'; mm: number; teeth: number; crankDeg: number }
  /** The far-side setting: its reading beside the right one, and the least room there, mm. */
  | { is: 'other_setting'; right: number; other: number; unit: '°' | 'mm'; roomMm?: number };

export type Sprung = {
  trap: Trap;
  step: SheetStep;
  /** Gates that it breaks. */
  broken: Broken[];
  figures: TrapFigure[];
  /** Steps to be undone, the last done first; what has to be new for it. */
  undo: string[];
  spent: { step: string; needs: string }[];
  /** It cannot be made up for. */
  lost: boolean;
};

/** Every trap of a sheet, in the order of its steps. */
export function trapsOf(sheet: Pick<Sheet, 'steps' | 'gates'>, stages: readonly Stage[]): Trap[] {
  const tools = new Set(sheet.steps.flatMap((s) => (s.tool ? [s.tool.name] : [])));
  return sheet.steps.flatMap((s): Trap[] => [
    ...sheet.gates.filter((g) => g.after === s.id).map((gate): Trap => ({ kind: 'early', step: s.id, gate })),
    ...(s.tool && tools.size > 1 ? [{ kind: 'tool' as const, step: s.id }] : []),
    ...(turnsCrank(s) ? [{ kind: 'against' as const, step: s.id }] : []),
    ...(farSideOf(s, stages) ? [{ kind: 'far_side' as const, step: s.id }] : []),
    ...(s.fault === undefined ? [] : [{ kind: 'otherwise' as const, step: s.id }]),
  ]);
}

/** Whether a step turns the crank in its running direction. */
export const turnsCrank = (s: Pick<SheetStep, 'does'>): boolean =>
  (s.does ?? []).some((e) => e[0] === 'turned' && e[1] === 'crank' && (e[2] === 'mark' || e[2] === 'turns'));
const setsTensioner = (s: Pick<SheetStep, 'does'>): boolean =>
  (s.does ?? []).some((e) => e[0] === 'set' && e[1] === 'tensioner');
const letsGo = (s: Pick<SheetStep, 'does'>): boolean =>
  (s.does ?? []).some((e) => e[0] === 'released' && e[1] === 'tensioner');

/** The two settings of an eccentric that a step sets; undefined where it has only one. */
function farSideOf(s: SheetStep, stages: readonly Stage[]): TrapFigure | undefined {
  const layout = stages[s.spot.stage]?.layout;
  const carrier = layout?.wheels[tensionerIndex(layout)]?.carrier;
  if (!layout || carrier?.kind !== 'eccentric' || !setsTensioner(s)) return undefined;
  const settings = settingsOf(layout);
  const { right, other } = settings.ok ? intendedSetting(settings.value, carrier) : {};
  if (!right || !other) return undefined;
  return {
    is: 'other_setting',
    right: right.reading,
    other: other.reading,
    unit: readingUnit(carrier),
    ...(other.clearance ? { roomMm: other.clearance.mm } : {}),
  };
}

/**
 * Springs a trap: what follows is worked out and nothing breaks.
 * @param done steps done so far, in the order in which they were
 */
export function spring(
  sheet: Pick<Sheet, 'steps' | 'gates'>,
  stages: readonly Stage[],
  trap: Trap,
  done: readonly string[],
): Sprung {
  const step = must(sheet.steps.find((s) => s.id === trap.step));
  const early = trap.kind === 'early';
  const performed = {
    done: early
      ? [...done.filter((d) => d !== trap.gate?.before), step.id]
      : [...done.filter((d) => d !== step.id), step.id],
    skipped: new Set(
      sheet.steps.map((s) => s.id).filter((id) => !done.includes(id) || (early && id === trap.gate?.before)),
    ),
  };
  const broken = early ? brokenGates(performed, sheet.gates).filter((b) => b.gate.after === step.id) : [];
  const wrong = new Set(early ? [] : [step.id]);
  const back = wayBack(sheet.steps, sheet.gates, performed, broken, wrong);
  return {
    trap,
    step,
    broken,
    figures: figuresOf(sheet, stages, trap, step, done),
    undo: back.way?.undo ?? [],
    spent: back.way?.spent ?? [],
    lost: back.lost.length > 0 || (!early && step.undo === 'never'),
  };
}

function figuresOf(
  sheet: Pick<Sheet, 'steps' | 'gates'>,
  stages: readonly Stage[],
  trap: Trap,
  step: SheetStep,
  done: readonly string[],
): TrapFigure[] {
  const out: TrapFigure[] = [];
  if (trap.kind === 'far_side') out.push(...[farSideOf(step, stages)].flatMap((f) => (f ? [f] : [])));
  if (trap.kind === 'against') out.push(...slackMoved(step, stages));
  if (trap.kind !== 'early') return out;
  // a step that comes too early meets the drive as what was done leaves it, and as what it did not wait for found it
  const first = sheet.steps.find((s) => !done.includes(s.id) || s.id === trap.gate?.before) ?? step;
  const now = beforeStep(sheet, first, stages.length);
  if (letsGo(step) && !isLaid(now, step)) out.push(...runsOut(step, stages));
  if (turnsCrank(step) && !isLaid(now, step)) out.push(meeting(stages));
  return out;
}

const isLaid = (now: DriveNow, s: SheetStep): boolean => {
  const loop = now.stages[s.spot.stage]?.loop;
  return loop === 'fitted' || loop === 'taut';
};

/** A tensioner that is let go with nothing to push against. */
function runsOut(s: SheetStep, stages: readonly Stage[]): TrapFigure[] {
  const layout = stages[s.spot.stage]?.layout;
  const carrier = layout?.wheels[tensionerIndex(layout)]?.carrier;
  if (!carrier) return [];
  const { window, end } = limitsOf(carrier);
  const from = carrier.kind === 'arm' && carrier.plunger ? carrier.plunger.minMm : 0;
  return end > window.to ? [{ is: 'runs_out', from, to: end, unit: readingUnit(carrier) }] : [];
}

/** Turned the other way the tensioner gives until it is back at its start: what it gives lies slack on the strand that pulled before. */
function slackMoved(s: SheetStep, stages: readonly Stage[]): TrapFigure[] {
  const layout = stages[s.spot.stage]?.layout;
  const carrier = layout?.wheels[tensionerIndex(layout)]?.carrier;
  const z0 = layout?.wheels[0]?.teeth;
  if (!layout || !carrier || z0 === undefined) return [];
  const settings = settingsOf(layout);
  const right = settings.ok ? intendedSetting(settings.value, carrier).right : undefined;
  if (!settings.ok || !right) return [];
  const mm = travelFrom(layout, settings.value, right).toStartMm ?? 0;
  const teeth = mm / layout.pitchMm;
  return mm > 0 ? [{ is: 'slack_moves', mm, teeth, crankDeg: (teeth * 360) / z0 }] : [];
}

/** The crank turned alone, every cam at its mark: where a valve is met first, whichever way. */
function meeting(stages: readonly Stage[]): TrapFigure {
  const g = stages.find((s) => s.layout.valves)?.layout.valves;
  if (!g) return { is: 'valves_unknown' };
  for (let deg = 1; deg <= 180; deg++)
    for (const crankDeg of [deg, -deg]) {
      const room = roomAt(g, { crankDeg, cams: {} });
      if (room.mm <= 0) return { is: 'valves_meet', crankDeg, valve: room.valve, cylinder: room.cylinder };
    }
  return { is: 'valves_free' };
}

/** What may be done next beside what should: the right step and up to so many others that would break something. */
export function choicesAt(
  sheet: Pick<Sheet, 'steps' | 'gates'>,
  done: readonly string[],
  seed: number,
  others = 3,
): { right: SheetStep; all: SheetStep[] } | undefined {
  const left = sheet.steps.filter((s) => !done.includes(s.id));
  const [right] = left;
  if (!right) return undefined;
  const random = randomFrom(seed + 7919 * done.length);
  const held = left.filter((s) => s !== right && gatesHeld(sheet.gates, s.id, done).length > 0);
  const near = shuffled(held.slice(0, 8), random).slice(0, others);
  return { right, all: shuffled([right, ...near], random) };
}

/** Gates of a step that are not yet open. */
export const gatesHeld = (gates: readonly Gate[], id: string, done: readonly string[]): Gate[] =>
  gates.filter((g) => g.after === id && !done.includes(g.before));

/** Tools to choose among at a step: its own and up to two others of the same sheet. */
export function toolsAt(sheet: Pick<Sheet, 'steps'>, step: SheetStep, seed: number): string[] {
  if (!step.tool) return [];
  const own = step.tool.name;
  const others = [...new Set(sheet.steps.flatMap((s) => (s.tool ? [s.tool.name] : [])))].filter(
    (t) => t !== own,
  );
  const random = randomFrom(seed + step.number);
  return shuffled([own, ...shuffled(others, random).slice(0, 2)], random);
}

function shuffled<T>(all: readonly T[], random: () => number): T[] {
  const out = [...all];
  for (let i = out.length - 1; i > 0; i--) {
    const j = Math.floor(random() * (i + 1));
    [out[i], out[j]] = [nth(out, j), nth(out, i)];
  }
  return out;
}
