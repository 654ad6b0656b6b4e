import { oncePerName } from '@core/quantity/keep';
import { nth } from '@core/quantity/must';
import { type Gate, type PlacedStep, type StepSpot, expandProcedure } from '@core/catalogue/expand-procedure';
import type { Catalogue } from '@core/catalogue/find-records';
import type { Variant } from '@core/catalogue/pack';
import { fillPlaceholders } from '@core/catalogue/placeholders';
import {
  type Ask,
  STEP_PHASES,
  type StepPhase,
  type Quantity,
  type StepKind,
} from '@core/catalogue/procedure';
import { saysEffects } from '@core/catalogue/sheet-laws';
import { orderSteps } from '@core/catalogue/step-order';
import { readPlan, type TorqueStage } from '@core/catalogue/torque-plan';
import { limitsOf, readingUnit } from '@core/drive/carrier';
import { driveHas, hasAll } from '@core/drive/drive-has';
import { tensionerIndex } from '@core/drive/layout';
import { typedSense } from '@core/drive/sense';
import type { Stage } from '@core/drive/stages';
import { type PolicyQuestion, POLICY_QUESTIONS, SHIPPED_POLICY, type Policy } from '@core/policy/policy';
import { after, asFound, type DriveNow, setsOf } from './drive-now';
import { designOf } from './design-values';
import { fastenersOf } from './how-many';
import { type Values, valuesAt } from './values';

/** A figure that proves a step, with its unit and its bounds on this drive. */
export type AskFor = Omit<Ask, 'from' | 'to' | 'quantity'> & {
  quantity: Exclude<Quantity, 'reading'>;
  unit: string;
  from?: number;
  to?: number;
};
export type SheetStep = Omit<PlacedStep, 'proof' | 'torque'> & {
  /** Its place on the sheet, from 1. */
  number: number;
  phase: StepPhase;
  proof?: { by: 'look' | 'measure' | 'count' | 'feel' | 'torque'; text: string; asks: AskFor[] };
  torque?: Omit<NonNullable<PlacedStep['torque']>, 'stages'> & { stages: TorqueStage[] };
  /** The drive once the step is done. */
  now: DriveNow;
  /** The catalogue's own text fixes a turning sense; it is left out, since it may contradict the drive. */
  unsafe?: true;
};
export type Sheet = {
  /** `none`: the catalogue has no procedure; `other_kind`: the one it names is for another kind of drive. */
  status: 'ready' | 'none' | 'other_kind';
  name: string;
  steps: SheetStep[];
  gates: Gate[];
  /** Questions of the house whose answer shaped it. */
  shapedBy: string[];
  /** Its steps do not say what they do, as those of older catalogues: nothing proves that what comes off goes on again. */
  unproved?: true;
};

const NONE: Omit<Sheet, 'status' | 'name'> = { steps: [], gates: [], shapedBy: [] };
const sheets = oncePerName<Catalogue, Sheet>();

/**
 * The fitting sheet of a design: its procedure's steps that this drive and this house have, written from its layout, in an
 * order that keeps every gate. One and the same for the same answers of the house.
 */
export function sheetFor(
  cat: Catalogue,
  variant: Pick<Variant, 'id' | 'procedure' | 'engine'>,
  stages: readonly Stage[],
  policy: Policy = SHIPPED_POLICY,
): Sheet {
  const layouts = stages.map((s) => s.layout.id).join();
  const name = JSON.stringify([variant.id, variant.procedure, layouts, policy.chosen]);
  return sheets(cat, name, () => makeSheet(cat, variant, stages, policy));
}

