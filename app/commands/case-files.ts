import { counted, plural } from '../language/plural';
import { inject, Injectable, signal } from '@angular/core';
import { Subject } from 'rxjs';
import { Router } from '@angular/router';
import { summaryOf } from '@core/answer/case-summary';
import { worldOf } from '@core/answer/world';
import { type Catalogue, catalogueOf } from '@core/catalogue/find-records';
import { packId } from '@core/catalogue/version';
import type { CaseFile, ReadCase } from '@core/claim/case-file';
import { saysDesk } from '@core/claim/desk-file';
import { fileFact } from '@core/facts/change';
import { mergeCase } from '@core/facts/consistent';
import type { Fact } from '@core/facts/fact';
import { textOf } from '@core/facts/read';
import { reduce } from '@core/facts/state';
import { CaseDesk } from '../data/case-desk';
import { list } from '../language/list';
import { mergeWords } from '../records/damaged';
import { RecordWork, type WorkLine } from '../data/record-work';
import { Drafts } from '../data/drafts';
import { type Addition, FactRepository } from '../data/fact-repository';
import { Packs } from '../data/packs';
import type { FileRecord } from '../records/records';
import { troubleSentence } from '../data/store-trouble';
import { caseFileSentence } from '../messages/case-file';
import { resultOf, WorkerClient, type WorkerError } from '../threads/worker-client';
import type { DeskCame, DeskCameError, IntakeJobs } from '../workers/intake.protocol';
import { Notices } from './notices';

/** A file whose digest does not match, waiting for a word from the user. */
export type Altered = { name: string; read: ReadCase; files: FileRecord[] };

/** Signs by which a desk file is known. */
const LOOKED_AT = 400;

/** Cases in from open files. */
@Injectable({ providedIn: 'root' })
export class CaseFiles {
  private readonly repository = inject(FactRepository);
  private readonly desk = inject(CaseDesk);
  private readonly packs = inject(Packs);
  private readonly drafts = inject(Drafts);
  private readonly notices = inject(Notices);
  private readonly router = inject(Router);
  private readonly work = inject(RecordWork);
  readonly altered = signal<Altered | undefined>(undefined);

  /** Opens a case file, a bundle or a desk file: all of it, or nothing and the reason. Read in a thread, which can be stopped. */
  async open(file: File): Promise<void> {
    const begins = await file.slice(0, LOOKED_AT).text();
    const stop = new Subject<void>();
    const line = this.work.start(`Reading ${file.name}`, () => stop.next());
    // A thread for each file: what ends one leaves the others alone.
    const client = new WorkerClient<IntakeJobs>(
      () => new Worker(new URL('../workers/intake.worker', import.meta.url), { type: 'module' }),
    );
    try {
      if (!isZip(file.name) && saysDesk(begins)) await this.openDesk(file, client, stop, line);
      else await this.openCase(file, client, stop, line);
    } finally {
      line.end();
      client.dispose();
    }
  }

  private async openCase(
    file: File,
    client: WorkerClient<IntakeJobs>,
    stop$: Subject<void>,
    line: WorkLine,
  ): Promise<void> {
    const { name } = file;
    const came = await resultOf(client.job('case', { name, blob: file }), { stop$ });
    line.end();
    if (!came.ok) return this.unread(name, came.error);
    if (!came.value.ok) return this.notices.refuse(caseFileSentence(name, came.value.error));
    const { read, files, refs, uncleaned } = came.value.value;
    if (uncleaned.length > 0)
      void this.notices.say(
        'warning',
        `${list(uncleaned)} came with more than what draws ${plural(uncleaned.length, 'it', 'them')}: where it was taken may be in it, and goes out again with the case.`,
      );
    if (read.digest === 'altered') this.altered.set({ name, read, files });
    else if (await this.take(name, read.file, files)) this.welcome(name, read, refs);
  }

  /** Everything that another desk, or this one in trouble, gave out: every case is merged, or none. */
  private async openDesk(
    file: File,
    client: WorkerClient<IntakeJobs>,
    stop$: Subject<void>,
    line: WorkLine,
  ): Promise<void> {
    const { name } = file;
    const came = await resultOf(client.job('desk', file), {
      stop$,
      tell: ({ done, of }) => line.done(done, of),
    });
    // Stopped as it was being written, it may be here all the same: the rack looks again.
    if (!came.ok)
      this.repository.tell({ grown: [], summaries: [], packs: [], extracts: [], allSummaries: true });
    if (!came.ok) return this.unread(name, came.error);
    if (!came.value.ok) {
      if (came.value.error.code !== 'cut') this.notices.refuse(deskFileSentence(name, came.value.error));
      return;
    }
    const { cases } = came.value.value;
    this.repository.tell({ grown: cases, summaries: [], packs: [], extracts: [], allSummaries: true });
    this.rescued(name, came.value.value);
  }

