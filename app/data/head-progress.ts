import { Injectable, signal } from '@angular/core';

/** Cases done while heads are being made anew; what makes them is fetched only then. */
@Injectable({ providedIn: 'root' })
export class HeadProgress {
  readonly progress = signal<number | undefined>(undefined);
}