/** Builds the sheet anew. */
export function makeSheet(
  cat: Catalogue,
  variant: Pick<Variant, 'id' | 'procedure' | 'engine'>,
  stages: readonly Stage[],
  policy: Policy,
): Sheet {
  const procedure = variant.procedure === undefined ? undefined : cat.procedures.get(variant.procedure);
  if (!procedure || procedure.block || !stages[0]) return { status: 'none', name: '', ...NONE };
  if (!hasAll(procedure.for, driveHas(stages)))
    return { status: 'other_kind', name: procedure.name, ...NONE };
  const { steps, gates } = expandProcedure(procedure, cat.procedures, stages, policy.chosen);
  const spots = new Map<string, Values>();
  const design = designOf(cat, variant, stages, policy);
  const valuesOf = (s: PlacedStep) => {
    const key = `${s.spot.stage} ${s.spot.wheel ?? ''} ${s.spot.whole ?? ''} ${s.turns ?? ''}`;
    const known = spots.get(key) ?? valuesAt(stages, s.spot, policy, design, s.turns);
    spots.set(key, known);
    return known;
  };
  let now = asFound(stages.length);
  let phase = 0;
  const written = (orderSteps(steps, gates) ?? steps).map((s, i) => {
    now = after(now, setsOf(s), s.spot.stage);
    phase = s.phase ? STEP_PHASES.indexOf(s.phase) : Math.max(phase, STEP_PHASES.indexOf(PHASE[s.kind]));
    const step = writeStep(own(s, policy), valuesOf(s), stages, policy);
    return { ...step, number: i + 1, phase: nth(STEP_PHASES, phase), now };
  });
  return {
    status: 'ready',
    name: fillPlaceholders(procedure.name, valuesAt(stages, { stage: 0, whole: true }, policy, design).texts),
    ...(saysEffects(steps) ? {} : { unproved: true as const }),
    steps: written,
    gates: writtenGates(gates, steps, valuesOf),
    shapedBy: shapedBy(steps),
  };
}

/** Gates with their reasons written from the stage of the step that waits; what types a sense is left out. */
function writtenGates(
  gates: readonly Gate[],
  steps: readonly PlacedStep[],
  valuesOf: (s: PlacedStep) => Values,
): Gate[] {
  const byId = new Map(steps.map((s) => [s.id, s]));
  return gates.map((g) => {
    const step = byId.get(g.after);
    const why = typedSense(g.why) || !step ? '' : fillPlaceholders(g.why, valuesOf(step).texts);
    return { ...g, why };
  });
}

/** Substitutes for locking tools are on the sheet only where the house accepts them. */
function own(s: PlacedStep, policy: Policy): PlacedStep {
  if (!s.tool?.instead || policy.chosen['locking_tools'] === 'substitutes') return s;
  return { ...s, tool: { name: s.tool.name } };
}

const PHASE: Record<StepKind, StepPhase> = {
  prepare: 'ready',
  position: 'ready',
  lock: 'ready',
  slacken: 'off',
  remove: 'off',
  clean: 'clean',
  inspect: 'clean',
  fit: 'build',
  align: 'build',
  tension: 'build',
  torque: 'build',
  release: 'build',
  rotate: 'check',
  verify: 'check',
  close: 'close',
};

/** What a step's texts take from the house's answers, by the name between braces. */
const FROM_RULES: Readonly<Record<string, string>> = { turns: 'turns', tolerance: 'marks' };

