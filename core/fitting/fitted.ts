import type { When } from '@core/catalogue/procedure';
import type { Fact } from '@core/facts/fact';
import { has, numberOf, standing, textOf, thingsWith } from '@core/facts/read';
import { OBSERVABLES } from '@core/facts/registry';
import type { State } from '@core/facts/state';
import { nameOfId } from '@core/facts/thing';
import type { Policy } from '@core/policy/policy';
import { type BackAnswer, type Broken, brokenGates, type Performed, wayBack } from './order';
import type { AskFor, Sheet, SheetStep } from './sheet';

/** The fact's thing of a step. */
export const stepThing = (id: string): string => `step:${id}`;
/** Observable under which a figure of a step is filed. */
export const askKey = (a: Pick<AskFor, 'quantity'>): string => `step.${a.quantity}`;

/** Seconds in a minute: figures asked in minutes are kept in the base unit of time. */
const MINUTE = 60;
/** A figure as it was asked, in the unit in which its fact is kept; and back. */
export const inBase = (a: Pick<AskFor, 'quantity'>, value: number): number =>
  a.quantity === 'minutes' ? value * MINUTE : value;
const asAsked = (a: Pick<AskFor, 'quantity'>, base: number): number =>
  a.quantity === 'minutes' ? base / MINUTE : base;

/** False for a figure outside the plausible range of its observable: it was mistyped. */
export function isPossible(a: Pick<AskFor, 'quantity'>, value: number): boolean {
  const type = OBSERVABLES.find((o) => o.key === askKey(a))?.type;
  const base = inBase(a, value);
  return type?.kind === 'number' || type?.kind === 'count' ? base >= type.min && base <= type.max : false;
}

/** What is known of one step: how it went, its place in the order done, figures by the id of what was asked, tool. */
export type StepSaid = {
  state?: 'done' | 'skipped' | 'wrong';
  place?: number;
  values: Readonly<Record<string, number>>;
  tool?: string;
  note?: string;
  facts: readonly string[];
};
/** An installation fault that what was told of the fitting shows, and where. `other`: the step whose order was broken. */
export type FaultShown = { code: string; step: string; how: When; other?: string; facts: readonly string[] };
/** What cannot be, or does not agree with the sheet. */
export type Oddity =
  | { code: 'outside'; step: string; ask: AskFor; value: number; facts: readonly string[] }
  | { code: 'too_short'; step: string; minutes: number; least: number; facts: readonly string[] }
  | { code: 'substitute'; step: string; tool: string; accepted: boolean; facts: readonly string[] };

export type Fitted = {
  said: ReadonlyMap<string, StepSaid>;
  performed: Performed;
  broken: readonly Broken[];
  faults: readonly FaultShown[];
  odd: readonly Oddity[];
  /** Steps of which nothing is known, once a sheet has come back: evidence of nothing. */
  unconfirmed: readonly string[];
  back: BackAnswer;
};

/** What the standing facts say of a fitting, against its sheet. Undefined while nothing was said of any step. */
export function fittedAs(sheet: Sheet, state: State, policy: Policy): Fitted | undefined {
  const told = new Set(thingsWith(state, 'step.done').map(nameOfId));
  if (told.size === 0) return undefined;
  const said = new Map<string, StepSaid>();
  for (const s of sheet.steps) if (told.has(s.id)) said.set(s.id, saidOf(s, state));
  const performed = performedOf(sheet, said);
  const broken = brokenGates(performed, sheet.gates);
  const odd = sheet.steps.flatMap((s) => oddOf(s, said.get(s.id), policy));
  return {
    said,
    performed,
    broken,
    odd,
    faults: faultsOf(sheet, said, broken, odd),
    unconfirmed: has(state, 'fit.sheet_back')
      ? sheet.steps.filter((s) => !said.has(s.id)).map((s) => s.id)
      : [],
    back: wayBack(sheet.steps, sheet.gates, performed, broken, amiss(sheet, said)),
  };
}

/**
 * Steps from which what was done otherwise has to be made good: the step itself; where a proof after the turns fails, the
 * step that locks the shafts, since all is taken off and begun again there. A figure or a tool that is off is no such step.
 */
function amiss(sheet: Sheet, said: ReadonlyMap<string, StepSaid>): ReadonlySet<string> {
  const lock = sheet.steps.find((s) => s.now.lockedCrank || s.now.lockedCams)?.id;
  const out = new Set<string>();
  for (const s of sheet.steps) {
    if (said.get(s.id)?.state !== 'wrong' || s.faults?.wrong === undefined) continue;
    if (s.phase === 'check' && s.faults.wrong === 'TIM-OFF') {
      if (lock !== undefined) out.add(lock);
    } else out.add(s.id);
  }
  return out;
}

