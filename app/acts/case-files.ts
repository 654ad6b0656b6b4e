import { inject, Injectable, signal } from '@angular/core';
import { Router } from '@angular/router';
import { NzMessageService } from 'ng-zorro-antd/message';
import { headOf } from '@core/answer/head';
import { worldOf } from '@core/answer/world';
import { extractPack } from '@core/catalogue/extract-pack';
import { catalogueOf } from '@core/catalogue/find-records';
import { packId } from '@core/catalogue/version';
import { bundlePath, BUNDLE, checkBundle, filesOf, statedHash } from '@core/claim/bundle';
import {
  type CaseFile,
  LARGEST_CASE,
  type ReadCase,
  readCaseFile,
  writeCaseFile,
} from '@core/claim/case-file';
import { sealedNow } from '@core/claim/seal';
import { fileFact, mergeFacts } from '@core/facts/change';
import { textOf } from '@core/facts/read';
import { reduce } from '@core/facts/state';
import { CaseDesk } from '../data/case-desk';
import type { CaseView } from '../data/case-view';
import { Clock } from '../data/clock';
import { FactRepository } from '../data/fact-repository';
import { hashOf } from '../data/hash';
import { Packs } from '../data/packs';
import type { FileRecord } from '../data/records';
import { troubleSentence } from '../data/store-trouble';
import { caseFileSentence } from '../words/case-file';
import { download } from './download';
import { Reports } from './reports';

/** A file whose digest does not match, waiting for a word from the user. */
export type Altered = { name: string; read: ReadCase; files: FileRecord[] };

