import { nth } from '@core/quantity/must';
import type { SignParts } from '@core/answer/signs';
import type { Contradiction } from '@core/answer/contradictions';
import type { DecideError } from '@core/answer/decide';
import type { Finding, FindingValue, Grades, NumberFound } from '@core/examination/finding';
import { type FindingEntry, FINDINGS } from '@core/examination/finding-data';
import type { UsageSinceFitting } from '@core/examination/context';
import type { NoCause } from '@core/cause/cause-data';
import type { Objection, Warning } from '@core/claim/decision';
import { FAULTS } from '@core/claim/faults';
import { KINDS } from '@core/facts/kinds';
import { type Observable, optionsOf } from '@core/facts/observable';
import { showValue } from '@core/facts/show-value';
import { type Notation, writtenDay } from '@core/facts/read-value';
import type { DocumentKind } from '@core/catalogue/plan';
import type { Fact } from '@core/facts/fact';
import { nameOfId } from '@core/facts/thing';
import { formatNumber, formatQuantity } from '@core/quantity/format-quantity';
import { nameWords, valueWords } from './facts';
import { capital } from '../language/capital';
import { lower } from '../language/lower';
import { moneyWords } from './money';
import type { SentenceContext } from './sentence-context';
import { plainText } from '@core/facts/value';

/** A reading that weighs by what the new part measures. */
const AGAINST_NEW: Readonly<Record<string, string>> = {
  as_new: 'as the new part',
  off: 'not as the new part',
};

/** An inspection away from the bench, where nothing beside it says at what: "Cover, inside" of an "Inside"; as it is called, where its name says so. */
export function inspectionWords(o: Pick<Observable, 'wording' | 'part' | 'station'>): string {
  const part = KINDS.get(o.part)?.wording;
  if (part === undefined || o.station !== 'examine') return o.wording;
  const name = o.wording.toLowerCase();
  const said = part
    .toLowerCase()
    .split(/\W+/)
    .some((w) => w.length > 2 && name.includes(w));
  return said ? o.wording : `${part}, ${nth(o.wording, 0).toLowerCase()}${o.wording.slice(1)}`;
}

/** A sign by which cases are compared, "Front edge: frayed"; the finding alone where it is sound. */
export const signWords = ({ finding, grade }: SignParts, v: SentenceContext): string =>
  findingWords(grade === undefined ? { finding } : { finding, value: grade }, v);

/** What was found, "Cover rub: Rubbed through", "Front edge: frayed (left)"; only what was looked at, where no value is given. */
export function findingWords(
  f: Pick<Finding, 'finding' | 'about'> & { value?: FindingValue },
  v: SentenceContext,
): string {
  const of = f.about === undefined ? '' : ` (${v.thing?.(f.about) ?? nameOfId(f.about)})`;
  return `${ofFirst(f, v, f.about === undefined)}${of}`;
}

/** @param alone nothing else says of which thing it is */
function ofFirst(
  f: Pick<Finding, 'finding'> & { value?: FindingValue },
  v: SentenceContext,
  alone: boolean,
): string {
  const { finding, value } = f;
  const derived = FINDINGS.get(finding);
  const o = v.registry.get(finding);
  const name = derived?.wording ?? (o && (alone ? inspectionWords(o) : o.wording)) ?? finding;
  if (value === undefined) return lower(name);
  const gradeWords = (grade: string): string =>
    derived?.values?.[grade] ??
    AGAINST_NEW[grade] ??
    FAULTS.find((f) => f.code === grade)?.wording ??
    (o && optionsOf(o).find((x) => x.key === grade)?.wording) ??
    grade;
  if (typeof value === 'string') return `${name}: ${gradeWords(value)}`;
  if ('grades' in value) return `${name}: ${eitherWords(value, gradeWords)}`;
  return `${name}: ${numberWords(value, (x, u) => figure(x, u, derived, o, v))}`;
}

/** What a reading may be, the likeliest first: "slack (82 %), as intended (18 %)". */
function eitherWords({ grades }: Grades, say: (grade: string) => string): string {
  const all = Object.values(grades).reduce((a, b) => a + b, 0);
  return Object.entries(grades)
    .sort(([, a], [, b]) => b - a)
    .map(([g, p]) => `${say(g)} (${percent(p / all)})`)
    .join(', ');
}

/** "8,300 ± 700 km"; "at most 4 months"; "1 to 2 mm". */
function numberWords(v: NumberFound, say: (x: number, u: number) => string): string {
  if ('x' in v) return say(v.x, v.u);
  return v.from <= 0 ? `at most ${say(v.to, 0)}` : `${say(v.from, 0)} to ${say(v.to, 0)}`;
}

function figure(
  x: number,
  u: number,
  derived: FindingEntry | undefined,
  o: Observable | undefined,
  v: SentenceContext,
): string {
  const n = derived?.number;
  if (n?.dimension)
    return formatQuantity(n.dimension, x, {
      unit: v.notation.units[n.dimension] ?? n.unit,
      decimals: n.decimals,
      computed: true,
      ...(u > 0 ? { u } : {}),
    });
  if (n) return `${formatNumber(x, n.decimals)} ${n.unit}`;
  return o ? showValue(o, x, v.notation, (_t, k) => k, u > 0 ? u : undefined) : String(x);
}

export const percent = (p: number): string =>
  p > 0 && p < 0.01 ? '<1\u00a0%' : p > 0.99 && p < 1 ? '>99\u00a0%' : `${Math.round(p * 100)}\u00a0%`;

export function distance(km: number, notation: Notation): string {
  return formatQuantity('distance', km, { unit: notation.units['distance'] ?? 'km' });
}

