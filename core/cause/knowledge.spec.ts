import { driveHas } from '@core/drive/drive-has';
import { stagesOf } from '@core/drive/stages';
import { FINDINGS } from '@core/examination/finding-data';
import { OBSERVABLES } from '@core/facts/registry';
import { breathe } from '@core/quantity/breathe.fixture';
import { demoPack } from '../../demo/catalogue';
import { UNWEIGHED } from './unweighed';
import { APART, CauseDataSchema, CAUSES, causesFor, type CauseData } from './cause-data';
import { drawReturn } from './draw.fixture';
import { explain } from './explain';
import { lintKnowledge } from './lint';
import { checkWorth } from './next-check';
import { rankCauses } from './rank';
import vignettes from './vignettes.json';

const pack = demoPack();
const has = (id: string) => {
  const v = pack.variants.find((x) => x.id === id);
  const stages = v?.layout === undefined ? undefined : stagesOf(pack.layouts, v.layout);
  if (!stages?.ok) throw new Error(id);
  return driveHas(stages.value);
};
const observables = new Map(OBSERVABLES.map((o) => [o.key, o]));
const known = (key: string) => observables.has(key) || FINDINGS.has(key);
const found = (finding: string, value: string | { x: number; u: number } | { from: number; to: number }) => ({
  finding,
  value,
  facts: [finding],
});

const told = (() => {
  return vignettes.map((v) => ({
    ...v,
    data: causesFor(CAUSES, has(v.variant)),
    findings: v.findings.map(([finding, value]) => found(finding as string, value as string)),
  }));
})();

