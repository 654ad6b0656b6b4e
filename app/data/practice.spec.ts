import { TestBed } from '@angular/core/testing';
import { deleteDB } from 'idb';
import { must } from '@core/quantity/must';
import { Cases } from './cases';
import { Drafts } from './drafts';
import { FactRepository } from './fact-repository';
import { Practice } from './practice';
import { PracticeBench } from './practice-bench';
import { PracticeFiles } from './practice-files';
import { PRACTICE_DATABASE } from '../records/practice-db';
import { PracticeRecords } from './practice-records';
import { closeDesk, openDesk } from '../testing/demo-desk';
import type { CaseDesk } from './case-desk';

describe('returns for practice beside the desk’s records', () => {
  let desk: CaseDesk;
  let practice: Practice;
  beforeEach(async () => {
    await deleteDB(PRACTICE_DATABASE);
    desk = await openDesk();
    practice = TestBed.inject(Practice);
    await practice.load();
  });
  afterEach(() => closeDesk());

  const begin = async (theme = 'plungers'): Promise<string> => {
    const begun = await practice.begin(theme);
    if (!begun.ok) throw new Error(JSON.stringify(begun.error));
    return begun.value;
  };
  const ofTensioner = (key: string) => must(desk.registry().get(key));

  it('are worked at the desk like a case, and never come among its facts, summaries or drafts', async () => {
    const repository = TestBed.inject(FactRepository);
    const before = TestBed.inject(Cases).summaries().length;
    const id = await begin();
    expect(desk.practising()).toBeTrue();
    expect(must(desk.current()).state.log.length).toBeGreaterThan(5);
    await desk.file({ key: 'tensioner.air', value: 'spongy', how: 'seen' });
    TestBed.inject(Drafts).keep(id, 'complaint', 'half typed');
    await repository.written();
    expect(await repository.factsOf(id)).toEqual([]);
    expect(TestBed.inject(Cases).summaries().length).toBe(before);
    expect(JSON.stringify(TestBed.inject(Drafts).all())).not.toContain('half typed');
    for await (const facts of repository.allFacts())
      expect(facts.some((f) => f.case.startsWith('practice-'))).toBeFalse();
    expect((await desk.seal()).ok).toBeTrue();
    expect(must(desk.current()).state.log.some((f) => f.key === 'report.issue')).toBeFalse();
  });

  it('are refused where they would be written among cases', async () => {
    const id = await begin();
    const repository = TestBed.inject(FactRepository);
    const facts = must(desk.current()).state.log;
    const added = await repository.add({ facts });
    expect(added.ok).toBeFalse();
    const grown = await repository.extend(id, () => facts);
    expect(grown.ok).toBeFalse();
    expect(await repository.factsOf(id)).toEqual([]);
  });

  it('show nothing before a look, the same after it, and take its minutes once', async () => {
    await begin();
    const bench = TestBed.inject(PracticeBench);
    const o = ofTensioner('tensioner.activated');
    const first = must(bench.toLook(o, undefined));
    expect(first.seen).toBeUndefined();
    await bench.look(o, undefined);
    const seen = must(bench.toLook(o, undefined)).seen;
    expect(seen).toBeDefined();
    expect(bench.minutes()).toBe(first.minutes);
    if (seen?.is === 'found') {
      await bench.takeOver(o, undefined);
      const filed = must(desk.current()).state.log.findLast((f) => f.key === o.key);
      expect(filed?.value).toEqual(must(seen.lies[0]).value);
    }
    // it is kept: another window of this desk sees the same
    const again = new PracticeRecords();
    await again.load();
    expect(again.runs().map((r) => r.looks.length)).toContain(1);
    again.ngOnDestroy();
  });

  it('are closed by the verdict: nothing is filed into a decided one, and no look is made of it', async () => {
    await begin();
    const bench = TestBed.inject(PracticeBench);
    const records = TestBed.inject(PracticeRecords);
    const run = must(bench.run());
    const before = must(desk.current()).state.log.length;
    await records.keepRun({
      ...run,
      done: { cause: 'no_fault', sure: 0.5, at: run.begun, right: false, family: 'x', minutes: 0, best: 0 },
    });
    const filed = await desk.file({ key: 'tensioner.air', value: 'spongy', how: 'seen' });
    expect(filed.ok ? '' : filed.error.code).toBe('unfit');
    expect(must(desk.current()).state.log.length).toBe(before);
    expect(bench.toLook(ofTensioner('tensioner.activated'), undefined)).toBeUndefined();
  });

  it('are the same set of the week wherever they are drawn, and another return each time otherwise', async () => {
    const week = await practice.beginSet('mixed', 202649);
    const again = await practice.beginSet('mixed', 202649);
    expect(week.ok && week.value).toBe('practice-mixed-2026491');
    expect(again).toEqual(week);
    expect(await begin()).not.toBe(await begin());
  });

  it('go out and come in as a file, all or nothing', async () => {
    await begin();
    const files = TestBed.inject(PracticeFiles);
    const settled = files.settled()[0];
    if (settled) await files.fromCase(settled.id);
    const text = files.written();
    const own = files.returns().length;
    const taken = await files.take(new File([text], 'practice.json'));
    expect(taken.ok && taken.value.returns).toBe(own);
    const broken = await files.take(
      new File([text.replace('"formatVersion": 1', '"formatVersion": 9')], 'x.json'),
    );
    expect(broken.ok ? '' : broken.error.code).toBe('newer_version');
    expect(files.returns().length).toBe(own);
  });
});
