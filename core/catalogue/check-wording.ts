import { must } from '@core/quantity/must';
import { driveHas } from '@core/drive/drive-has';
import { typedSense } from '@core/drive/sense';
import { type Stage, stagesOf } from '@core/drive/stages';
import type { Feature, Pack } from './pack';
import type { AnyTable, IssueReason, PackIssue } from './pack-issue';
import { textsOf } from './check-procedures';
import { unknownPlaceholders } from './placeholders';
import { isUse } from './procedure';

/**
 * What a pack may not leave to the reader: a feature's value that can be read as two measures, a procedure that fixes a
 * turning sense, names something that no layout can fill in, or belongs to another kind of drive. Asked of packs that come
 * in; a pack that travels inside an older case file is taken as it was.
 */
export function checkWording(pack: Pack, rowOf: (table: AnyTable, index: number) => number): PackIssue[] {
  const issues: PackIssue[] = [];
  const report = (table: AnyTable, index: number, column: string, reason: IssueReason) =>
    issues.push({ table, row: rowOf(table, index), column, reason });
  pack.features.forEach((f, i) => {
    for (const value of ambiguousValues(f))
      report('features', i, 'options', { code: 'two_readings', value, measures: f.measures });
  });
  pack.procedures.forEach((p, i) => {
    const look = (column: string, text: string) => {
      const typed = typedSense(text);
      if (typed !== undefined) report('procedures', i, column, { code: 'sense_typed', typed });
      for (const name of unknownPlaceholders(text, p.params))
        report('procedures', i, column, { code: 'unknown_placeholder', name });
    };
    for (const g of p.gates ?? []) look(`gate after ${g.before}`, g.why);
    for (const step of p.steps) {
      const id = isUse(step) ? (step.as ?? step.use) : step.id;
      for (const text of isUse(step) ? Object.values(step.with ?? {}) : textsOf(step)) look(id, text);
    }
  });
  const byId = new Map(pack.procedures.map((p) => [p.id, p]));
  const stages = new Map<string, readonly Stage[]>();
  pack.variants.forEach((v, i) => {
    const procedure = v.procedure === undefined ? undefined : byId.get(v.procedure);
    if (!procedure?.for || v.layout === undefined) return;
    if (!stages.has(v.layout)) {
      const found = stagesOf(pack.layouts, v.layout);
      stages.set(v.layout, found.ok ? found.value : []);
    }
    const has: ReadonlySet<string> = driveHas(must(stages.get(v.layout)));
    const lacks = procedure.for.filter((need) => !has.has(need));
    if (lacks.length > 0)
      report('variants', i, 'procedure', { code: 'other_kind_of_drive', procedure: procedure.id, lacks });
  });
  return issues;
}

const FIGURE = /\d+(?:[.,]\d+)?\s*(?:mm\b|")/i;
const THREAD = /\bM\s?\d/;

/** Values with a figure that could be another of a thing's measures: "8 mm" of a bolt is a thread, a key or a head. */
export function ambiguousValues(f: Pick<Feature, 'measures' | 'options'>): string[] {
  return f.options
    .filter(({ key, wording }) => {
      const thread = THREAD.test(wording);
      if (f.measures === 'thread') return FIGURE.test(wording) && !thread;
      if (f.measures === undefined) return FIGURE.test(wording) || (/^m\d+$/i.test(key) && !thread);
      return thread;
    })
    .map((o) => o.wording);
}