export function usageWords(usage: UsageSinceFitting, notation: Notation): string {
  const parts: string[] = [];
  if (usage.distance) {
    const { km, u } = usage.distance;
    const unit = notation.units['distance'] ?? 'km';
    parts.push(formatQuantity('distance', km, { unit, computed: true, ...(u > 0 ? { u } : {}) }));
  }
  if (usage.back) parts.push('odometer runs back');
  if (usage.time) parts.push(`${usage.time.months} months`);
  return parts.length ? parts.join(', ') : 'unknown';
}

const DOCUMENT_WORDS: Record<DocumentKind, string> = { invoice: 'the invoice', sheet: 'the fitting sheet' };

/** What is decided where no cause is. */
export const noCauseWords = (key: NoCause): string =>
  key === 'none' ? 'none of those known' : 'cannot be decided by what is here';

/** Why a cause or a fault typed on the fact line was not decided. */
export function decideSentence(e: DecideError, name: (table: string, key: string) => string): string {
  switch (e.code) {
    case 'needs_reason':
      return `“${name('cause', e.leader)}” leads. To decide “${name('cause', e.cause)}” add why: … because …`;
    case 'no_such_cause':
      return `“${name('cause', e.key)}” cannot occur on this drive.`;
    case 'no_such_fault':
      return `${e.key} is no installation fault of our list.`;
  }
}

/** Two facts that cannot both be true, or one that cannot be true of this drive, in one sentence. */
export function contradictionWords(c: Contradiction, v: SentenceContext): string {
  const name = (f: Fact) => nameWords(f, v);
  const day = (f: Fact) => writtenDay(plainText(f.value), v.notation);
  const said = (f: Fact) => `${name(f)} ${valueWords(f, v, (_t, k) => k)}`;
  switch (c.code) {
    case 'days_reversed':
      return `${name(c.facts[1])} (${day(c.facts[1])}) lies before ${lower(name(c.facts[0]))} (${day(c.facts[0])}).`;
    case 'odometer_back':
      return `The odometer runs back by ${distance(c.byKm, v.notation)}: ${said(c.facts[0])}, ${said(c.facts[1])}.`;
    case 'in_the_future':
      return `${name(c.facts[0])} (${day(c.facts[0])}) lies after the day on which it was filed.`;
    case 'built_before_engine':
      return `Built ${day(c.facts[0])}, before the first ${c.engine} (${writtenDay(c.from, v.notation)}).`;
    case 'not_on_drive':
      return `${said(c.facts[0])} was filed, but no drive that is still possible has that.`;
    case 'cannot_be':
      return `${said(c.facts[0])} cannot be: it lies outside ${c.min} to ${c.max}.`;
    case 'beyond':
      return `${said(c.facts[0])}: the longest belt or chain that this drive can have counts ${c.most}.`;
    case 'outlier':
      return `${said(c.facts[0])} does not belong with its other readings. It is kept: take it again, or strike it.`;
    case 'rivals':
      return `${name(nth(c.facts, 0))}: ${c.facts
        .map((f) => `${valueWords(f, v, (_t, k) => k)} (${f.note ?? f.by})`)
        .join(' against ')}. Keep one, or file what holds.`;
  }
}

/** How often; a line of an issue keeps that it was, not how often. */
const timesWords = (n: number | undefined): string =>
  n === undefined ? '' : n === 1 ? ' once' : ` ${n} times`;

export function objectionWords(o: Objection): string {
  switch (o.code) {
    case 'no_decision':
      return 'Choose a decision.';
    case 'no_reason':
      return 'Write the reason in plain words.';
    case 'decline_needs_evidence':
      return 'Declining needs at least one fact measured or seen on the returned parts or the fitting; a reported story alone never suffices.';
    case 'decline_needs_alternative':
      return 'Declining needs an alternative cause that was considered.';
    case 'share_missing':
      return 'Accepting in part needs our share.';
    case 'tie_unsigned':
      return 'Supplier and fitter are not told apart by what is known: a second person looks at it and signs before it is declined.';
    case 'amount_unsigned':
      return `From ${moneyWords(o.from)} on a second person signs before it is issued; this claim is of ${moneyWords(o.gross)}.`;
    case 'second_same':
      return 'The second signature is that of who decided; it has to be another person’s.';
    case 'faults_over':
      return `The shares laid to the faults come to ${percent(o.sum)}: no more than 100 % can be.`;
    case 'told_unweighed':
      return `This desk advised on it${timesWords(o.times)}: say how our own words bear on the fault before it is declined.`;
    case 'missing_document':
      return `The terms require ${DOCUMENT_WORDS[o.document]}, and it is not here. Wait for it, or say why you go on without it.`;
  }
}

export function warningWords(w: Warning, name: (table: string, key: string) => string): string {
  switch (w.code) {
    case 'leader_weak':
      return `The decided cause stands at only ${percent(w.probability)}.`;
    case 'cause_overrules':
      return `You decided “${name('cause', w.decided)}”; the facts lean to “${name('cause', w.leader)}”. The reason you gave is kept with the decision.`;
    case 'out_of_terms_accepted':
      return 'Accepted although out of terms: goodwill may be the honest word.';
    case 'shares_apart':
      return `Our share of ${percent(w.ours)} and the faults’ ${percent(w.faults)} come to ${percent(w.ours + w.faults)}, not to all of it.`;
    case 'excluded_accepted':
      return `Accepted although the plan leaves it out: ${w.why} Goodwill may be the honest word.`;
    case 'missing_document':
      return `${capital(DOCUMENT_WORDS[w.document])} is missing.`;
  }
}
