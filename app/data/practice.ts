import { computed, inject, Injectable } from '@angular/core';
import { registryFor } from '@core/answer/world';
import type { NewFact } from '@core/facts/change';
import type { After, Verdict } from '@core/practice/after';
import { type DrawError, drawCase } from '@core/practice/draw-case';
import { entryOf } from '@core/practice/entry';
import { type Done, isDecided, type Run, spacing, type Spaced } from '@core/practice/record';
import { SET_OF, weekOf } from '@core/practice/themes';
import { TRUTHS } from '@core/practice/truths';
import type { VirtualCase } from '@core/practice/virtual-case';
import { type Result, err, ok } from '@core/quantity/result';
import { resultOf, WorkerClient, type WorkerError } from '../threads/worker-client';
import type { PracticeJobs } from '../workers/practice.protocol';
import { CaseDesk } from './case-desk';
import { Clock } from './clock';
import { DeskPolicy } from './desk-policy';
import { OwnNumbers } from './own-numbers';
import { Packs } from './packs';
import { PracticeRecords } from './practice-records';
import type { StoreTrouble } from './store-trouble';

export type BeginError = DrawError | { code: 'no_catalogue' } | StoreTrouble;
/** Key of the set of a week. */
const weekKey = (week: number): string => `week-${week}`;

/** Returns for practice: drawn, worked at the stations, decided, and looked back on. */
@Injectable({ providedIn: 'root' })
export class Practice {
  private readonly desk = inject(CaseDesk);
  private readonly records = inject(PracticeRecords);
  private readonly packs = inject(Packs);
  private readonly policy = inject(DeskPolicy);
  private readonly ownNumbers = inject(OwnNumbers);
  private readonly clock = inject(Clock);
  private client: WorkerClient<PracticeJobs> | undefined;
  readonly runs = this.records.runs;
  readonly done = computed<readonly Done[]>(() => this.runs().filter(isDecided));
  /** Begun and not decided, the latest first. */
  readonly open = computed(() =>
    this.runs()
      .filter((r) => !isDecided(r))
      .sort((a, b) => (a.begun < b.begun ? 1 : -1)),
  );
  /** What to practise, by the rule of spacing. */
  readonly spaced = computed<readonly Spaced[]>(() => {
    const familyOf = new Map(this.policy.judging().knowledge.causes.causes.map((c) => [c.key, c.family]));
    const families = new Set(TRUTHS.flatMap((t) => familyOf.get(t.cause) ?? []));
    return spacing(this.done(), [...families]);
  });

  load(): Promise<void> {
    return this.records.load();
  }

  /** The return of a theme that was not drawn yet here. */
  begin(theme: string, family?: string): Promise<Result<string, BeginError>> {
    const drawn = new Set(this.runs().map((r) => r.case.id));
    return this.draw(theme, family, (id) => !drawn.has(id));
  }

  /** A set of so many of one theme: begins its first, or goes on where it was left. */
  async beginSet(theme: string, week?: number): Promise<Result<string, BeginError>> {
    const key = week === undefined ? `${theme}-${this.setsOf(theme)}` : weekKey(week);
    const mine = this.runs().filter((r) => r.set?.key === key);
    const left = mine.find((r) => !isDecided(r));
    if (left) return ok(left.case.id);
    const at = mine.length + 1;
    if (week === undefined) {
      const begun = await this.begin(theme);
      return begun.ok ? this.intoSet(begun.value, key, at) : begun;
    }
    if (at > SET_OF) return ok(mine[0]?.case.id ?? '');
    const begun = await this.draw('mixed', undefined, () => true, 10 * week + at);
    return begun.ok ? this.intoSet(begun.value, key, at) : begun;
  }

  /** Goes on with the set of a run. */
  next(run: Run): Promise<Result<string, BeginError>> {
    const week = /^week-(\d+)$/.exec(run.set?.key ?? '')?.[1];
    if (week !== undefined) return this.beginSet('mixed', Number(week));
    return run.set && run.case.theme !== undefined ? this.beginSet(run.case.theme) : this.beginWeakest();
  }

