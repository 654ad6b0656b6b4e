import { must, nth, num } from '@core/quantity/must';
import { Matrix, inverse } from 'ml-matrix';
import { surelyAbove } from '@core/quantity/judge';
import { type Result, err, ok } from '@core/quantity/result';
import type { Layout } from './layout';
import { moveBanks } from './move';
import { markPhases, type CamPhase, seating } from './phase';
import { solveDrive, solveFixed } from './solve-drive';
import type { SettingsError } from './tensioner';

/** What each cam gains when banks are brought nearer to the crank: change against the unchanged drive. */
export type StackEffect = {
  /** Marks of a belt fitted anew after the change. */
  seen: CamPhase[];
  /** Change by wheel, teeth, advanced positive, before a fitter would move on by a whole tooth. */
  changeTeeth: { wheel: number; teeth: number; wheelDeg: number; driverDeg: number }[];
  /** Belt that becomes slack with the tensioner where it was, mm. */
  slackMm: number;
  /** Reading of the tensioner before and after. */
  reading?: { before: number; after: number };
};

/** Effect of nearer banks (mm by bank, machined off head, block or gasket) on marks, slack and tensioner. */
export function stackEffect(
  layout: Layout,
  nearerMm: Readonly<Record<string, number>>,
): Result<StackEffect, SettingsError> {
  const before = solveDrive(layout);
  if (!before.ok) return before;
  const moved = moveBanks(layout, nearerMm);
  const after = solveDrive(moved);
  if (!after.ok) return after;
  const fixedBefore = solveFixed(layout);
  const fixedAfter = solveFixed(moved);
  if (!fixedBefore.ok) return fixedBefore;
  if (!fixedAfter.ok) return fixedAfter;
  const was = markPhases(layout, before.value);
  const kept = markPhases(moved, after.value, 0, seating(was));
  const [a, b] = [before.value.setting, after.value.setting];
  return ok({
    seen: markPhases(moved, after.value),
    changeTeeth: kept.map((p, i) => {
      const old = nth(was, i);
      return {
        wheel: p.wheel,
        teeth: p.teeth - old.teeth,
        wheelDeg: p.wheelDeg - old.wheelDeg,
        driverDeg: p.driverDeg - old.driverDeg,
      };
    }),
    slackMm: fixedBefore.value.path.lengthMm - fixedAfter.value.path.lengthMm,
    ...(a && b ? { reading: { before: a.reading, after: b.reading } } : {}),
  });
}

export type SeenOffset = { wheel: number; teeth: number; u: number };
export type InverseError =
  | SettingsError
  | { code: 'no_banks' }
  | { code: 'too_few'; have: number; need: number }
  | { code: 'bank_not_seen'; bank: string }
  | { code: 'no_fit' }
  /** The marks would need more than a bank can be moved by, or a drive that cannot exist. */
  | { code: 'beyond'; banks: BankEstimate['banks']; mostMm?: number };
export type BankEstimate = {
  banks: { id: string; nearerMm: number; u: number }[];
  /** Observed less fitted, teeth. */
  residuals: { wheel: number; teeth: number }[];
  /** Sum of squared residuals over u², and its degrees of freedom. */
  chi2: number;
  freedom: number;
};

const STEP_MM = 0.01;

/**
 * How far each bank was brought nearer, from observed mark offsets: weighted least squares by Gauss–Newton with a numeric
 * Jacobian; standard uncertainties from the inverse normal matrix (JCGM 102, 6.2). The offsets are taken relative to the
 * belt seated as on the unchanged drive, so machining that shifts by more than half a tooth must be entered unfolded.
 */
export function estimateBanks(
  layout: Layout,
  seen: readonly SeenOffset[],
  banks: readonly string[] = (layout.banks ?? []).map((b) => b.id),
): Result<BankEstimate, InverseError> {
  if (banks.length === 0) return err({ code: 'no_banks' });
  if (seen.length < banks.length) return err({ code: 'too_few', have: seen.length, need: banks.length });
  const nominal = solveFixed(layout);
  if (!nominal.ok) return nominal;
  const seats = seating(markPhases(layout, nominal.value));
  const predict = (mm: readonly number[]): number[] | undefined => {
    const moved = moveBanks(layout, Object.fromEntries(banks.map((b, i) => [b, num(mm, i)])));
    const solved = solveFixed(moved);
    if (!solved.ok) return undefined;
    const phases = new Map(markPhases(moved, solved.value, 0, seats).map((p) => [p.wheel, p.teeth]));
    return seen.map((s) => phases.get(s.wheel) ?? NaN);
  };
  let x = banks.map(() => 0);
  let covariance: Matrix | undefined;
  for (let round = 0; round < 12; round++) {
    const at = predict(x);
    if (!at || at.some(Number.isNaN)) return err({ code: 'no_fit' });
    const columns = banks.map((_, k) => predict(x.map((v, i) => (i === k ? v + STEP_MM : v))));
    if (columns.some((c) => c === undefined)) return err({ code: 'no_fit' });
    const jacobian = new Matrix(
      seen.map((s, r) => columns.map((c) => (num(must(c), r) - num(at, r)) / STEP_MM / s.u)),
    );
    const blind = banks.findIndex((_, k) => jacobian.getColumn(k).every((v) => Math.abs(v) < 1e-9));
    if (blind >= 0) return err({ code: 'bank_not_seen', bank: nth(banks, blind) });
    const rest = Matrix.columnVector(seen.map((s, r) => (s.teeth - num(at, r)) / s.u));
    const normal = jacobian.transpose().mmul(jacobian);
    try {
      covariance = inverse(normal);
    } catch {
      return err({ code: 'no_fit' });
    }
    const step = covariance.mmul(jacobian.transpose()).mmul(rest).getColumn(0);
    x = x.map((v, i) => v + num(step, i));
    if (step.every((s) => Math.abs(s) < 1e-9)) break;
  }
  const fitted = predict(x);
  if (!fitted || !covariance) return err({ code: 'no_fit' });
  const found = banks.map((id, i) => ({ id, nearerMm: num(x, i), u: Math.sqrt(covariance.get(i, i)) }));
  const beyond = beyondReach(layout, found);
  if (beyond) return err(beyond);
  const residuals = seen.map((s, r) => ({ wheel: s.wheel, teeth: s.teeth - num(fitted, r) }));
  return ok({
    banks: found,
    residuals,
    chi2: residuals.reduce((sum, r, i) => sum + (r.teeth / nth(seen, i).u) ** 2, 0),
    freedom: seen.length - banks.length,
  });
}

/** What cannot have been taken off: surely more than a bank's most, or so much that no drive is left. */
function beyondReach(layout: Layout, found: BankEstimate['banks']): InverseError | undefined {
  const over = found.flatMap((b) => {
    const mostMm = layout.banks?.find((x) => x.id === b.id)?.mostMm;
    return mostMm !== undefined && surelyAbove({ value: Math.abs(b.nearerMm), u: b.u }, mostMm)
      ? [{ b, mostMm }]
      : [];
  });
  if (over.length > 0)
    return { code: 'beyond', banks: over.map((o) => o.b), mostMm: Math.max(...over.map((o) => o.mostMm)) };
  const moved = moveBanks(layout, Object.fromEntries(found.map((b) => [b.id, b.nearerMm])));
  return solveDrive(moved).ok ? undefined : { code: 'beyond', banks: found };
}
