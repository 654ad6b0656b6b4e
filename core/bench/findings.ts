import type { Carrier } from '@core/drive/carrier';
import type { Layout } from '@core/drive/layout';
import type { Settings } from '@core/drive/tensioner';
import type { Observable, Registry } from '@core/facts/observable';
import { placedOf, standing, textOf, thingsWith } from '@core/facts/read';
import type { State } from '@core/facts/state';
import { DERIVED } from './derived';
import type { ElongationAnswer, ExtensionAnswer } from './extension';
import type { Finding } from './finding';
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
/** Distance and time since fitting, with the facts that say so; u of the distance from both readings (JCGM 100, 5.1.2). */
export type Ran = {
  distance?: { km: number; u: number; facts: string[] };
  time?: { months: number; facts: string[] };
  /** Both readings are here, and the later one is smaller. */
  back?: true;
};
export type BenchContext = {
  state: State;
  registry: Registry;
  /** Can this observable be filed of the drive? What cannot is no finding. */
  applies: (key: string) => boolean;
  drive: DriveOnBench;
  kitFits?: boolean | undefined;
  marks?: MarksAnswer | undefined;
  interval?: { km: number; months: number } | undefined;
  ran: Ran;
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

function direct(o: Observable, { state }: BenchContext): Finding[] {
  return thingsWith(state, o.key).flatMap((about): Finding[] => {
    const thing = about === '' ? undefined : about;
    const of = thing === undefined ? {} : { about: thing };
    if (o.place) return placedFindings(o, state, thing, of);
    const value = textOf(state, o.key, thing);
    const fact = standing(state, o.key, thing);
    return value !== undefined && fact ? [{ finding: o.key, value: value, facts: [fact.id], ...of }] : [];
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
  return [...byGrade].map(([value, facts]) => ({ finding: o.key, value: value, facts, ...of }));
}
