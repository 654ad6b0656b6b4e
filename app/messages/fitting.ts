import { plural } from '../language/plural';
import { nth } from '@core/quantity/must';
import { FAULTS } from '@core/claim/faults';
import type { FaultShown, Fitted, Oddity } from '@core/fitting/fitted';
import type { Broken } from '@core/fitting/order';
import type { StepPhase } from '@core/catalogue/procedure';
import type { AskFor, Sheet, SheetStep } from '@core/fitting/sheet';
import type { ReturnError } from '@core/fitting/sheet-return';
import { POLICY_QUESTIONS, type Policy } from '@core/policy/policy';
import { formatNumber } from '@core/quantity/format-quantity';
import { list } from '../language/list';

export const PHASE_WORDS: Record<StepPhase, string> = {
  ready: 'Make ready',
  off: 'Take off',
  clean: 'Clean and look',
  build: 'Build up',
  check: 'Turn and check',
  close: 'Close',
};
/** How a step went, with a sign. */
/** Of a sheet whose steps do not say what hands do in them. */
export const UNPROVED_WORDS =
  'The steps of this sheet come from a catalogue that does not say what hands do in them: their order was not proved. Hold it against the vehicle maker’s information.';

export const SAID_WORDS = { done: '✓ done', skipped: '✕ not done', wrong: '▲ done otherwise' } as const;
export const HOW_PROVED = {
  look: 'Look',
  measure: 'Measure',
  count: 'Count',
  feel: 'Feel',
  torque: 'Wrench',
} as const;
const WENT = {
  skipped: 'not done',
  reversed: 'done too early',
  wrong: 'done otherwise',
  time: 'done too soon',
} as const;

/** Wording of a fault by its code. */
export const faultWording = (code: string): string => FAULTS.find((f) => f.code === code)?.wording ?? code;

/** A step by its number and how it begins, so that both sides of a telephone find it. */
export function stepName(sheet: Pick<Sheet, 'steps'>, id: string): string {
  const s = sheet.steps.find((x) => x.id === id);
  return s ? `step ${s.number}, “${shortened(s.text)}”` : `step “${id}”`;
}
const shortened = (text: string): string => {
  const first = text.split(/(?<=[.;])\s/)[0] ?? text;
  return first.length > 64 ? `${first.slice(0, 62).trimEnd()}…` : first.replace(/[.;]$/, '');
};

/** A range, or an exact figure, with its unit: "4 to 16 mm", "121", "at least 240 min". */
export function wantedWords(a: Pick<AskFor, 'from' | 'to' | 'unit' | 'every'>): string {
  const n = (v: number) => formatNumber(v, Number.isInteger(v) ? 0 : 1);
  const unit = a.unit === '' ? '' : a.unit === '°' ? '°' : ` ${a.unit}`;
  if (a.every !== undefined && a.from !== undefined)
    return `${n(a.from)}${unit}, or ${n(a.from + a.every)}, ${n(a.from + 2 * a.every)} …`;
  if (a.from !== undefined && a.from === a.to) return `${n(a.from)}${unit}`;
  if (a.from !== undefined && a.to !== undefined) return `${n(a.from)} to ${n(a.to)}${unit}`;
  if (a.from !== undefined) return `at least ${n(a.from)}${unit}`;
  return a.to === undefined ? '' : `at most ${n(a.to)}${unit}`;
}

/** A broken gate: both steps, and what follows. */
export function brokenWords(b: Broken, sheet: Pick<Sheet, 'steps'>): string {
  const [first, second] = [stepName(sheet, b.gate.before), stepName(sheet, b.gate.after)];
  const what =
    b.how === 'skipped' ? `${first} was left out before ${second}` : `${second} came before ${first}`;
  return `${nth(what, 0).toUpperCase()}${what.slice(1)}. ${b.gate.why}`;
}

/** A fault that was shown, with its step. */
export function shownWords(f: FaultShown, sheet: Pick<Sheet, 'steps'>): string {
  const other = f.other === undefined ? '' : `, before ${stepName(sheet, f.other)}`;
  return `${f.code} ${faultWording(f.code)}: ${stepName(sheet, f.step)} ${WENT[f.how]}${other}.`;
}

/** What cannot be, or does not agree with the sheet. */
export function oddWords(o: Oddity, sheet: Pick<Sheet, 'steps'>): string {
  const at = stepName(sheet, o.step);
  const At = `${nth(at, 0).toUpperCase()}${at.slice(1)}`;
  switch (o.code) {
    case 'outside': {
      const unit = o.ask.unit === '' || o.ask.unit === '°' ? o.ask.unit : ` ${o.ask.unit}`;
      return `${At}: ${o.ask.wording} was given as ${formatNumber(o.value, Number.isInteger(o.value) ? 0 : 1)}${unit}; ${wantedWords(o.ask)} is right.`;
    }
    case 'too_short':
      return `${At}: the engine stood ${formatNumber(o.minutes, 0)} min; without a measured temperature it takes ${formatNumber(o.least, 0)} min to be cold.`;
    case 'substitute':
      return `${At}: “${o.tool}” was used${o.accepted ? ', which the policy accepts; it is recorded' : ', which the policy does not accept'}.`;
  }
}

