import { nth } from '@core/quantity/must';
import { predictedPhases } from '@core/examination/found-drive';
import { isMarked } from '@core/drive/judge-marks';
import type { Stage } from '@core/drive/stages';
import { numberOf } from '@core/facts/read';
import type { State } from '@core/facts/state';
import { wheelThing } from '@core/facts/thing';
import type { AnsweredQuestion, Case, PredictedMark } from './advice';
import { leastTurns } from '@core/policy/policy';
import { linksBetween } from './links';
import { designsOf, missingDesign, missingEngine } from './missing';

/** Predictions of two designs that differ by less are one, teeth. */
const SAME = 0.02;

/** What a right fitting shows at every mark of a design, crank at its own mark. */
export function predictedMarks(stages: readonly Stage[], state: State): PredictedMark[] {
  const out: PredictedMark[] = [];
  for (const { layout } of stages) {
    for (const p of predictedPhases(state, layout)) {
      const w = nth(layout.wheels, p.wheel);
      const about = wheelThing(w.id);
      if (isMarked(w) && !out.some((m) => m.about === about))
        out.push({ about, name: w.name, teeth: p.teeth });
    }
  }
  return out;
}

/** What every one of several designs shows, in the same places; undefined where they differ: none of them is taken for the others. */
export function agreedMarksOf(
  designs: readonly (readonly Stage[])[],
  state: State,
): PredictedMark[] | undefined {
  const [first, ...rest] = designs.map((d) => predictedMarks(d, state));
  if (!first) return undefined;
  const same = rest.every(
    (d) =>
      d.length === first.length &&
      d.every((m, i) => m.about === nth(first, i).about && Math.abs(m.teeth - nth(first, i).teeth) < SAME),
  );
  return same ? first : undefined;
}

/** Turns by hand before marks count: what the procedure asks for, and never fewer than the house does. */
const turnsWanted = ({ a }: Case): number =>
  leastTurns(a.policy, Math.max(0, ...(a.sheet?.steps ?? []).map((s) => s.turns ?? 0)));

/** The shafts were locked at every step that asks for it, by what came back of the sheet. */
function shaftsHeld({ a }: Case): boolean {
  const locks = (a.sheet?.steps ?? []).filter((s) =>
    s.does?.some(([act, thing]) => act === 'locked' && thing === 'cams'),
  );
  return locks.length > 0 && locks.every((s) => a.fitted?.said.get(s.id)?.state === 'done');
}

/** Are these marks right: go, no go, or go so far, with what is still to be seen and what it must show. */
export function adviseMarks(c: Case): AnsweredQuestion {
  const { a, state } = c;
  if (!a.engine) return missingEngine();
  const designs = designsOf(c).map((d) => predictedMarks(d.stages, state));
  const together = agreedMarksOf(
    designsOf(c).map((d) => d.stages),
    state,
  );
  // While they differ, only marks that every design has are asked for.
  const predicted =
    together ?? (designs[0] ?? []).filter((m) => designs.every((d) => d.some((x) => x.about === m.about)));
  if (predicted.length === 0)
    return { standing: 'cannot', lead: { code: 'no_marks' }, because: [], missing: [] };
  const agreed = together !== undefined;
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
  const links = linksBetween(c);
  // A count that is off is no go, whatever the marks look like: they are read from the links.
  if (links && links.teeth !== 0)
    return {
      standing: 'no',
      lead: { code: 'links_off', ...links },
      because: [],
      ...common,
      keys: [...common.keys, 'chain.between'],
    };
  const counted = links ? [{ code: 'links_right' as const, counted: links.counted }] : [];
  const shown = agreed ? [{ code: 'predicted' as const, marks: predicted }] : [];
  if (!marks)
    return {
      standing: 'open',
      lead: { code: 'marks_unseen', of: predicted.length },
      because: [...counted, ...shown],
      ...common,
    };
  const wrong = marks.marks.filter((m) => m.verdict.verdict !== 'as_predicted');
  const turned = turns !== undefined && turns >= least;
  const free = shaftsHeld(c) ? [] : marks.free;
  const standing = {
    go: turned && free.length === 0 ? 'yes' : 'if',
    so_far: 'if',
    no_go: 'no',
    wait: 'cannot',
  } as const;
  return {
    standing: standing[marks.go],
    lead: { code: 'marks', go: marks.go, seen: marks.marks.length, of: marks.of },
    because: [
      ...counted,
      ...(wrong.length > 0 ? [{ code: 'judged' as const, marks: wrong }] : shown),
      ...(marks.go !== 'no_go' && free.length > 0 ? [{ code: 'free_seat' as const, free }] : []),
      ...(marks.go !== 'no_go' && !turned ? [{ code: 'turn_first' as const, turns, least }] : []),
    ],
    ...common,
  };
}
