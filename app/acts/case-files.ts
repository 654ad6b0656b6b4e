import { inject, Injectable, signal } from '@angular/core';
import { Router } from '@angular/router';
import { headOf } from '@core/answer/head';
import { worldOf } from '@core/answer/world';
import { extractPack } from '@core/catalogue/extract-pack';
import { type Catalogue, catalogueOf } from '@core/catalogue/find-records';
import { packId } from '@core/catalogue/version';
import { bundlePath, BUNDLE, filesOf } from '@core/claim/bundle';
import { type CaseFile, type ReadCase, writeCaseFile } from '@core/claim/case-file';
import { deskFileFrame, saysDesk } from '@core/claim/desk-file';
import { LARGEST_FILE_OF_FACTS } from '@core/claim/read-shape';
import { sealedNow } from '@core/claim/seal';
import { checkFacts } from '@core/facts/consistent';
import { fileFact, mergeFacts } from '@core/facts/change';
import type { Fact } from '@core/facts/fact';
import { textOf } from '@core/facts/read';
import { reduce } from '@core/facts/state';
import { CaseDesk } from '../data/case-desk';
import type { CaseView } from '../data/case-view';
import { Clock } from '../data/clock';
import { hashOf } from '../data/hash';
import { list } from '../words/list';
import { mergeWords } from '../data/damaged';
import { HeadProgress } from '../data/head-progress';
import { Drafts } from '../data/drafts';
import { type Addition, FactRepository } from '../data/fact-repository';
import { Packs } from '../data/packs';
import type { FileRecord } from '../data/records';
import { troubleSentence } from '../data/store-trouble';
import { caseFileSentence } from '../words/case-file';
import { Door, type DoorError } from '../workers/door';
import type { DeskCame, DeskCameError, IntakeJobs } from '../workers/intake.protocol';
import { download } from './download';
import { Say } from './say';
import { Reports } from './reports';

/** A file whose digest does not match, waiting for a word from the user. */
export type Altered = { name: string; read: ReadCase; files: FileRecord[] };

/** Signs by which a desk file is known. */
const LOOKED_AT = 400;

/** Cases out to open files and in again. */
@Injectable({ providedIn: 'root' })
export class CaseFiles {
  private readonly repository = inject(FactRepository);
  private readonly desk = inject(CaseDesk);
  private readonly packs = inject(Packs);
  private readonly drafts = inject(Drafts);
  private readonly clock = inject(Clock);
  private readonly words = inject(Say);
  private readonly router = inject(Router);
  private readonly reports = inject(Reports);
  private readonly reading = inject(HeadProgress);
  private readonly door = new Door<IntakeJobs>(
    () => new Worker(new URL('../workers/intake.worker', import.meta.url), { type: 'module' }),
  );
  readonly altered = signal<Altered | undefined>(undefined);

  /** The case alone, as JSON. */
  export(view: CaseView): void {
    const file = this.written(view);
    if (file) save(`case-${view.tag}.json`, file);
  }

  /** The case with every file that it points to, and its report when it is sealed, as a zip. */
  async exportBundle(view: CaseView): Promise<void> {
    const files = filesOf(view.state.log);
    const kept = await Promise.all(files.map((f) => this.repository.fileOf(f.hash)));
    const missing = files.filter((_, i) => kept[i] === undefined);
    const report = await this.reportOf(view);
    const file = this.written(view, {
      missing: missing.map((m) => m.hash),
      report: report && (await hashOf(report)),
    });
    if (!file) return;
    const { zipSync, strToU8 } = await import('fflate');
    const entries: Record<string, Uint8Array> = { [BUNDLE.case]: strToU8(json(file)) };
    for (const [i, f] of files.entries()) {
      const record = kept[i];
      if (record) entries[bundlePath(f)] = new Uint8Array(await record.blob.arrayBuffer());
    }
    if (report) entries[BUNDLE.report] = report;
    download(`case-${view.tag}.zip`, new Blob([zipSync(entries, { level: 6 })], { type: 'application/zip' }));
    if (missing.length > 0)
      void this.words.say(
        'warning',
        `${missing.map((m) => m.name).join(', ')} ${missing.length === 1 ? 'is' : 'are'} not in this browser, and so not in the bundle. It says so.`,
        12_000,
      );
  }

