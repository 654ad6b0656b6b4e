import { isMarked } from '@core/drive/judge-marks';
import { markPhases } from '@core/drive/phase';
import { solveDrive } from '@core/drive/solve-drive';
import type { Stage } from '@core/drive/stages';
import { numberOf } from '@core/facts/read';
import { wheelThing } from '@core/facts/thing';
import type { Answered, Case, PredictedMark } from './advice';
import { leastTurns } from '@core/house/rules';
import { designsOf, missingDesign, missingEngine } from './missing';

/** Predictions of two designs that differ by less are one, teeth. */
const SAME = 0.02;

/** What a right fitting shows at every mark of a design, crank at its own mark. */
export function predictedMarks(stages: readonly Stage[]): PredictedMark[] {
  const out: PredictedMark[] = [];
  for (const { layout } of stages) {
    const solved = solveDrive(layout);
    if (!solved.ok) continue;
    for (const p of markPhases(layout, solved.value)) {
      const w = layout.wheels[p.wheel]!;
      const about = wheelThing(w.id);
      if (isMarked(w) && !out.some((m) => m.about === about))
        out.push({ about, name: w.name, teeth: p.teeth });
    }
  }
  return out;
}

/** Turns by hand before marks count: what the procedure asks for, and never fewer than the house does. */
const turnsWanted = ({ a }: Case): number =>
  leastTurns(a.rules, Math.max(0, ...(a.sheet?.steps ?? []).map((s) => s.turns ?? 0)));

/** Are these marks right: go, no go, or go so far, with what is still to be seen and what it must show. */
export function adviseMarks(c: Case): Answered {
  const { a, state } = c;
  if (!a.engine) return missingEngine();
  const designs = designsOf(c).map((d) => predictedMarks(d.stages));
  const predicted = designs[0] ?? [];
  if (predicted.length === 0)
    return { standing: 'cannot', lead: { code: 'no_marks' }, because: [], missing: [] };
  const agreed = designs.every(
    (d) =>
      d.length === predicted.length &&
      d.every((m, i) => m.about === predicted[i]!.about && Math.abs(m.teeth - predicted[i]!.teeth) < SAME),
  );
  const marks = a.drive?.marks ?? a.openMarks;
  const seen = new Set(marks?.marks.map((m) => m.about));
  const turns = numberOf(state, 'fit.turned');
  const least = turnsWanted(c);
  const missing = [
    ...(agreed ? [] : missingDesign(c)),
    ...predicted.filter((m) => !seen.has(m.about)).map((m) => ({ key: 'mark', about: m.about, minutes: 2 })),
    ...(turns === undefined || turns < least ? [{ key: 'fit.turned', minutes: 1 }] : []),
  ];
  const common = { missing, keys: ['mark', 'fit.turned'], draw: 'marks' as const };
  const shown = agreed ? [{ code: 'predicted' as const, marks: predicted }] : [];
  if (!marks)
    return {
      standing: 'open',
      lead: { code: 'marks_unseen', of: predicted.length },
      because: shown,
      ...common,
    };
  const wrong = marks.marks.filter((m) => m.verdict.verdict !== 'as_predicted');
  const turned = turns !== undefined && turns >= least;
  const standing = { go: turned ? 'yes' : 'if', so_far: 'if', no_go: 'no', wait: 'cannot' } as const;
  return {
    standing: standing[marks.go],
    lead: { code: 'marks', go: marks.go, seen: marks.marks.length, of: marks.of },
    because: [
      ...(wrong.length > 0 ? [{ code: 'judged' as const, marks: wrong }] : shown),
      ...(marks.go !== 'no_go' && !turned ? [{ code: 'turn_first' as const, turns, least }] : []),
    ],
    ...common,
  };
}
