import { must, nth } from '@core/quantity/must';
import { driveHas, hasAll } from '@core/drive/drive-has';
import { rowOf } from '@core/drive/layout';
import type { Stage } from '@core/drive/stages';
import { type GateRow, isUse, type StepPhase, type Procedure, type StepRow, type Use } from './procedure';

/** Where a step of a block stands: which stage of the drive, and which of its wheels. */
export type StepSpot = {
  stage: number;
  wheel?: number;
  /** It is of the whole drive, not of this stage alone. */
  whole?: true;
};
/** A step of a procedure as a drive has it: blocks laid out, parameters filled in. */
export type PlacedStep = Omit<StepRow, 'id'> & {
  /** "lock", "ready.cold", "chain.pin.left-small": use of a block, step, and the driver or wheel it is laid at. */
  id: string;
  spot: StepSpot;
};
export type Gate = { before: string; after: string; why: string; fault?: string };
export type ExpandError =
  | { code: 'block_unknown'; at: string; block: string }
  | { code: 'block_loop'; at: string; block: string }
  | { code: 'param_missing'; at: string; block: string; param: string }
  | { code: 'step_twice'; at: string }
  /** A gate names a step that the procedure does not have at all. */
  | { code: 'gate_step_unknown'; at: string; step: string }
  /** The procedure has the step, this drive does not, and the gate does not say what it needs. */
  | { code: 'gate_step_lacking'; at: string; step: string }
  | { code: 'gate_cycle'; at: string; steps: string[] };
export type Expanded = { steps: PlacedStep[]; gates: Gate[]; errors: ExpandError[] };

/** Answers of the house to what practitioners disagree on, by question. */
export type Chosen = Readonly<Record<string, string>>;

type Frame = {
  has: ReadonlySet<string>;
  spot: StepSpot;
  /** Before the id of a step, and behind it. */
  prefix: string;
  suffix: string;
  params: Readonly<Record<string, string>>;
  phase?: StepPhase;
};

/**
 * A procedure on a drive: its own steps and those of its blocks that this drive and this house have, in the order written,
 * with every gate between two of them. Faults are listed, and what they touch is left out.
 */
export function expandProcedure(
  procedure: Procedure,
  blocks: ReadonlyMap<string, Procedure>,
  stages: readonly Stage[],
  chosen: Chosen,
): Expanded {
  const errors: ExpandError[] = [];
  const steps: PlacedStep[] = [];
  const gates: Gate[] = [];
  const applies = (x: { needs?: string[] | undefined; rule?: [string, string] | undefined }, f: Frame) =>
    hasAll(x.needs, f.has) && (x.rule === undefined || chosen[x.rule[0]] === x.rule[1]);

  const lay = (p: Procedure, f: Frame, trail: readonly string[]): ReadonlyMap<string, string[]> => {
    /** Ids of the drive's steps by their names in this procedure; empty for those that it lacks. */
    const named = new Map<string, string[]>();
    const put = (name: string, ids: readonly string[]) => {
      const list = named.get(name);
      if (list) list.push(...ids);
      else named.set(name, [...ids]);
    };
    for (const row of p.steps) {
      if (isUse(row)) use(row, f, [...trail, p.id], put);
      else if (!applies(row, f)) put(row.id, []);
      // One id may stand for several wordings, of which a drive and a house have one.
      else if (named.get(row.id)?.length) errors.push({ code: 'step_twice', at: `${p.id} ${row.id}` });
      else {
        const id = `${f.prefix}${row.id}${f.suffix}`;
        const phase = row.phase ?? f.phase;
        const step = { ...fill(row, f.params), id, spot: f.spot, ...(phase ? { phase } : {}) };
        // A parameter may bring several stages of a torque, parted by semicolons.
        if (step.torque)
          step.torque = { ...step.torque, stages: step.torque.stages.flatMap((t) => t.split(/;\s*/)) };
        steps.push(step);
        put(row.id, [id]);
      }
    }
    for (const g of p.gates ?? []) if (applies(g, f)) gate(fill(g, f.params), named, p.id);
    return named;
  };

  const use = (row: Use, f: Frame, trail: readonly string[], put: (n: string, ids: string[]) => void) => {
    const name = row.as ?? row.use;
    const at = `${must(trail.at(-1))} ${name}`;
    const block = blocks.get(row.use);
    if (!block?.block) {
      errors.push({ code: 'block_unknown', at, block: row.use });
      return;
    }
    if (trail.includes(block.id)) {
      errors.push({ code: 'block_loop', at, block: row.use });
      return;
    }
    const given = Object.fromEntries(
      Object.entries(row.with ?? {}).map(([k, v]) => [k, fillText(v, f.params)]),
    );
    const missing = (block.params ?? []).find((k) => !Object.hasOwn(given, k));
    if (missing !== undefined) {
      errors.push({ code: 'param_missing', at, block: row.use, param: missing });
      return;
    }
    const [prefix, called] = row.inline
      ? [f.prefix, (n: string) => n]
      : [`${f.prefix}${name}.`, (n: string) => `${name}.${n}`];
    const frames = spots(row, f, stages).filter((x) => applies(row, x));
    const phase = row.phase ?? f.phase;
    let before: { row: number; last: string } | undefined;
    for (const frame of frames) {
      const from = steps.length;
      const mine = { ...frame, prefix, params: given, ...(phase ? { phase } : {}) };
      for (const [step, ids] of lay(block, mine, trail)) put(called(step), ids);
      // A row waits for what is in front of it, or behind it.
      if (row.order === undefined || steps.length === from) continue;
      const at = rowOf(nth(stages, frame.spot.stage).layout);
      if (before && before.row !== at)
        gates.push({ before: before.last, after: nth(steps, from).id, why: row.why ?? '' });
      before = { row: at, last: must(steps.at(-1)).id };
    }
    // What the block would have had elsewhere is known by name all the same.
    if (frames.length === 0) for (const n of namesOf(block, blocks, trail)) put(called(n), []);
  };

  const gate = (g: GateRow, named: ReadonlyMap<string, string[]>, procedure: string) => {
    const afters = typeof g.after === 'string' ? [g.after] : g.after;
    for (const after of afters) {
      const at = `${procedure} ${g.before} → ${after}`;
      const ends = [g.before, after].map((name) => {
        const ids = named.get(name);
        if (ids === undefined) errors.push({ code: 'gate_step_unknown', at, step: name });
        else if (ids.length === 0) errors.push({ code: 'gate_step_lacking', at, step: name });
        return ids ?? [];
      });
      for (const a of nth(ends, 0))
        for (const b of nth(ends, 1))
          if (a !== b)
            gates.push({ before: a, after: b, why: g.why, ...(g.fault ? { fault: g.fault } : {}) });
    }
  };

  lay(
    procedure,
    { has: driveHas(stages), spot: { stage: 0, whole: true }, prefix: '', suffix: '', params: {} },
    [],
  );
  const cycle = cycleOf(steps, gates);
  if (cycle) errors.push({ code: 'gate_cycle', at: procedure.id, steps: cycle });
  return { steps, gates, errors };
}

