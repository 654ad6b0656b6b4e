import { demoPack } from '../../demo/catalogue';
import { demoFacts } from '../../demo/cases';
import { SEED } from '../../demo/scenario';
import { advise } from '@core/advice/advise';
import { QUESTIONS } from '@core/advice/advice';
import { catalogueOf } from '@core/catalogue/find-records';
import { canonical } from '@core/facts/canonical';
import { fileFact } from '@core/facts/change';
import type { Fact } from '@core/facts/fact';
import { observed, valueOf } from '@core/facts/read';
import { METRIC } from '@core/facts/read-value';
import { needsThing } from '@core/facts/registry';
import { showValue } from '@core/facts/show-value';
import { silent } from '@core/facts/silence';
import type { Why } from '@core/facts/value';
import { reduce } from '@core/facts/state';
import { type Answers, answersFor, settled } from './answers';
import { linesOf } from './difference';
import { subjectsOf } from './subjects';
import { registryFor, worldOf } from './world';

const cat = catalogueOf(demoPack());
const world = worldOf(cat);
const registry = registryFor(world);
const all = demoFacts(SEED);
let n = 0;
const author = { by: 'T', now: () => '2026-11-29T08:00:00.000Z', newId: () => `s${++n}` };

const BEFORE = { notExamined: 'skipped', unknown: 'unknown' };

/** What a case comes to: all that is judged, matched, weighed, objected to and read out. */
function comesTo(facts: readonly Fact[]): Record<string, string> {
  const state = reduce(facts);
  const a: Answers = settled(answersFor(world, state));
  const said = QUESTIONS.map((asked) => {
    const { lead, standing, because } = advise(asked, { world, state, a, today: '2026-11-25' });
    // what to look at first is what was not looked at yet
    const first = lead.code === 'noise' ? lead.code : lead;
    return { asked, first, standing, because: because.map((r) => r.code) };
  });
  return {
    lines: canonical(linesOf(a)),
    causes: canonical(a.ranking.causes.map((c) => [c.cause.key, c.probability])),
    contradictions: canonical(a.contradictions.map((c) => c.code)),
    objections: canonical([a.decision.objections, a.decision.warnings]),
    findings: canonical(a.findings.map((f) => [f.finding, f.value, f.about ?? ''])),
    kits: canonical(a.kits.map((k) => [k.kit.number, k.verdict])),
    designs: canonical(a.identification?.possible.map((v) => v.id) ?? []),
    faults: canonical(a.faults.map((f) => [f.fault.code, f.evidence, f.proposed])),
    terms: canonical(a.terms ?? null),
    ...Object.fromEntries(said.map((x) => [`said ${x.asked}`, canonical(x)])),
  };
}

describe('what was not examined, or is not known', () => {
  for (const why of ['notExamined', 'unknown'] as const satisfies readonly Why[])
    it(`changes no verdict, cause, match, objection or sentence: ${why}, of every observable`, () => {
      let filed = 0;
      for (const tag of ['2036', '2033', '2044', '2041']) {
        const facts = all.filter((f) => f.case === `demo-${tag}`);
        const state = reduce(facts);
        const { possible, things } = answersFor(world, state);
        const before = comesTo(facts);
        const mute: Fact[] = [];
        for (const o of registry.values()) {
          if (o.key.startsWith('report.') || o.key.startsWith('case.') || o.key.startsWith('thing.'))
            continue;
          for (const about of needsThing(o) ? subjectsOf(o, possible, things) : [undefined]) {
            // of what says something it is a correction, and then it does change things
            if (observed(state, o.key, about).is !== 'nothing') continue;
            // as it is written today, and in turn as earlier makes wrote it
            const before = o.key !== 'step.done' && mute.length % 2 === 1;
            const value = before ? BEFORE[why] : silent(why);
            mute.push(fileFact(state, `demo-${tag}`, { key: o.key, about, value, how: 'seen' }, author));
          }
        }
        const after = comesTo([...facts, ...mute]);
        for (const part of Object.keys(before))
          expect(after[part]).withContext(`${tag} ${part}`).toBe(before[part]);
        filed += mute.length;
      }
      console.log(`${why}: ${filed} looks and questions filed that say nothing`);
      expect(filed).toBeGreaterThan(800);
    });

  it('is shown as what it is, whatever the kind of the observable, and a step left out as a finding', () => {
    const show = (key: string, value: Fact['value']) =>
      showValue(registry.get(key)!, value, METRIC, (_, k) => k);
    for (const o of registry.values()) {
      if (o.key !== 'step.done')
        expect(show(o.key, silent('notExamined')))
          .withContext(o.key)
          .toBe('not examined');
      expect(show(o.key, silent('unknown')).toLowerCase())
        .withContext(o.key)
        .toMatch(/unknown|not known|cannot|nobody/);
    }
    const step = fileFact(
      reduce([]),
      'c',
      { key: 'step.done', about: 'step:a', value: 'skipped', how: 'reported' },
      author,
    );
    expect(valueOf(reduce([step]), 'step.done', 'step:a')).toBe('skipped');
    expect(show('step.done', 'skipped')).not.toBe('not examined');
    // a digest in what the program filed is as long as a person compares
    const sheet = { is: 'sheet' as const, sheet: 'ab'.repeat(32), steps: 59, of: 59 };
    for (const sent of [`${sheet.sheet} 59 steps`, sheet])
      expect(show('fit.sheet_sent', sent)).toBe('abababab… 59 steps');
  });

  it('is no value to whoever reads one, and corrects what stood', () => {
    const at = (value: Fact['value'], facts: readonly Fact[] = []) =>
      fileFact(reduce(facts), 'c', { key: 'symptom', value, how: 'reported' }, author);
    const noise = at('noise');
    const unknown = at(silent('unknown'), [noise]);
    expect(valueOf(reduce([noise]), 'symptom')).toBe('noise');
    expect(valueOf(reduce([noise, unknown]), 'symptom')).toBeUndefined();
    expect(observed(reduce([noise, unknown]), 'symptom').is).toBe('unknown');
    // and is corrected by what is known later, however many said it before
    const other = { ...at(silent('unknown')), id: 'elsewhere' };
    const known = at('leak', [unknown, noise, other]);
    expect(valueOf(reduce([noise, unknown, other, known]), 'symptom')).toBe('leak');
    expect(known.supersedes).toEqual(jasmine.arrayWithExactContents([unknown.id, 'elsewhere']));
    // filed by somebody else at the same time, it contradicts no value
    const merged = reduce([noise, other]);
    expect(valueOf(merged, 'symptom')).toBe('noise');
    expect(merged.slots.all().flatMap((s) => s.rivals)).toEqual([]);
  });
});
