import { inject, Injectable } from '@angular/core';
import { extractPack } from '@core/catalogue/extract-pack';
import { type CaseFile, writeCaseFile } from '@core/claim/case-file';
import { deskFileFrame } from '@core/claim/desk-file';
import { LARGEST_FILE_OF_FACTS } from '@core/claim/read-shape';
import { sealedNow } from '@core/claim/seal';
import type { Fact } from '@core/facts/fact';
import { isPractice } from '@core/facts/practice';
import { textOf } from '@core/facts/read';
import { CaseDesk } from '../data/case-desk';
import type { CaseView } from '../data/case-view';
import { Clock } from '../data/clock';
import { Drafts } from '../data/drafts';
import { FactRepository } from '../data/fact-repository';
import { download } from '../report/download';
import { CASE_BUNDLE } from './formats/bundle';
import { CASE_JSON } from './formats/case-json';
import { type Beside, type CaseFormat, jsonBlob } from './formats/format';
import { Reports } from './reports';
import { Notices } from './notices';

/** The forms in which a case leaves, as they are offered. */
export const CASE_FORMATS: readonly CaseFormat[] = [CASE_JSON, CASE_BUNDLE];

/** Cases out to open files. */
@Injectable({ providedIn: 'root' })
export class CaseExports {
  private readonly repository = inject(FactRepository);
  private readonly desk = inject(CaseDesk);
  private readonly drafts = inject(Drafts);
  private readonly clock = inject(Clock);
  private readonly notices = inject(Notices);
  private readonly reports = inject(Reports);

  /** Saves a case in one of the forms in which it leaves. */
  async export(view: CaseView, format: CaseFormat): Promise<void> {
    if (this.stays(view)) return;
    const made = await format.write(view, {
      file: (v, beside) => this.written(v, beside),
      kept: (hash) => this.repository.fileOf(hash),
      report: (v) => this.reportOf(v),
    });
    if (!made) return;
    download(made.name, made.content);
    if (made.remark !== undefined) void this.notices.say('warning', made.remark, 12_000);
  }

  /** The bare facts of a case that cannot be computed, as they lie in the store. */
  exportFacts(view: CaseView): void {
    if (this.stays(view)) return;
    save(`facts-${view.tag === '—' ? view.id : view.tag}.json`, { case: view.id, facts: view.state.log });
  }

  /** Every fact of this browser and all half-typed text, in one file: for when the records are in trouble. */
  async exportDesk(): Promise<void> {
    const [head, foot] = deskFileFrame(this.clock.now(), this.drafts.all());
    const pieces: Blob[] = [];
    const view = this.desk.practising() ? undefined : this.desk.current();
    // Of the case in hand, what was not read from the records is still in the page.
    const unread = new Map((view?.state.log ?? []).map((f) => [f.id, f]));
    try {
      for await (const facts of this.repository.allFacts()) {
        for (const f of facts) unread.delete(f.id);
        if (facts.length > 0) pieces.push(rows(facts));
      }
    } catch (e) {
      if (unread.size > 0) pieces.push(rows([...unread.values()]));
      this.notices.refuse(
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

  /** A return for practice leaves in no form of a case: said, and nothing is written. */
  private stays(view: CaseView): boolean {
    if (!isPractice(view.id)) return false;
    this.notices.refuse(
      'This is a return for practice: it leaves from the Practice page, and never as a case.',
    );
    return true;
  }

  private written(view: CaseView, beside: Beside = {}): CaseFile | undefined {
    if (!view.catalogue) {
      this.notices.refuse(
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
    const { size } = jsonBlob(file);
    if (size > LARGEST_FILE_OF_FACTS)
      this.notices.refuse(
        `The file of this case has ${Math.ceil(size / 1e6)} MB, and at most ${Math.floor(LARGEST_FILE_OF_FACTS / 1e6)} MB are read back. It is written all the same; send long texts as files instead.`,
      );
    return file;
  }

  /** The issued report, when what is known is sealed. */
  private async reportOf(view: CaseView): Promise<Uint8Array<ArrayBuffer> | undefined> {
    if (!view.answers || !sealedNow(view.answers.seals)) return undefined;
    const made = await this.reports.made(view, 'full', 'pdf');
    if (made.ok) return new Uint8Array(await made.value.arrayBuffer());
    this.notices.refuse(
      `The report could not be set (${made.error.detail || 'it was stopped'}), and so is not in the bundle. Make the bundle again.`,
    );
    return undefined;
  }
}

/** Facts as rows of a list, out of the script's memory. */
const rows = (facts: readonly Fact[]): Blob => new Blob([facts.map((f) => JSON.stringify(f)).join(',\n')]);
const save = (name: string, content: unknown): void => download(name, jsonBlob(content));
