import { inject, Injectable } from '@angular/core';
import { Router } from '@angular/router';
import { caseMark, isShortMark, readReturn, returnedTo, type ReturnError } from '@core/fitting/sheet-return';
import { CaseDesk } from '../data/case-desk';
import { Cases } from '../data/cases';
import { troubleSentence } from '../data/store-trouble';
import { returnErrorWords } from '../messages/fitting';
import { Notices } from './notices';

/** A filled fitting sheet comes back: as a file, a typed code, or a picture of the code. */
@Injectable({ providedIn: 'root' })
export class SheetReturns {
  private readonly desk = inject(CaseDesk);
  private readonly cases = inject(Cases);
  private readonly router = inject(Router);
  private readonly notices = inject(Notices);

  /** Takes a text in; into the case that it is of, which is opened. Why it was refused, or nothing. */
  async text(text: string): Promise<string | undefined> {
    const to = returnedTo(text);
    const home =
      to === undefined
        ? undefined
        : this.cases
            .summaries()
            .find((h) => ('id' in to ? h.id === to.id : caseMark(h.id, to.mark.length) === to.mark));
    // A short mark fits more than one case of a busy desk: only the case that somebody opened for it is taken.
    if (to && 'mark' in to && isShortMark(to.mark) && this.desk.currentId() === undefined)
      return `This code is of an older sheet and does not say surely which case it is of${home ? ` (case ${home.tag} would fit)` : ''}. Open its case and enter the code there. Nothing was filed.`;
    if (home && home.id !== this.desk.currentId() && this.desk.currentId() === undefined) {
      await this.router.navigate(['/case', home.id, 'fit']);
      await this.desk.open(home.id);
    }
    const view = this.desk.current();
    const sheet = view?.answers?.sheet;
    if (!view || sheet?.status !== 'ready')
      return home
        ? 'The case that this sheet is of has no sheet just now: its drive is open, or its catalogue is not here. Nothing was filed.'
        : 'No case here is the one that this sheet is of. Open its case file first. Nothing was filed.';
    const read = readReturn(text, { caseId: view.id, sheet, state: view.state });
    if (!read.ok) return this.refused(read.error, home?.tag);
    const filed = await this.desk.fileAll(read.value.entries);
    if (!filed.ok) return troubleSentence(filed.error);
    await this.notices.say(
      'success',
      `Filled sheet taken in: ${read.value.steps} steps, filed as told. Ctrl+Z takes all of it back.`,
    );
    return undefined;
  }

  /** A file: JSON, or a picture with the code on it. */
  async file(file: File): Promise<string | undefined> {
    if (!file.type.startsWith('image/')) return this.text(await file.text());
    const { readQr } = await import('./read-qr');
    const code = await readQr(file);
    if (code === undefined)
      return `No code was found on ${file.name}. Take the picture straight from the front, sharp, with the whole square on it; or type the code. Nothing was filed.`;
    return this.text(code);
  }

  private refused(e: ReturnError, tag: string | undefined): string {
    return returnErrorWords(e.code === 'other_case' && e.tag === '' && tag ? { ...e, tag } : e);
  }
}