/** Cases out to open files and in again. */
@Injectable({ providedIn: 'root' })
export class CaseFiles {
  private readonly repository = inject(FactRepository);
  private readonly desk = inject(CaseDesk);
  private readonly packs = inject(Packs);
  private readonly clock = inject(Clock);
  private readonly message = inject(NzMessageService);
  private readonly router = inject(Router);
  private readonly reports = inject(Reports);
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
    const file = this.written(
      view,
      missing.map((m) => m.hash),
    );
    if (!file) return;
    const { zipSync, strToU8 } = await import('fflate');
    const entries: Record<string, Uint8Array> = { [BUNDLE.case]: strToU8(json(file)) };
    for (const [i, f] of files.entries()) {
      const record = kept[i];
      if (record) entries[bundlePath(f)] = new Uint8Array(await record.blob.arrayBuffer());
    }
    const report = await this.reportOf(view);
    if (report) entries[BUNDLE.report] = report;
    download(`case-${view.tag}.zip`, new Blob([zipSync(entries, { level: 6 })], { type: 'application/zip' }));
    if (missing.length > 0)
      this.message.warning(
        `${missing.map((m) => m.name).join(', ')} ${missing.length === 1 ? 'is' : 'are'} not in this browser, and so not in the bundle. It says so.`,
        { nzDuration: 12000 },
      );
  }

  /** The bare facts of a case that cannot be computed, as they lie in the store. */
  exportFacts(view: CaseView): void {
    save(`facts-${view.tag === '—' ? view.id : view.tag}.json`, { case: view.id, facts: view.state.log });
  }

  /** Records that were set aside as damaged, as they lie in the store. */
  exportDamaged(): void {
    save('damaged-records.json', this.repository.damaged());
  }

  /** Opens a case file or a bundle: all of it, or nothing and the reason. */
  async open(file: File): Promise<void> {
    const name = file.name;
    const bundle = name.toLowerCase().endsWith('.zip');
    if (!bundle && file.size > LARGEST_CASE) {
      this.refuse(caseFileSentence(name, { code: 'too_large', bytes: file.size, most: LARGEST_CASE }));
      return;
    }
    const files: FileRecord[] = [];
    let text: string;
    const found = new Map<string, string>();
    if (bundle) {
      const { unzip } = await import('../workers/unpack');
      const zip = unzip(name, new Uint8Array(await file.arrayBuffer()));
      const inside = zip.ok ? zip.value.find((e) => e.name === BUNDLE.case) : undefined;
      if (!zip.ok || !inside) {
        this.refuse(caseFileSentence(name, zip.ok ? { code: 'no_case' } : zip.error));
        return;
      }
      text = new TextDecoder().decode(inside.bytes);
      for (const e of zip.value) {
        const stated = statedHash(e.name);
        if (stated === undefined) continue;
        const bytes = new Uint8Array(e.bytes);
        found.set(stated, await hashOf(bytes));
        files.push({ sha256: stated, name: '', type: '', blob: new Blob([bytes]) });
      }
    } else text = await file.text();
    const read = readCaseFile(text);
    const fault = read.ok && bundle ? checkBundle(read.value.file, found) : undefined;
    if (!read.ok || fault) {
      this.refuse(caseFileSentence(name, read.ok ? fault! : read.error));
      return;
    }
    const refs = new Map(filesOf(read.value.file.facts).map((f) => [f.hash, f]));
    const records = files.flatMap(({ sha256, blob }) => {
      const ref = refs.get(sha256);
      return ref
        ? [{ sha256, name: ref.name, type: ref.type, blob: new Blob([blob], { type: ref.type }) }]
        : [];
    });
    if (read.value.digest === 'altered') this.altered.set({ name, read: read.value, files: records });
    else if (await this.take(name, read.value.file, records)) this.welcome(name, read.value, refs.size);
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
    const stranger = await this.repository.foreign(file.facts);
    if (stranger) {
      this.refuse(
        `${name} holds fact ${stranger.id}, which belongs to another case here. Nothing was changed.`,
      );
      return false;
    }
    const merged = mergeFacts(await this.repository.factsOf(file.case), file.facts);
    if (!merged.ok) {
      this.refuse(
        `${name} holds fact ${merged.error.id} with other content than the one here. Nothing was changed.`,
      );
      return false;
    }
    const known = this.packs.heads().some((h) => h.id === packId(file.catalogue));
    const named = textOf(reduce(merged.value), 'case.catalogue');
    const catalogue = known ? await this.packs.forCase(file.case, named) : catalogueOf(file.catalogue);
    const filed = await this.repository.add(
      { facts: file.facts, files, extract: known ? undefined : { case: file.case, pack: file.catalogue } },
      (id, all) => headOf(id, all, catalogue && worldOf(catalogue)),
    );
    if (!filed.ok) {
      this.refuse(`${name} was not taken in. ${troubleSentence(filed.error)}`);
      return false;
    }
    await this.router.navigate(['/case', file.case, 'call']);
    return true;
  }

  private welcome(name: string, read: ReadCase, files: number): void {
    const verified =
      read.digest === 'verified'
        ? 'digest verified, the case is on the rack.'
        : 'the digest of its facts is verified; the file is of an earlier make and says nothing of its catalogue. The case is on the rack.';
    const lacking =
      files > 0 && !name.toLowerCase().endsWith('.zip')
        ? ` Its facts point to ${files} ${files === 1 ? 'file' : 'files'}, which only a bundle brings along.`
        : '';
    this.message.success(`${name}: ${verified}${lacking}`);
  }

  private written(view: CaseView, missing: readonly string[] = []): CaseFile | undefined {
    if (!view.catalogue) return undefined;
    const pack = extractPack(
      view.catalogue,
      textOf(view.state, 'engine.code'),
      textOf(view.state, 'kit.number'),
    );
    return writeCaseFile(view.id, view.state.log, pack, this.clock.now(), missing);
  }

  /** The issued report, when what is known is sealed. */
  private async reportOf(view: CaseView): Promise<Uint8Array | undefined> {
    if (!view.answers || !sealedNow(view.answers.seals)) return undefined;
    return new Uint8Array(await (await this.reports.pdf(view)).arrayBuffer());
  }

  private refuse(sentence: string): void {
    this.message.error(sentence, { nzDuration: 20000, nzPauseOnHover: true });
  }
}

const json = (content: unknown): string => JSON.stringify(content, null, 2);
const save = (name: string, content: unknown): void =>
  download(name, new Blob([json(content)], { type: 'application/json' }));
