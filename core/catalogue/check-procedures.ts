import { type Stage, stagesOf } from '@core/drive/stages';
import { CHOICES, RULES } from '@core/house/rules';
import { type Chosen, expandProcedure, type ExpandError } from './expand-procedure';
import type { Pack } from './pack';
import type { AnyTable, IssueReason, PackIssue } from './pack-issue';
import { fillable } from './placeholders';
import { isUse, type Procedure, type StepRow } from './procedure';
import { readPlan } from './torque-plan';

/** The house as it ships, and with every answer the other one. */
const ANSWERS: readonly Chosen[] = [
  RULES.chosen,
  Object.fromEntries(CHOICES.map((c) => [c.key, c.options.find((o) => o.key !== c.default)!.key])),
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
  for (const v of pack.variants) {
    const p = v.procedure === undefined ? undefined : blocks.get(v.procedure);
    if (!p || v.layout === undefined) continue;
    if (!drives.has(v.layout)) {
      const found = stagesOf(pack.layouts, v.layout);
      drives.set(v.layout, found.ok ? found.value : []);
    }
    const stages = drives.get(v.layout)!;
    if (stages.length === 0) continue;
    for (const answers of ANSWERS) {
      const { steps, errors } = expandProcedure(p, blocks, stages, answers);
      for (const e of errors)
        report(index.get(e.at.split(' ')[0]!) ?? index.get(p.id)!, placeOf(e), reasonOf(e));
      for (const s of steps) {
        if (!s.torque) continue;
        const plan = readPlan(s.torque.stages);
        if (!plan.ok) report(index.get(p.id)!, s.id, plan.error);
      }
    }
  }
  return issues;
}

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