describe('the knowledge of causes', () => {
  it('has at least eighty causes over all families, and nothing wrong with it', () => {
    expect(CAUSES.causes.length).toBeGreaterThanOrEqual(80);
    expect(new Set(CAUSES.causes.map((c) => c.family)).size).toBe(7);
    expect(lintKnowledge(CAUSES, known)).toEqual([]);
  });

  it('has on each drive of the demo for every cause a mechanism that shows in something there', () => {
    for (const v of pack.variants.filter((x) => x.layout !== undefined)) {
      const data = causesFor(CAUSES, has(v.id));
      const there = new Set(data.mechanisms.map((m) => m.key));
      for (const c of data.causes.filter((x) => x.family !== 'no fault found'))
        expect(Object.keys(c.works).some((m) => there.has(m)))
          .withContext(`${v.id} ${c.key}`)
          .toBeTrue();
    }
  });

  it('weighs whatever can be filed before a case is settled, grade by grade, or says why it does not', () => {
    const weighed = new Map(CAUSES.findings.map((f) => [f.finding, new Set(Object.keys(f.off))]));
    const screens = new Set((CAUSES.screens ?? []).map((s) => s.by[0]));
    const into = new Set([
      ...CAUSES.findings.flatMap((f) => f.inputs ?? []),
      ...Object.values(APART).flatMap((a) => a.inputs),
    ]);
    let grades = 0;
    for (const o of OBSERVABLES) {
      if (o.station === 'settle' || UNWEIGHED.has(o.key) || into.has(o.key) || screens.has(o.key)) continue;
      expect(weighed.has(o.key)).withContext(o.key).toBeTrue();
      if (o.type.kind !== 'choice') continue;
      for (const g of o.type.options) {
        if (!g.abnormal) continue;
        expect(weighed.get(o.key)?.has(g.key)).withContext(`${o.key} ${g.key}`).toBeTrue();
        grades++;
      }
    }
    expect(grades).toBeGreaterThan(250);
    for (const key of UNWEIGHED.keys()) {
      expect(OBSERVABLES.some((o) => o.key === key))
        .withContext(key)
        .toBeTrue();
      expect(weighed.has(key)).withContext(key).toBeFalse();
    }
  });

  it('knows every grade by which a computed finding can be named, and names every grade that it knows of one', () => {
    let named = 0;
    for (const { finding, values } of FINDINGS.values()) {
      const spec = CAUSES.findings.find((f) => f.finding === finding);
      if (!values || !spec) continue;
      expect(Object.keys(values).sort())
        .withContext(finding)
        .toEqual([...spec.sound, ...Object.keys(spec.off)].sort());
      named++;
    }
    expect(named).toBeGreaterThan(15);
  });

  it('is refused with the place where it does not fit together', () => {
    const change = (at: (d: CauseData) => void) => {
      const d: CauseData = structuredClone(CAUSES);
      at(d);
      return lintKnowledge(d, known).map((i) => `${i.code} ${i.at}`);
    };
    const { key } = CAUSES.causes[0]!;
    const mechanism = CAUSES.mechanisms[0]!;
    const finding = Object.keys(mechanism.shows)[0]!;
    expect(change((d) => (d.causes[0]!.works['nowhere'] = 0.5))).toEqual([`unknown cause ${key}`]);
    expect(change((d) => (d.mechanisms[0]!.shows[finding]!['purple'] = 0.01))).toEqual([
      `unknown mechanism ${mechanism.key}, ${finding}`,
    ]);
    expect(
      change((d) => {
        for (const g of Object.keys(d.mechanisms[0]!.shows[finding]!))
          d.mechanisms[0]!.shows[finding]![g] = 0.6;
      }),
    ).toEqual([`adds_up mechanism ${mechanism.key}, ${finding}`]);
    expect(change((d) => (d.causes[0]!.works = {}))).toContain(`idle cause ${key}`);
    expect(change((d) => (d.tilts['belt']!['no family'] = 2))).toEqual(['unknown tilts belt']);
    expect(change((d) => (d.symptoms['noisy']!['noise'] = 0.9))).toEqual(['adds_up symptoms noisy']);
    const named = new Set(Object.values(CAUSES.sheet.names).flat());
    const free = CAUSES.causes.find((c) => !named.has(c.key) && Object.keys(c.works).length > 0)!;
    expect(change((d) => d.causes.push({ ...free, key: 'again' }))).toEqual([`alike cause ${free.key}`]);
    expect(change((d) => d.causes.push(d.causes[0]!))).toEqual([`twice cause ${key}`]);
    expect(
      change((d) => d.findings.push({ finding: 'no.such', sound: ['good'], off: { bad: 0.1 } })),
    ).toEqual(['unknown finding no.such', 'idle finding no.such']);
    expect(CauseDataSchema.safeParse({ ...CAUSES, none: { prior: 2, wording: '' } }).success).toBeFalse();
  });
});

describe('written stories', () => {
  it('are sixty at least, over all engines and families, half of them never tuned on', () => {
    expect(vignettes.length).toBeGreaterThanOrEqual(60);
    expect(vignettes.filter((v) => v.held).length).toBeGreaterThanOrEqual(30);
    expect(new Set(vignettes.map((v) => v.variant.split('/')[0])).size).toBe(pack.engines.length);
    const families = new Set(
      vignettes.flatMap((v) => CAUSES.causes.filter((c) => v.leader.includes(c.key)).map((c) => c.family)),
    );
    expect(families.size).toBe(7);
  });

  it('lead to the cause that a specialist expects: nineteen in twenty first, none below the third', () => {
    let first = 0;
    for (const v of told) {
      const r = rankCauses(v.data, v.findings, 1.5);
      expect(r.strange).withContext(v.story).toEqual([]);
      const at = r.causes.findIndex((c) => v.leader.includes(c.cause.key));
      expect(at).withContext(v.story).toBeGreaterThanOrEqual(0);
      expect(at).withContext(v.story).toBeLessThan(3);
      if (at === 0) first++;
    }
    expect(first / told.length).toBeGreaterThanOrEqual(0.95);
  });

  it('name next what a specialist would look at, in four of five: an expected look is among the first five', () => {
    // written before the worth was looked at and not fitted to it
    const missed = told.filter((v) => {
      const checks = checkWorth(v.data, v.findings);
      const first = checks.slice(0, 5).map((c) => c.finding);
      return !v.next.some((n) => first.includes(n));
    });
    expect(missed.length / told.length)
      .withContext(missed.map((v) => v.story).join('; '))
      .toBeLessThanOrEqual(0.2);
  });
});