/** The shortest way back, in a sentence or two. Empty where nothing has to be undone. */
export function wayBackWords({ back }: Pick<Fitted, 'back'>, sheet: Pick<Sheet, 'steps'>): string[] {
  const out: string[] = [];
  const way = back.way;
  const number = (id: string) => sheet.steps.find((s) => s.id === id)?.number;
  if (way && way.undo.length > 0)
    out.push(
      `Take it down: undo ${plural(way.undo.length, 'step', 'steps')} ${list(way.undo.map((id) => String(number(id))))}${plural(way.undo.length, '', ', in this order')}; then start again at ${stepName(sheet, way.startAt)}.`,
    );
  else if (way) out.push(`Do ${stepName(sheet, way.startAt)} now.`);
  if (way && way.spent.length > 0) out.push(`It takes ${list([...new Set(way.spent.map((s) => s.needs))])}.`);
  for (const b of back.lost)
    out.push(`Cannot be made up for: ${stepName(sheet, b.gate.before)}. ${b.gate.why}`);
  return out;
}

/** The policy that shaped a sheet, as printed on it. */
export const rulesOn = (sheet: Pick<Sheet, 'shapedBy'>, policy: Policy): string[] =>
  sheet.shapedBy.flatMap((key) => {
    const c = POLICY_QUESTIONS.find((x) => x.key === key);
    const o = c?.options.find((x) => x.key === policy.chosen[key]);
    return o ? [o.sheet] : [];
  });

/** What must be true before a step: the steps that it waits for, by number, each reason once; and those that wait for it. */
export function gatesWords(
  step: SheetStep,
  sheet: Sheet,
): { waits: string; reasons: { steps: string; why: string }[]; before: string } {
  const numbers = (ids: readonly string[]) =>
    list(
      [...new Set(ids)]
        .map((id) => sheet.steps.find((s) => s.id === id)?.number ?? 0)
        .sort((a, b) => a - b)
        .map(String),
    );
  const waits = sheet.gates.filter((g) => g.after === step.id);
  return {
    waits: numbers(waits.map((g) => g.before)),
    reasons: [...new Set(waits.map((g) => g.why))].map((why) => ({
      steps: numbers(waits.filter((g) => g.why === why).map((g) => g.before)),
      why,
    })),
    before: numbers(sheet.gates.filter((g) => g.before === step.id).map((g) => g.after)),
  };
}

/** Why a returned sheet was not taken. */
export function returnErrorWords(e: ReturnError): string {
  switch (e.code) {
    case 'not_a_code':
      return 'This is no code of a fitting sheet: it begins with HS2 (HS1 on older sheets) and goes on in groups of four.';
    case 'code_broken':
      return 'The code does not hold together: a character was mistyped, or some are missing. Compare it group by group. Nothing was filed.';
    case 'code_of_other_length':
      return 'The code ends too early for this sheet. Ask for it again, or for the file. Nothing was filed.';
    case 'cut':
      return `The file is cut short or no JSON (line ${e.line}). Ask for it again. Nothing was filed.`;
    case 'shape':
      return `The file is no filled fitting sheet${e.place ? ` (${e.place})` : ''}: ${e.detail}. Nothing was filed.`;
    case 'edited':
      return 'The file was changed after it was filled in: its check sum does not hold. Ask for it again as the sheet saved it. Nothing was filed.';
    case 'other_case':
      return `This sheet belongs to ${e.tag ? `case ${e.tag}` : 'another case'}. Open that one and take it in there. Nothing was filed.`;
    case 'other_version':
      return `This sheet (${e.sheet}) is of another version than the one of this case, and was not sent from here. Nothing was filed.`;
    case 'twice':
      return 'This filled sheet was taken in already. Nothing was filed a second time.';
    case 'empty':
      return 'Nothing is answered on this sheet. Ask for it again once it is filled in. Nothing was filed.';
    case 'step_twice':
      return `The step “${e.step}” is answered twice in it. Ask for it again as the sheet saved it. Nothing was filed.`;
    case 'place_twice':
      return `Two steps were done as number ${e.place}, “${e.step}” among them. Ask the fitter in which order. Nothing was filed.`;
    case 'no_day':
      return `“${e.day}” is no day of a calendar. Ask when it was filled in. Nothing was filed.`;
    case 'step_unknown':
      return `The file names “${e.step}”, which this sheet does not ask. Nothing was filed.`;
    case 'impossible':
      return `${e.value} cannot be at step “${e.step}”: it was mistyped. Ask the fitter. Nothing was filed.`;
  }
}