  /** What was stopped was not done, and needs no word. */
  private unread(name: string, e: WorkerError): void {
    if (e.code !== 'cancelled')
      this.notices.refuse(`${name} could not be read: ${e.detail}. Nothing was changed; try again.`);
  }

  private rescued(name: string, { cases, left, drafts }: DeskCame): void {
    this.drafts.bringBack(drafts);
    for (const d of left) this.repository.setAside(d);
    const lost =
      left.length === 0
        ? ''
        : ` ${left.length} of its facts cannot stand with the others of their case and were set aside; they can be exported as damaged records.`;
    void this.notices.say(
      lost === '' ? 'success' : 'warning',
      `${name}: ${cases.length} cases are on the rack.${lost}`,
    );
  }

  /** Takes an altered file in all the same; the case then says so in a fact of its own. */
  async takeAltered(): Promise<void> {
    const waiting = this.altered();
    this.altered.set(undefined);
    if (!waiting) return;
    const { file, altered } = waiting.read;
    const words = altered
      .map((a) => `${a.part}: stated ${a.stated.slice(0, 12)}…, found ${a.found.slice(0, 12)}…`)
      .join('; ');
    const mark = fileFact(
      reduce(file.facts),
      file.case,
      { key: 'case.altered', value: words, how: 'imported' },
      this.desk.author(),
    );
    await this.take(waiting.name, { ...file, facts: [...file.facts, mark] }, waiting.files);
  }

  private async take(name: string, file: CaseFile, files: readonly FileRecord[]): Promise<boolean> {
    const merged = await this.merged(name, file.case, file.facts);
    if (!merged) return false;
    const known = this.packs.names().some((h) => h.id === packId(file.catalogue));
    const named = textOf(reduce(merged), 'case.catalogue');
    const catalogue = known ? await this.packs.forCase(file.case, named) : catalogueOf(file.catalogue);
    const extract = known ? undefined : { case: file.case, pack: file.catalogue };
    if (!(await this.add(name, { facts: file.facts, files, extract }, () => catalogue))) return false;
    await this.router.navigate(['/case', file.case, 'call']);
    return true;
  }

  /** The facts of a case here with those of a file; undefined when they cannot be one case, which is told. */
  private async merged(name: string, id: string, facts: readonly Fact[]): Promise<Fact[] | undefined> {
    const stranger = await this.repository.foreign(facts);
    if (stranger) {
      this.notices.refuse(
        `${name} holds fact ${stranger.id}, which belongs to another case here. Nothing was changed.`,
      );
      return undefined;
    }
    const merged = mergeCase(await this.repository.factsOf(id), facts);
    if (merged.ok) return merged.value;
    this.notices.refuse(`${name} cannot be merged: ${mergeWords(merged.error)}. Nothing was changed.`);
    return undefined;
  }

  private async add(
    name: string,
    addition: Addition,
    catalogue: (caseId: string) => Catalogue | undefined,
  ): Promise<boolean> {
    const filed = await this.repository.add(addition, (id, all) => {
      const cat = catalogue(id);
      return summaryOf(id, all, cat && worldOf(cat));
    });
    if (!filed.ok) this.notices.refuse(`${name} was not taken in. ${troubleSentence(filed.error)}`);
    return filed.ok;
  }

  private welcome(name: string, read: ReadCase, files: number): void {
    const verified =
      read.digest === 'verified'
        ? 'unchanged since it was written, the case is on the rack.'
        : `its ${list(read.covers)} did not change since it was written; the file is of an earlier make and says nothing of the rest. The case is on the rack.`;
    const lacking =
      files > 0 && !isZip(name)
        ? ` Its facts point to ${counted(files, 'file', 'files')}, which only a bundle brings along.`
        : '';
    void this.notices.say('success', `${name}: ${verified}${lacking}`);
  }
}

const isZip = (name: string): boolean => name.toLowerCase().endsWith('.zip');

/** Why a desk file was not taken in, where, and what to do. */
function deskFileSentence(name: string, e: Exclude<DeskCameError, { code: 'cut' }>): string {
  if (e.code === 'foreign')
    return `${name} holds fact ${e.id}, which belongs to another case here. Nothing was changed.`;
  if (e.code === 'no_merge') return `${name} cannot be merged: ${mergeWords(e.why)}. Nothing was changed.`;
  return caseFileSentence(name, e);
}