describe('what is plausible to a specialist', () => {
  const belt = causesFor(CAUSES, has('TE16-CORM/A'));
  const chain = causesFor(CAUSES, has('QU13-STOA/A'));
  const rank = (data: CauseData, ...f: ReturnType<typeof found>[]) => rankCauses(data, f, 1.5);
  const p = (r: ReturnType<typeof rank>, key: string) =>
    r.causes.find((c) => c.cause.key === key)?.probability ?? 0;

  it('leaves it open why an engine does not start right after the job, and near its priors what a noise alone may be', () => {
    const start = rank(belt, found('symptom', 'no_start'), found('distance.run', { from: 0, to: 50 }));
    expect(start.causes[0]!.probability).toBeLessThan(0.4);
    const noise = rank(chain, found('symptom', 'noise'));
    const prior = rank(chain);
    for (const c of noise.causes.slice(0, 5)) expect(c.probability).toBeLessThan(3 * p(prior, c.cause.key));
  });

  it('makes one and a half teeth a tooth and a rest that needs a reason of its own', () => {
    const r = rank(belt, found('marks.verdict', 'teeth_and_rest'));
    expect(r.causes[0]!.cause.key).toBe('tooth_out');
    expect(p(r, 'seat_slipped')).toBeGreaterThan(p(rank(belt), 'seat_slipped'));
  });

  it('does not blame an eccentric for a rod that is hardly out: a lever has none', () => {
    const lever = causesFor(CAUSES, new Set(['belt', 'lever', 'roller_tensioner', 'mark']));
    const r = rank(lever, found('tensioner.damper_force', 'none'), found('tensioner.rod', 'oily'));
    expect(r.causes[0]!.cause.key).toBe('damper_leaks');
    expect(r.causes.some((c) => c.cause.needs?.includes('eccentric'))).toBeFalse();
  });

  it('says two causes where a tensioner set wrongly and a tooth out came together', () => {
    const both = [
      found('setting.shown', 'wrong_way'),
      found('key.sense', 'wrong'),
      found('marks.verdict', 'teeth_out'),
    ];
    expect(
      explain(belt, both)!
        .pair?.causes.map((c) => c.key)
        .sort(),
    ).toEqual(['set_wrong_way', 'tooth_out']);
  });
});

describe('calibration', () => {
  it('holds on 5,000 returns drawn from the knowledge with its shares off and looks missing: of those stated 80 to 90 % three to nineteen in twenty are right', async () => {
    const drives = [belt(), chain()];
    let [stated, right, brier, atLarge] = [0, 0, 0, 0];
    const N = 5000;
    for (let k = 0; k < N; k++) {
      if (k % 250 === 0) await breathe();
      const data = drives[k % 2]!;
      const drawn = drawReturn(data, k + 1, { noise: 0.5, looked: 0.05 + 0.1 * ((k % 3) / 2), strikes: 2 });
      const r = rankCauses(data, drawn.findings, 1.5);
      const top = r.causes[0]!;
      const off = (x: typeof r) =>
        x.causes.reduce((sum, c) => sum + (c.probability - (c.cause.key === drawn.cause ? 1 : 0)) ** 2, 0) /
        N;
      brier += off(r);
      atLarge += off(rankCauses(data, [], 1.5));
      if (top.probability < 0.8 || top.probability > 0.9) continue;
      stated++;
      if (top.cause.key === drawn.cause) right++;
    }
    expect(stated).toBeGreaterThan(60);
    expect(right / stated).toBeGreaterThan(0.75);
    expect(right / stated).toBeLessThan(0.95);
    // than telling the shares of all returns and nothing else
    expect(brier).toBeLessThan(0.9 * atLarge);
  });
  const belt = () => causesFor(CAUSES, has('TE16-CORM/A'));
  const chain = () => causesFor(CAUSES, has('QU13-STOA/A'));
});