  /** A return of the family that is due. */
  beginWeakest(): Promise<Result<string, BeginError>> {
    return this.begin('mixed', this.spaced()[0]?.family);
  }

  readonly week = (): number => weekOf(this.clock.today());

  /** How many sets of a theme were finished. */
  private setsOf(theme: string): number {
    const full = new Map<string, number>();
    for (const r of this.done())
      if (r.set?.key.startsWith(`${theme}-`)) full.set(r.set.key, (full.get(r.set.key) ?? 0) + 1);
    return [...full.values()].filter((n) => n >= SET_OF).length;
  }

  private async intoSet(id: string, key: string, at: number): Promise<Result<string, BeginError>> {
    const run = this.runs().find((r) => r.case.id === id);
    const kept = run && (await this.records.keepRun({ ...run, set: { key, at } }));
    return kept && !kept.ok ? kept : ok(id);
  }

  private async draw(
    theme: string,
    family: string | undefined,
    wanted: (id: string) => boolean,
    from = 1,
  ): Promise<Result<string, BeginError>> {
    const cat = this.packs.newest();
    if (!cat) return err({ code: 'no_catalogue' });
    const { knowledge, policy } = this.policy.judging();
    const registry = registryFor({ catalogue: cat, knowledge });
    for (let seed = from; ; seed++) {
      const drawn = drawCase({ cat, registry, causes: knowledge.causes, policy }, seed, theme, family);
      if (!drawn.ok) return drawn;
      if (wanted(drawn.value.id)) return this.start(drawn.value);
    }
  }

  /** Opens a return, as new. */
  async start(c: VirtualCase): Promise<Result<string, BeginError>> {
    if (this.runs().some((r) => r.case.id === c.id)) await this.records.drop(c.id);
    const kept = await this.records.keepRun({ case: c, begun: this.clock.now(), looks: [] });
    if (!kept.ok) return kept;
    await this.desk.open(c.id);
    const pack = this.packs.newestId();
    const filed = await this.desk.fileAll([
      { key: 'case.tag', value: 'Practice', how: 'decided' },
      ...(pack === undefined
        ? []
        : [{ key: 'case.catalogue', value: pack, how: 'decided' } satisfies NewFact]),
      { key: 'case.kind', value: 'return', how: 'decided' },
      ...c.opening.map(entryOf),
    ]);
    return filed.ok ? ok(c.id) : filed;
  }

  /** Looks back on a run. Progress is none: it takes a second. */
  async after(run: Run, verdict: Verdict): Promise<Result<After, WorkerError>> {
    const pack = this.packs.newestId();
    this.client ??= new WorkerClient<PracticeJobs>(
      () => new Worker(new URL('../workers/practice.worker', import.meta.url), { type: 'module' }),
    );
    return resultOf(
      this.client.job('after', {
        pack: pack ?? '',
        changes: this.ownNumbers.changes(),
        policy: this.policy.judging().policy,
        run,
        facts: await this.records.factsOf(run.case.id),
        verdict,
      }),
    );
  }

  /** Decides a run: from here on nothing of it changes. */
  async decide(run: Run, verdict: Verdict): Promise<Result<Done, WorkerError | StoreTrouble>> {
    const after = await this.after(run, verdict);
    if (!after.ok) return after;
    const causes = this.policy.judging().knowledge.causes.causes;
    const done: Done = {
      ...run,
      done: {
        ...verdict,
        at: this.clock.now(),
        right: after.value.right,
        family: causes.find((c) => c.key === run.case.cause)?.family ?? '',
        minutes: after.value.own.minutes,
        best: after.value.best.minutes,
      },
    };
    const kept = await this.records.keepRun(done);
    return kept.ok ? ok(done) : kept;
  }
}
