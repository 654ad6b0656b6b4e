import type { Carrier } from '@core/drive/carrier';
import type { Layout } from '@core/drive/layout';
import type { Settings } from '@core/drive/tensioner';
import type { Observable, Registry } from '@core/facts/observable';
import { measuredOf, placedOf, standing, textOf, thingsWith } from '@core/facts/read';
import type { State } from '@core/facts/state';
import { DERIVED } from './derived';
import type { ElongationAnswer, ExtensionAnswer } from './extension';
import { type Finding, type FindingValue, grade } from './finding';
import type { MarksAnswer } from './marks';
import type { TensionerAnswer } from './tensioners';

/** What is known of the drive for judging what its parts show; empty while the design is open. */
export type DriveOnBench = {
  layout?: Layout | undefined;
  settings?: Settings | undefined;
  carrier?: Carrier | undefined;
  tensioners: readonly TensionerAnswer[];
  elongations: readonly ElongationAnswer[];
  extensions: readonly ExtensionAnswer[];
};
/** Something that ran, with the facts that say so. */
export type Known = { value: FindingValue; facts: string[] };
export type BenchContext = {
  state: State;
  registry: Registry;
  /** Can this observable be filed of the drive? What cannot is no finding. */
  applies: (key: string) => boolean;
  drive: DriveOnBench;
  kitFits?: boolean | undefined;
  marks?: MarksAnswer | undefined;
  interval?: { km: number; months: number } | undefined;
  ran: { distance?: Known; time?: Known };
};

/**
 * Every finding of those wanted that the standing facts support: computed ones by their rule, all others read off the
 * observable of that name, thing by thing. What is not known is not listed.
 */
export function findingsOf(wanted: readonly string[], ctx: BenchContext): Finding[] {
  return wanted.flatMap((finding) => {
    const rule = Object.hasOwn(DERIVED, finding) ? DERIVED[finding] : undefined;
    if (rule) return rule(ctx);
    const o = ctx.registry.get(finding);
    return o && ctx.applies(finding) ? direct(o, ctx) : [];
  });
}

function direct(o: Observable, { state, registry }: BenchContext): Finding[] {
  return thingsWith(state, o.key).flatMap((about): Finding[] => {
    const thing = about === '' ? undefined : about;
    const of = thing === undefined ? {} : { about: thing };
    if (o.place) return placedFindings(o, state, thing, of);
    if (o.type.kind === 'number') {
      const m = measuredOf(state, registry, o.key, thing);
      return m
        ? [
            {
              finding: o.key,
              value: { kind: 'number', value: m.value, u: m.u },
              facts: m.facts.map((f) => f.id),
              ...of,
            },
          ]
        : [];
    }
    const value = textOf(state, o.key, thing);
    const fact = standing(state, o.key, thing);
    return value !== undefined && fact
      ? [{ finding: o.key, value: grade(value), facts: [fact.id], ...of }]
      : [];
  });
}

/** Of looks at many places each grade is one finding, standing on all places that show it. */
function placedFindings(
  o: Observable,
  state: State,
  about: string | undefined,
  of: { about?: string },
): Finding[] {
  const byGrade = new Map<string, string[]>();
  for (const p of placedOf(state, o.key, about)) {
    const value = String(p.value);
    byGrade.set(value, [...(byGrade.get(value) ?? []), p.fact.id]);
  }
  return [...byGrade].map(([value, facts]) => ({ finding: o.key, value: grade(value), facts, ...of }));
}
