import type { Answers } from '@core/answer/answers';
import type { CostKind, Plan } from '@core/catalogue/plan';
import type { Cover, LeftOut } from '@core/claim/cover';
import type { TermsAnswer } from '@core/claim/terms';
import { optionsOf, type Registry } from '@core/facts/observable';
import { type Notation, writtenDay } from '@core/facts/read-value';
import { capital } from '../language/capital';
import { list } from '../language/list';
import { lower } from '../language/lower';
import { counted } from '../language/plural';
import { distance, percent } from './answers';

const COSTS: Record<CostKind, string> = { part: 'parts', labour: 'labour', other: 'consequential cost' };
const FROM = { fitted: 'the fitting', sold: 'the sale', fitted_else_sold: 'the fitting, else the sale' };

/** What a plan says: limits, from where, what it bears and how much of it. */
function planWords(p: Plan, notation: Notation): string {
  const limits = [
    p.months === undefined ? '' : counted(p.months, 'month', 'months'),
    p.km === undefined ? '' : distance(p.km, notation),
  ].filter(Boolean);
  const runs =
    limits.length === 0
      ? 'for life'
      : `${limits.join(' or ')}${limits.length > 1 ? ', whichever first,' : ''} from ${FROM[p.from ?? 'fitted']}`;
  const bears = p.bears ? `bears ${list(p.bears.map((k) => COSTS[k]))}` : '';
  const steps = (p.shares ?? []).map(
    (s) => `${percent(s.share)} after ${counted(s.after, 'month', 'months')}`,
  );
  const text = [runs, bears, steps.length > 0 ? `our share ${list(steps)}` : ''].filter(Boolean).join('; ');
  return p.name === undefined ? capital(text) : `${p.name}: ${text}`;
}

/** What of the plan bears on this claim: kinds of cost that it does not bear, a share below all of it; empty where it bears all. */
function coverWords({ bears, share }: Cover): string {
  const not = (Object.keys(COSTS) as CostKind[]).filter((k) => !bears.includes(k)).map((k) => COSTS[k]);
  const ours =
    share === undefined
      ? 'our share cannot be told without the dates; reckoned with all of it'
      : share.least < share.most
        ? `our share is ${percent(share.least)} or ${percent(share.most)}, as the dates are known roughly; reckoned with ${percent(share.most)}`
        : share.most < 1
          ? `our share is ${percent(share.most)}`
          : '';
  const text = [not.length > 0 ? `${list(not)} not borne by the plan` : '', ours].filter(Boolean).join('; ');
  return text === '' ? '' : `${capital(text)}.`;
}

/** What a plan leaves out, where it does or may; undefined where it does not. */
function exclusionWords(e: LeftOut, registry: Registry): string | undefined {
  if (e.stands === 'not') return undefined;
  const o = registry.get(e.key);
  const said = list(
    e.is.map((key) => lower((o ? optionsOf(o) : []).find((x) => x.key === key)?.wording ?? key)),
    'or',
  );
  if (e.stands === 'applies') return `The plan leaves this out: ${e.why}`;
  return o
    ? `“${o.wording}” is not known. Where it is “${said}” the plan leaves this out: ${e.why}`
    : `The plan leaves this out where “${e.key}” is “${said}”, and this desk knows no such observation: ${e.why}`;
}

export function termsWords(t: TermsAnswer, notation: Notation): string {
  switch (t.verdict) {
    case 'in': {
      const least = t.roughly ? 'at least ' : '';
      const left = [
        t.daysLeft === undefined ? '' : `${least}${counted(t.daysLeft, 'day', 'days')}`,
        t.kmLeft === undefined ? '' : distance(t.kmLeft, notation),
      ].filter(Boolean);
      return left.length === 0
        ? 'In terms: they end neither by time nor by distance.'
        : `In terms: ${list(left)} left at the failure.`;
    }
    case 'out': {
      const over = [
        t.overDays ? `${t.roughly ? 'at least ' : ''}${counted(t.overDays, 'day', 'days')}` : '',
        t.overKm ? distance(t.overKm, notation) : '',
      ].filter(Boolean);
      return `Out of terms by ${list(over)}.`;
    }
    case 'cannot_tell': {
      const words = {
        start: 'the fitting date',
        sale: 'the day of sale',
        start_or_sale: 'the day of the fitting or of the sale',
        failure: 'the date of failure',
        distance: 'both odometer readings',
      };
      const missing = t.missing.flatMap((m) =>
        m === 'distance_back' || m === 'distance_near' || m === 'date_near' ? [] : [words[m]],
      );
      const parts = [
        missing.length ? `${list(missing)} missing` : '',
        t.missing.includes('distance_near') ? 'the limit lies within what the distance is uncertain by' : '',
        t.days
          ? `the dates are known roughly, from ${daysSide(t.days.least)} to ${daysSide(t.days.most)}`
          : '',
        t.missing.includes('distance_back') ? 'the odometer runs back between the two readings' : '',
      ].filter(Boolean);
      return `Cannot tell: ${list(parts)}.`;
    }
  }
}

/** What the plan of the kit says, what of it bears on this claim, and what it leaves out; undefined while the kit is not known. */
export function planOnCase(
  { kit, cover, registry }: Pick<Answers, 'kit' | 'cover' | 'registry'>,
  notation: Notation,
): { says: string; leaves: string[] } | undefined {
  if (!kit || !cover) return undefined;
  const says = [
    `Terms of ${kit.number}: ${planWords(kit.terms, notation)}.`,
    startWords(cover, notation),
    coverWords(cover),
  ];
  return {
    says: says.filter(Boolean).join(' '),
    leaves: cover.exclusions.flatMap((e) => exclusionWords(e, registry) ?? []),
  };
}

/** The day a plan was begun on, where it is another than the fitting. */
const startWords = ({ start }: Cover, notation: Notation): string =>
  start?.is === 'sold' ? `Counted from the sale on ${writtenDay(start.day.first, notation)}.` : '';

/** @param over days past the end, negative while it is ahead */
const daysSide = (over: number): string =>
  over > 0 ? `${counted(over, 'day', 'days')} over` : `${counted(-over, 'day', 'days')} left`;