/** Names of all steps that a block has on any drive. */
function namesOf(
  block: Procedure,
  blocks: ReadonlyMap<string, Procedure>,
  trail: readonly string[],
): string[] {
  return block.steps.flatMap((row) => {
    if (!isUse(row)) return [row.id];
    const inner = blocks.get(row.use);
    if (!inner || trail.includes(inner.id)) return [];
    return namesOf(inner, blocks, [...trail, inner.id]).map((n) =>
      row.inline ? n : `${row.as ?? row.use}.${n}`,
    );
  });
}

/** Where a block is laid: here, or at every stage, cam or eccentric idler. */
function spots(row: Use, f: Frame, stages: readonly Stage[]): Frame[] {
  if (row.each === undefined) return [f];
  const out: Frame[] = [];
  stages.forEach(({ layout }, stage) => {
    const has = driveHas([nth(stages, stage)]);
    if (row.each === 'stage') {
      out.push({ ...f, has, spot: { stage }, suffix: `${f.suffix}.${nth(layout.wheels, 0).id}` });
      return;
    }
    const role = row.each;
    layout.wheels.forEach((w, wheel) => {
      if (w.role === role && (role === 'cam' || w.carrier))
        out.push({ ...f, has, spot: { stage, wheel }, suffix: `${f.suffix}.${w.id}` });
    });
  });
  if (row.inward) out.reverse();
  if (row.order === undefined) return out;
  const sign = row.order === 'front' ? 1 : -1;
  const at = (x: Frame) => rowOf(nth(stages, x.spot.stage).layout);
  return out.sort((a, b) => sign * (at(a) - at(b)));
}

const fillText = (text: string, params: Readonly<Record<string, string>>): string =>
  text.replace(/\{(\w+)\}/g, (whole, k: string) => (Object.hasOwn(params, k) ? must(params[k]) : whole));

/** A row with its block's parameters filled in, wherever a text stands. */
function fill<T>(value: T, params: Readonly<Record<string, string>>): T {
  if (typeof value === 'string') return fillText(value, params) as T;
  if (Array.isArray(value)) return value.map((v: unknown) => fill(v, params)) as T;
  if (value === null || typeof value !== 'object') return value;
  return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, fill(v as unknown, params)])) as T;
}

/** Steps that wait for each other in a circle, or undefined. Kahn's order, then a walk among what is left. */
function cycleOf(steps: readonly { id: string }[], gates: readonly Gate[]): string[] | undefined {
  const waits = new Map(steps.map((s) => [s.id, new Set<string>()]));
  for (const g of gates) waits.get(g.after)?.add(g.before);
  const free = [...waits].filter(([, w]) => w.size === 0).map(([id]) => id);
  while (free.length > 0) {
    const done = must(free.pop());
    waits.delete(done);
    for (const [id, w] of waits) if (w.delete(done) && w.size === 0) free.push(id);
  }
  const [start] = waits.keys();
  if (start === undefined) return undefined;
  const way: string[] = [];
  let at = start;
  while (!way.includes(at)) {
    way.push(at);
    at = must([...must(waits.get(at))].find((x) => waits.has(x)));
  }
  return [...way.slice(way.indexOf(at)), at].reverse();
}