  /** The bare facts of a case that cannot be computed, as they lie in the store. */
  exportFacts(view: CaseView): void {
    save(`facts-${view.tag === '—' ? view.id : view.tag}.json`, { case: view.id, facts: view.state.log });
  }

  /** Every fact of this browser and all half-typed text, in one file: for when the records are in trouble. */
  async exportDesk(): Promise<void> {
    const [head, foot] = deskFileFrame(this.clock.now(), this.drafts.all());
    const pieces: Blob[] = [];
    const view = this.desk.current();
    // Of the case in hand, what was not read from the records is still in the page.
    const unread = new Map((view?.state.log ?? []).map((f) => [f.id, f]));
    try {
      for await (const facts of this.repository.allFacts()) {
        for (const f of facts) unread.delete(f.id);
        if (facts.length > 0) pieces.push(rows(facts));
      }
    } catch (e) {
      if (unread.size > 0) pieces.push(rows([...unread.values()]));
      this.words.refuse(
        `The records could not be read to their end (${e instanceof Error ? e.message : String(e)}). desk.json holds what could be; other cases may be missing from it.`,
      );
    }
    const body = pieces.flatMap((piece, i) => (i === 0 ? [piece] : [',\n', piece]));
    download('desk.json', new Blob([head, ...body, foot], { type: 'application/json' }));
  }

  /** Records that were set aside as damaged, as they lie in the store. */
  exportDamaged(): void {
    save('damaged-records.json', this.repository.damaged());
  }

  /** Opens a case file, a bundle or a desk file: all of it, or nothing and the reason. Read in a thread, which can be stopped. */
  async open(file: File): Promise<void> {
    const begins = await file.slice(0, LOOKED_AT).text();
    const stop = new AbortController();
    this.reading.start(() => stop.abort(), `Reading ${file.name}`);
    try {
      if (!isZip(file.name) && saysDesk(begins)) await this.openDesk(file, stop.signal);
      else await this.openCase(file, stop.signal);
    } finally {
      this.reading.end();
      this.door.dispose();
    }
  }

  private async openCase(file: File, signal: AbortSignal): Promise<void> {
    const { name } = file;
    const came = await this.door.ask('case', { name, blob: file }, { signal });
    this.reading.end();
    if (!came.ok) return this.unread(name, came.error);
    if (!came.value.ok) return this.words.refuse(caseFileSentence(name, came.value.error));
    const { read, files, refs, uncleaned } = came.value.value;
    if (uncleaned.length > 0)
      void this.words.say(
        'warning',
        `${list(uncleaned)} came with more than what draws ${uncleaned.length === 1 ? 'it' : 'them'}: where it was taken may be in it, and goes out again with the case.`,
      );
    if (read.digest === 'altered') this.altered.set({ name, read, files });
    else if (await this.take(name, read.file, files)) this.welcome(name, read, refs);
  }

  /** Everything that another desk, or this one in trouble, gave out: every case is merged, or none. */
  private async openDesk(file: File, signal: AbortSignal): Promise<void> {
    const { name } = file;
    const came = await this.door.ask('desk', file, {
      signal,
      progress: ({ done, of }) => this.reading.done(done, of),
    });
    if (!came.ok) return this.unread(name, came.error);
    if (!came.value.ok) {
      if (came.value.error.code !== 'cut') this.words.refuse(deskFileSentence(name, came.value.error));
      return;
    }
    const { cases } = came.value.value;
    this.repository.tell({ grown: cases, heads: [], packs: [], extracts: [], allHeads: true });
    this.rescued(name, came.value.value);
  }

  /** What was stopped was not done, and needs no word. */
  private unread(name: string, e: DoorError): void {
    if (e.code !== 'cancelled')
      this.words.refuse(`${name} could not be read: ${e.detail}. Nothing was changed; try again.`);
  }

