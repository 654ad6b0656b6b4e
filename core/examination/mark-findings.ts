import { must } from '@core/quantity/must';
import { measuredOf, thingsWith } from '@core/facts/read';
import { surelyAbove } from '@core/quantity/judge';
import { normalCdf, normalDensity } from '@core/quantity/normal';
import type { ExaminationContext } from './context';
import { type Finding, gradeValue } from './finding';
import type { MarkAnswer, SureVerdict } from './marks';

/** Worst first: what one mark shows, the drive shows. */
const WORST = ['teeth_and_rest', 'teeth_out', 'fraction'] as const;

/**
 * What the marks of a drive show together, by how likely each verdict is: the worst of them, each read for itself. While
 * some were not looked at, one of those may be wrong: what was looked at alone does not show that none is.
 */
export function marksVerdict({ marks }: ExaminationContext): Finding[] {
  if (!marks) return [];
  const facts = marks.marks.flatMap((m) => m.facts.map((f) => f.id));
  const within = (verdicts: readonly SureVerdict[]) =>
    marks.marks.reduce((p, m) => p * verdicts.reduce((s, v) => s + (m.chances[v] ?? 0), 0), 1);
  const right = within(['as_predicted']);
  const unseen = 1 - Math.min(1, marks.marks.length / Math.max(1, marks.of));
  const grades: Record<string, number> = { as_predicted: right };
  WORST.forEach((v, i) => {
    const better: SureVerdict[] = ['as_predicted', ...WORST.slice(i + 1)];
    grades[v] = within([...better, v]) - within(better) + right * unseen;
  });
  const value = gradeValue(grades);
  return value === undefined ? [] : [{ finding: 'marks.verdict', value, facts }];
}

type Standing = 'right' | 'off' | undefined;
const standingOf = ({ verdict }: MarkAnswer): Standing =>
  verdict.verdict === 'cannot_tell' ? undefined : verdict.verdict === 'as_predicted' ? 'right' : 'off';

/** Marks that stand off alike, teeth. */
const ALIKE = 0.3;
const alike = (marks: readonly MarkAnswer[]): boolean => {
  const off = marks.map((m) => m.verdict.offTeeth);
  return Math.max(...off) - Math.min(...off) <= ALIKE;
};

/**
 * How what stands off lies on the engine: all marked wheels alike (at the crank's end), all of one bank alike, or one alone
 * beside a neighbour that stands right. Nothing where fewer than two were looked at, or no such order is seen.
 */
export function bankPattern({ marks }: ExaminationContext): Finding[] {
  const told = (marks?.marks ?? []).filter((m) => standingOf(m) !== undefined);
  const off = told.filter((m) => standingOf(m) === 'off');
  const value = told.length < 2 ? undefined : off.length === 0 ? 'none' : patternOf(told, off);
  const facts = told.flatMap((m) => m.facts.map((f) => f.id));
  return value === undefined ? [] : [{ finding: 'bank.pattern', value, facts }];
}

function patternOf(told: readonly MarkAnswer[], off: readonly MarkAnswer[]): string | undefined {
  if (off.length === told.length && alike(off)) return 'all';
  const banks = new Set(off.map((m) => m.bank));
  const [bank] = banks;
  if (banks.size !== 1) return undefined;
  const near = told.filter((m) => m.bank === bank);
  if (bank !== undefined && near.length > 1 && near.length === off.length && alike(off)) return 'bank';
  return off.length === 1 && near.length > 1 ? 'alone' : undefined;
}

/** Nobody takes more off a head or block than this, mm; less is as likely whatever it is. */
const MOST_OFF_MM = 1;

/**
 * A head or block nearer than drawn, or as drawn: how likely the reading is of either. As drawn it is off by its own error;
 * nearer by anything up to the most that is taken off. Of several the one that stands nearest, in its own uncertainty.
 */
export function headsNearer(ctx: ExaminationContext): Finding[] {
  const far = ({ value, u }: { value: number; u: number }) =>
    u > 0 ? value / u : Math.sign(value) * Infinity;
  const [most] = nearerRead(ctx).sort((a, b) => far(b) - far(a));
  if (!most) return [];
  const { value, u } = most;
  const said =
    u > 0
      ? gradeValue({ as_drawn: normalDensity(value / u) / u, nearer: normalCdf(value / u) / MOST_OFF_MM })
      : value > 0
        ? 'nearer'
        : 'as_drawn';
  const facts = most.facts.map((f) => f.id);
  return said === undefined ? [] : [{ finding: 'heads.nearer', value: said, facts }];
}

function nearerRead({ state, registry }: Pick<ExaminationContext, 'state' | 'registry'>) {
  return thingsWith(state, 'bank.nearer').flatMap((about) => {
    const m = measuredOf(state, registry, 'bank.nearer', about === '' ? undefined : about);
    return m ? [m] : [];
  });
}

/**
 * Whether what was machined off explains the marks: every prediction has it in, so that marks which still stand off are not
 * explained by it.
 */
export function headsExplain(ctx: ExaminationContext): Finding[] {
  const nearer = nearerRead(ctx).filter((m) => surelyAbove(m, 0));
  const told = (ctx.marks?.marks ?? []).filter((m) => standingOf(m) !== undefined);
  if (nearer.length === 0 || told.length === 0) return [];
  const value = told.some((m) => standingOf(m) === 'off') ? 'not' : 'explains';
  const facts = [...nearer.flatMap((m) => m.facts), ...told.flatMap((m) => m.facts)].map((f) => must(f).id);
  return [{ finding: 'heads.explain', value, facts }];
}
