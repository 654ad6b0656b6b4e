import { inject, Injectable } from '@angular/core';
import { Router } from '@angular/router';
import { caseOfCode, readBoxCode } from '@core/claim/box-code';
import { Cases } from '../data/cases';
import { Notices } from './notices';

/** The code on a box or a part leads to its case, with the part in hand. */
@Injectable({ providedIn: 'root' })
export class BoxCodes {
  private readonly cases = inject(Cases);
  private readonly router = inject(Router);
  private readonly notices = inject(Notices);

  /** True where a text is such a code: then its case is opened, or it is said that it is not here. */
  take(text: string): boolean {
    const code = readBoxCode(text);
    if (!code) return false;
    const home = caseOfCode(code, this.cases.summaries());
    if (home)
      void this.router.navigate(['/case', home.id, 'examine'], {
        queryParams: code.thing === undefined ? {} : { part: code.thing },
      });
    else
      this.notices.refuse(
        'This label is of a case that is not here. Open its case file or its bundle first, or ask the desk that printed it.',
      );
    return true;
  }

  /** The case whose label is on a picture, if one of ours is; its part is not opened. */
  async onPicture(picture: Blob): Promise<{ id: string; tag: string } | undefined> {
    const { readQr } = await import('./read-qr');
    const code = readBoxCode((await readQr(picture)) ?? '');
    return code && caseOfCode(code, this.cases.summaries());
  }
}
