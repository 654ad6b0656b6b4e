import type { Exclusion } from '@core/match/identify';
import type { Condition, KitMatch, Refusal } from '@core/match/match-kits';
import { writtenDay } from '@core/facts/read-value';
import { list } from '../language/list';
import { lower } from '../language/lower';
import type { SentenceContext } from './sentence-context';
import { plainText } from '@core/facts/value';

export const VERDICT_WORDS = { fits: 'Fits', fits_if: 'Fits if', no: 'Does not fit' } as const;

export function exclusionWords(e: Exclusion, v: SentenceContext): string {
  switch (e.code) {
    case 'built_outside': {
      const day = (d: string) => writtenDay(d, v.notation);
      const window = [e.from ? `from ${day(e.from)}` : '', e.to ? `to ${day(e.to)}` : '']
        .filter(Boolean)
        .join(' ');
      return `built ${day(plainText(e.fact.value))}; this one was built ${window}${e.slackDays ? `, give or take ${e.slackDays} days` : ''}`;
    }
    case 'feature_differs': {
      const f = v.cat?.features.get(e.feature);
      const word = (k: string) => lower(f?.options.find((o) => o.key === k)?.wording ?? k);
      return `${lower(f?.wording ?? e.feature)}: ${word(e.seen)}; this one has ${list(e.allowed.map(word), 'or')}`;
    }
    case 'market_differs':
      return `sold in ${plainText(e.fact.value)}; this one went to ${list(e.markets, 'or')}`;
    case 'teeth_differ':
      return `belt counted with ${e.seen} teeth; this one has ${e.needed}`;
  }
}

function conditionWords(c: Condition, v: SentenceContext): string {
  const f = v.cat?.features.get(c.feature);
  return `${lower(f?.wording ?? c.feature)} is ${list(
    c.values.map((k) => lower(f?.options.find((o) => o.key === k)?.wording ?? k)),
    'or',
  )}`;
}

function refusalWords(r: Refusal, v: SentenceContext): string {
  switch (r.code) {
    case 'other_engine':
      return `it is for ${r.engines.length ? list(r.engines) : 'no engine in this catalogue'}`;
    case 'variant_excluded':
      return `it is for ${r.variant.name}, ruled out: ${r.by.map((e) => exclusionWords(e, v)).join('; ')}`;
    case 'part_differs':
      return `its belt has ${r.kit} ${r.attribute}, this drive needs ${r.drive}`;
  }
}

/** "discontinued, replaced by …", the options it has, or nothing. */
export function kitStatus(m: KitMatch): string {
  // what its name says already is not said again
  const named = m.kit.name.toLowerCase();
  const options = m.kit.options.filter((o) => !named.includes(`with ${o.toLowerCase()}`));
  const parts = [
    options.length ? `with ${list(options)}` : '',
    m.kit.status === 'discontinued' ? 'discontinued' : '',
    m.replacedBy ? `replaced by ${m.replacedBy}` : '',
  ];
  return parts.filter(Boolean).join(', ');
}

/** The reasons of a kit's verdict, one sentence each. */
export function kitReasons(m: KitMatch, v: SentenceContext): string[] {
  switch (m.verdict) {
    case 'fits':
      return m.because.length
        ? [
            `serves ${list(m.variants.map((x) => x.name))}; the others are ruled out: ${[...new Set(m.because.map((e) => exclusionWords(e, v)))].join('; ')}`,
          ]
        : [`serves every design of this engine: ${list(m.variants.map((x) => x.name))}`];
    case 'fits_if':
      return m.conditions.length
        ? [
            `${list(
              m.conditions.map((c) => conditionWords(c, v)),
              'and',
            )}`,
          ]
        : [
            `the drive is ${list(
              m.variants.map((x) => x.name),
              'or',
            )}`,
          ];
    case 'no':
      return m.refusals.map((r) => refusalWords(r, v));
  }
}
