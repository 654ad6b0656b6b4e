import { inject, Injectable } from '@angular/core';
import { en_US, NzI18nService } from 'ng-zorro-antd/i18n';

/** The library's own words in English, for whatever part of it has any. Asked for where they come along, not by the frame. */
@Injectable({ providedIn: 'root' })
export class English {
  constructor() {
    inject(NzI18nService).setLocale(en_US);
  }
}