  private rescued(name: string, { cases, left, drafts }: DeskCame): void {
    this.drafts.bringBack(drafts);
    for (const d of left) this.repository.setAside(d);
    const lost =
      left.length === 0
        ? ''
        : ` ${left.length} of its facts cannot stand with the others of their case and were set aside; they can be exported as damaged records.`;
    void this.words.say(
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
    const known = this.packs.heads().some((h) => h.id === packId(file.catalogue));
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
      this.words.refuse(
        `${name} holds fact ${stranger.id}, which belongs to another case here. Nothing was changed.`,
      );
      return undefined;
    }
    const merged = mergeFacts(await this.repository.factsOf(id), facts);
    const fault = merged.ok ? checkFacts(merged.value) : merged.error;
    if (merged.ok && !fault) return merged.value;
    this.words.refuse(`${name} cannot be merged: ${mergeWords(fault!)}. Nothing was changed.`);
    return undefined;
  }

  private async add(
    name: string,
    addition: Addition,
    catalogue: (caseId: string) => Catalogue | undefined,
  ): Promise<boolean> {
    const filed = await this.repository.add(addition, (id, all) => {
      const cat = catalogue(id);
      return headOf(id, all, cat && worldOf(cat));
    });
    if (!filed.ok) this.words.refuse(`${name} was not taken in. ${troubleSentence(filed.error)}`);
    return filed.ok;
  }

  private welcome(name: string, read: ReadCase, files: number): void {
    const verified =
      read.digest === 'verified'
        ? 'digest verified, the case is on the rack.'
        : `the digest of its ${list(read.covers)} is verified; the file is of an earlier make, and the rest of it is under none. The case is on the rack.`;
    const lacking =
      files > 0 && !isZip(name)
        ? ` Its facts point to ${files} ${files === 1 ? 'file' : 'files'}, which only a bundle brings along.`
        : '';
    void this.words.say('success', `${name}: ${verified}${lacking}`);
  }

  private written(view: CaseView, beside: Parameters<typeof writeCaseFile>[4] = {}): CaseFile | undefined {
    if (!view.catalogue) {
      this.words.refuse(
        'Its catalogue is not in this browser, so its file cannot carry it. Import the catalogue, or export the bare facts.',
      );
      return undefined;
    }
    const pack = extractPack(
      view.catalogue,
      textOf(view.state, 'engine.code'),
      textOf(view.state, 'kit.number'),
    );
    const file = writeCaseFile(view.id, view.state.log, pack, this.clock.now(), beside);
    const size = json(file).length;
    if (size > LARGEST_FILE_OF_FACTS)
      this.words.refuse(
        `The file of this case has ${Math.ceil(size / 1e6)} MB, and at most ${Math.floor(LARGEST_FILE_OF_FACTS / 1e6)} MB are read back. It is written all the same; send long texts as files instead.`,
      );
    return file;
  }

  /** The issued report, when what is known is sealed. */
  private async reportOf(view: CaseView): Promise<Uint8Array<ArrayBuffer> | undefined> {
    if (!view.answers || !sealedNow(view.answers.seals)) return undefined;
    return new Uint8Array(await (await this.reports.pdf(view)).arrayBuffer());
  }
}

/** Facts as rows of a list, out of the script's memory. */
const rows = (facts: readonly Fact[]): Blob => new Blob([facts.map((f) => JSON.stringify(f)).join(',\n')]);
const isZip = (name: string): boolean => name.toLowerCase().endsWith('.zip');
const json = (content: unknown): string => JSON.stringify(content, null, 2);
const save = (name: string, content: unknown): void =>
  download(name, new Blob([json(content)], { type: 'application/json' }));

/** Why a desk file was not taken in, where, and what to do. */
function deskFileSentence(name: string, e: Exclude<DeskCameError, { code: 'cut' }>): string {
  if (e.code === 'foreign')
    return `${name} holds fact ${e.id}, which belongs to another case here. Nothing was changed.`;
  if (e.code === 'no_merge') return `${name} cannot be merged: ${mergeWords(e.why)}. Nothing was changed.`;
  return caseFileSentence(name, e);
}
