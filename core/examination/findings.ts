import type { Observable, Registry } from '@core/facts/observable';
import { measuredOf, placedOf, spreadOf, standing, textOf, thingsWith } from '@core/facts/read';
import type { State } from '@core/facts/state';
import type { ExaminationContext } from './context';
import { DERIVED } from './derived';
import { type Finding, gradeValue } from './finding';
import { plainText } from '@core/facts/value';

/**
 * Every finding of those wanted that the standing facts support: computed ones by their rule, all others read off the
 * observable of that name, thing by thing. What is not known is not listed.
 */
export function findingsOf(wanted: readonly string[], ctx: ExaminationContext): Finding[] {
  return wanted.flatMap((finding) => {
    const rule = Object.hasOwn(DERIVED, finding) ? DERIVED[finding] : undefined;
    if (rule) return rule(ctx);
    const o = ctx.registry.get(finding);
    return o && ctx.applies(finding) ? direct(o, ctx) : [];
  });
}

function direct(o: Observable, { state, registry, limits, numbers }: ExaminationContext): Finding[] {
  return thingsWith(state, o.key).flatMap((about): Finding[] => {
    const thing = about === '' ? undefined : about;
    const of = thing === undefined ? {} : { about: thing };
    const counts = o.type.kind === 'number' || o.type.kind === 'count';
    if (o.place && !counts) return placedFindings(o, state, thing, of);
    if (o.place) return largest(o, state, registry, thing, of);
    if (counts) {
      const m = measuredOf(state, registry, o.key, thing);
      if (!m) return [];
      const facts = m.facts.map((f) => f.id);
      if (numbers.has(o.key)) return [{ finding: o.key, value: { x: m.value, u: m.u }, facts, ...of }];
      const limit = limits.find((l) => l.key === o.key && l.about === thing);
      const grade = limit && gradeValue({ as_new: limit.within, off: 1 - limit.within });
      return grade === undefined ? [] : [{ finding: o.key, value: grade, facts, ...of }];
    }
    const value = textOf(state, o.key, thing);
    const fact = standing(state, o.key, thing);
    return value !== undefined && fact ? [{ finding: o.key, value: value, facts: [fact.id], ...of }] : [];
  });
}

/** Of measurements at many places the largest is the finding: a part is as worn as where it is worn most. */
function largest(
  o: Observable,
  state: State,
  registry: Registry,
  about: string | undefined,
  of: { about?: string },
): Finding[] {
  const numbers = placedOf(state, o.key, about).filter((p) => typeof p.value === 'number');
  const [most] = numbers.sort((a, b) => Number(b.value) - Number(a.value));
  if (!most) return [];
  const value = { x: Number(most.value), u: spreadOf(most.fact, registry, o.key) };
  return [{ finding: o.key, value, facts: [most.fact.id], ...of }];
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
    const value = plainText(p.value);
    byGrade.set(value, [...(byGrade.get(value) ?? []), p.fact.id]);
  }
  return [...byGrade].map(([value, facts]) => ({ finding: o.key, value: value, facts, ...of }));
}