function shapedBy(steps: readonly PlacedStep[]): string[] {
  const used = new Set<string>();
  for (const s of steps) {
    if (s.rule) used.add(s.rule[0]);
    if (s.tool?.instead) used.add('locking_tools');
    if (s.torque) used.add('wrench');
    const text = JSON.stringify(s);
    for (const [name, rule] of Object.entries(FROM_RULES)) if (text.includes(`{${name}}`)) used.add(rule);
  }
  return POLICY_QUESTIONS.map((c: PolicyQuestion) => c.key).filter((k) => used.has(k));
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

type Written = Omit<SheetStep, 'number' | 'phase' | 'now'>;

function writeStep(step: PlacedStep, values: Values, stages: readonly Stage[], policy: Policy): Written {
  let unsafe = false;
  const write = (text: string): string | undefined => {
    if (typedSense(text)) {
      unsafe = true;
      return undefined;
    }
    return capital(fillPlaceholders(text, values.texts)).trim();
  };
  const { proof, torque, torqueNm, ...rest } = step;
  const out: Written = { ...rest, text: write(step.text) ?? '' };
  if (step.undo !== undefined) out.undo = fillPlaceholders(step.undo, values.texts);
  for (const field of ['fault', 'caution', 'before', 'ask'] as const) {
    const text = step[field];
    if (text === undefined) continue;
    const made = write(text);
    if (made === undefined) Reflect.deleteProperty(out, field);
    else out[field] = made;
  }
  if (step.tool)
    out.tool = {
      name: write(step.tool.name) ?? '',
      ...(step.tool.instead
        ? {
            instead: step.tool.instead.map((x) => ({ name: write(x.name) ?? '', risk: write(x.risk) ?? '' })),
          }
        : {}),
    };
  const plan = torque ? readPlan(torque.stages) : undefined;
  const shown = typeof proof === 'string' ? { by: 'look' as const, text: proof } : proof;
  const text = shown && write(shown.text);
  if (shown && text !== undefined)
    out.proof = {
      by: shown.by,
      text,
      asks: ('asks' in shown ? (shown.asks ?? []) : []).map((a) =>
        withTorque(askFor(a, values, stages, step.spot), plan?.ok ? plan.value : [], policy),
      ),
    };
  if (torque && plan?.ok)
    out.torque = {
      ...torque,
      ...countOf(step, stages),
      fastener: fillPlaceholders(torque.fastener, values.texts),
      stages: plan.value,
    };
  else if (torqueNm !== undefined) out.torque = { fastener: '', stages: [oneTorque(torqueNm)] };
  return unsafe ? { ...out, unsafe: true } : out;
}

const countOf = (step: PlacedStep, stages: readonly Stage[]): { count?: number } => {
  const count = fastenersOf(step, stages);
  return count === undefined ? {} : { count };
};

const oneTorque = (nm: number): TorqueStage => ({
  kind: 'torque',
  nm,
  printed: { value: nm, unit: 'N·m', nm, half: 0.5 },
});

const UNIT: Record<Exclude<Quantity, 'reading'>, string> = {
  length: 'mm',
  angle: '°',
  torque: 'N·m',
  temperature: '°C',
  difference: 'K',
  count: '',
  minutes: 'min',
};

/** A torque is asked within what a wrench may be off the step's own. */
function withTorque(ask: AskFor, stages: readonly TorqueStage[], policy: Policy): AskFor {
  const set = stages.find((s) => s.kind === 'torque');
  if (ask.quantity !== 'torque' || ask.from !== undefined || set?.kind !== 'torque') return ask;
  const off = policy.wrenchWithin;
  return { ...ask, from: set.nm * (1 - off), to: set.nm * (1 + off) };
}

function askFor(ask: Ask, values: Values, stages: readonly Stage[], spot: StepSpot): AskFor {
  const { from, to, quantity, ...rest } = ask;
  const bound = (b: Ask['from']) => (typeof b === 'string' ? values.numbers[b.slice(1, -1)] : b);
  const wording = capital(fillPlaceholders(ask.wording, values.texts));
  if (quantity !== 'reading') {
    const [low, high] = [bound(from), bound(to)];
    return {
      ...rest,
      wording,
      quantity,
      unit: UNIT[quantity],
      ...(low === undefined ? {} : { from: low }),
      ...(high === undefined ? {} : { to: high }),
    };
  }
  const { layout } = nth(stages, spot.stage);
  const own = spot.wheel === undefined ? undefined : layout.wheels[spot.wheel]?.carrier;
  const carrier = own ?? layout.wheels[tensionerIndex(layout)]?.carrier;
  if (!carrier) return { ...rest, wording, quantity: 'angle', unit: '°' };
  const { window } = limitsOf(carrier);
  const unit = readingUnit(carrier);
  return {
    ...rest,
    wording,
    quantity: unit === 'mm' ? 'length' : 'angle',
    unit,
    from: window.from,
    to: window.to,
  };
}

/** What is looked at and counted before a drive is passed: links while they can be counted, turns, tools, marks. */
export const verifyingSteps = (steps: readonly SheetStep[]): SheetStep[] =>
  steps.filter(
    (s) =>
      s.kind === 'rotate' ||
      s.kind === 'verify' ||
      (s.phase === 'build' && s.on === 'loop' && s.proof?.by === 'count'),
  );