function saidOf(step: SheetStep, state: State): StepSaid {
  const about = stepThing(step.id);
  const facts: string[] = [];
  const note = (f: Fact | undefined) => {
    if (f) facts.push(f.id);
    return f?.value;
  };
  const done = note(standing(state, 'step.done', about));
  const place = note(standing(state, 'step.place', about));
  const tool = note(standing(state, 'step.tool', about));
  const remark = textOf(state, 'step.note', about);
  const values: Record<string, number> = {};
  for (const a of step.proof?.asks ?? []) {
    const f = standing(state, askKey(a), about);
    const v = numberOf(state, askKey(a), about);
    if (f && v !== undefined) {
      facts.push(f.id);
      values[a.id] = asAsked(a, v);
    }
  }
  return {
    ...(done === 'done' || done === 'skipped' || done === 'wrong' ? { state: done } : {}),
    ...(typeof place === 'number' ? { place } : {}),
    ...(typeof tool === 'string' && tool !== '' ? { tool } : {}),
    ...(remark === undefined ? {} : { note: remark }),
    values,
    facts,
  };
}

/**
 * The order in which the steps were done: the sheet's, but for steps whose own place was told, which stand there. A step
 * done otherwise was done.
 */
export function performedOf(
  sheet: Pick<Sheet, 'steps'>,
  said: ReadonlyMap<string, Pick<StepSaid, 'state' | 'place'>>,
): Performed {
  const done: string[] = [];
  const moved: { id: string; place: number }[] = [];
  const skipped = new Set<string>();
  for (const { id } of sheet.steps) {
    const s = said.get(id);
    if (s?.state === 'skipped') skipped.add(id);
    else if (s?.state && s.place !== undefined) moved.push({ id, place: s.place });
    else if (s?.state) done.push(id);
  }
  for (const m of moved.sort((a, b) => a.place - b.place)) done.splice(m.place - 1, 0, m.id);
  return { done, skipped };
}

/** True for a figure within its bounds, and a whole multiple of what it has to be one of. */
const isRight = (ask: Pick<AskFor, 'from' | 'to' | 'every'>, value: number): boolean =>
  value >= (ask.from ?? -Infinity) &&
  value <= (ask.to ?? Infinity) &&
  (ask.every === undefined || value % ask.every === 0);

function oddOf(step: SheetStep, said: StepSaid | undefined, policy: Policy): Oddity[] {
  if (!said) return [];
  const { facts } = said;
  const out: Oddity[] = [];
  for (const ask of step.proof?.asks ?? []) {
    const value = said.values[ask.id];
    if (value === undefined || isRight(ask, value)) continue;
    if (ask.quantity === 'minutes')
      out.push({ code: 'too_short', step: step.id, minutes: value, least: ask.from ?? 0, facts });
    else out.push({ code: 'outside', step: step.id, ask, value, facts });
  }
  if (said.tool !== undefined && said.tool !== step.tool?.name) {
    const accepted = policy.chosen['locking_tools'] === 'substitutes';
    out.push({ code: 'substitute', step: step.id, tool: said.tool, accepted, facts });
  }
  return out;
}

function faultsOf(
  sheet: Sheet,
  said: ReadonlyMap<string, StepSaid>,
  broken: readonly Broken[],
  odd: readonly Oddity[],
): FaultShown[] {
  const byId = new Map(sheet.steps.map((s) => [s.id, s]));
  const out: FaultShown[] = [];
  const put = (f: Omit<FaultShown, 'code'> & { code: string | undefined }) => {
    if (f.code !== undefined && !out.some((o) => o.code === f.code && o.step === f.step))
      out.push({ ...f, code: f.code });
  };
  for (const [step, s] of said) {
    const faults = byId.get(step)?.faults;
    if (s.state === 'skipped') put({ code: faults?.skipped, step, how: 'skipped', facts: s.facts });
    if (s.state === 'wrong') put({ code: faults?.wrong, step, how: 'wrong', facts: s.facts });
  }
  for (const { gate, how } of broken) {
    if (how === 'skipped') {
      const code = byId.get(gate.before)?.faults?.skipped ?? gate.fault;
      put({ code, step: gate.before, how, facts: said.get(gate.before)?.facts ?? [] });
      continue;
    }
    const facts = [...(said.get(gate.after)?.facts ?? []), ...(said.get(gate.before)?.facts ?? [])];
    const own = byId.get(gate.after)?.faults?.reversed;
    put({ code: own ?? gate.fault, step: gate.after, other: gate.before, how: 'reversed', facts });
  }
  for (const o of odd) {
    const faults = byId.get(o.step)?.faults;
    if (o.code === 'outside') put({ code: faults?.wrong, step: o.step, how: 'wrong', facts: o.facts });
    if (o.code === 'too_short') put({ code: faults?.time, step: o.step, how: 'time', facts: o.facts });
    if (o.code === 'substitute' && !o.accepted)
      put({ code: faults?.wrong, step: o.step, how: 'wrong', facts: o.facts });
  }
  return out;
}
