import { must, nth } from '@core/quantity/must';
import { driveHas } from '@core/drive/drive-has';
import { rowOf } from '@core/drive/layout';
import { type Stage, stagesOf } from '@core/drive/stages';
import { POLICY_QUESTIONS, SHIPPED_POLICY } from '@core/policy/policy';
import { type Chosen, expandProcedure, type ExpandError } from './expand-procedure';
import type { Pack } from './pack';
import type { AnyTable, IssueReason, PackIssue } from './pack-issue';
import { fillable } from './placeholders';
import { isUse, type Procedure, type StepRow } from './procedure';
import { brokenLaws } from './sheet-laws';
import { orderSteps } from './step-order';
import { readPlan } from './torque-plan';

const other = (c: (typeof POLICY_QUESTIONS)[number]) => must(c.options.find((o) => o.key !== c.default)).key;
/** The house as it ships, with every answer the other one, and with each by itself. */
export const POLICIES: readonly Chosen[] = [
  SHIPPED_POLICY.chosen,
  Object.fromEntries(POLICY_QUESTIONS.map((c) => [c.key, other(c)])),
  ...POLICY_QUESTIONS.map((c) => ({ ...SHIPPED_POLICY.chosen, [c.key]: other(c) })),
];

type Report = (index: number, column: string, reason: IssueReason) => void;

/**
 * What the schema of a procedure cannot see: blocks and gates that lead nowhere, circles, torques that cannot be read or
 * contradict themselves; each looked at on every drive that the procedure is for, as the house answers by default and
 * otherwise. The same fault of a block is told once.
 */
export function checkProcedures(pack: Pack, rowOf: (table: AnyTable, index: number) => number): PackIssue[] {
  const issues: PackIssue[] = [];
  const seen = new Set<string>();
  const index = new Map(pack.procedures.map((p, i) => [p.id, i]));
  const report: Report = (i, column, reason) => {
    const key = JSON.stringify([i, column, reason]);
    if (seen.has(key)) return;
    seen.add(key);
    issues.push({ table: 'procedures', row: rowOf('procedures', i), column, reason });
  };
  pack.procedures.forEach((p, i) => checkTexts(p, i, report));
  const blocks = new Map(pack.procedures.map((p) => [p.id, p]));
  const drives = new Map<string, readonly Stage[]>();
  const judged = new Set<string>();
  for (const v of pack.variants) {
    const p = v.procedure === undefined ? undefined : blocks.get(v.procedure);
    if (!p || v.layout === undefined) continue;
    if (!drives.has(v.layout)) {
      const found = stagesOf(pack.layouts, v.layout);
      drives.set(v.layout, found.ok ? found.value : []);
    }
    const stages = must(drives.get(v.layout));
    if (stages.length === 0) continue;
    const kind = `${p.id} ${shapeOf(stages)}`;
    if (judged.has(kind)) continue;
    judged.add(kind);
    for (const answers of POLICIES) {
      const { steps, gates, errors } = expandProcedure(p, blocks, stages, answers);
      for (const e of errors)
        report(index.get(nth(e.at.split(' '), 0)) ?? must(index.get(p.id)), placeOf(e), reasonOf(e));
      if (errors.length === 0)
        for (const { law, step, thing } of brokenLaws(orderSteps(steps, gates) ?? steps, stages))
          report(must(index.get(p.id)), step, { code: 'law_broken', law, thing });
      for (const s of steps) {
        if (!s.torque) continue;
        const plan = readPlan(s.torque.stages);
        if (!plan.ok) report(must(index.get(p.id)), s.id, plan.error);
      }
    }
  }
  return issues;
}

/** What of a drive its steps depend on: thousands of designs of one shape are judged once. */
const shapeOf = (stages: readonly Stage[]): string =>
  JSON.stringify(
    stages.map((s) => [
      [...driveHas([s])].sort(),
      rowOf(s.layout),
      s.on,
      s.layout.wheels.map((w) => [w.id, w.role, w.carrier !== undefined]),
    ]),
  );

/** Torques that stand in a text as they are, of blocks that no drive uses as well. */
function checkTexts(p: Procedure, i: number, report: Report): void {
  for (const s of p.steps) {
    if (isUse(s) || !s.torque || s.torque.stages.some((t) => fillable(t))) continue;
    const plan = readPlan(s.torque.stages);
    if (!plan.ok && !p.block) report(i, s.id, plan.error);
  }
}

const placeOf = (e: ExpandError): string => e.at.split(' ').slice(1).join(' ') || e.at;

function reasonOf(e: ExpandError): IssueReason {
  const { at, ...rest } = e;
  void at;
  return rest;
}

/** What of a step, of the catalogue or of a sheet, is read by people. */
type Texts = Pick<StepRow, 'text' | 'fault' | 'caution' | 'before' | 'ask' | 'undo' | 'tool'> & {
  proof?: string | { text: string; asks?: readonly { wording: string }[] | undefined } | undefined;
};

/** Every text of a step that a reader sees. */
export function textsOf(s: Texts): string[] {
  const proof =
    typeof s.proof === 'string'
      ? [s.proof]
      : s.proof
        ? [s.proof.text, ...(s.proof.asks ?? []).map((a) => a.wording)]
        : [];
  const tool = s.tool ? [s.tool.name, ...(s.tool.instead ?? []).flatMap((x) => [x.name, x.risk])] : [];
  return [s.text, s.fault, s.caution, s.before, s.ask, s.undo, ...proof, ...tool].filter(
    (t) => t !== undefined,
  );
}
