import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { ProgramUpdate } from './program-update';

/** Over the desk while a newer program waits: to be taken now, or at the next opening. */
@Component({
  selector: 'hs-update-strip',
  imports: [NzButtonComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (update.broken()) {
      <div class="strip" role="alert">
        <b>What lies here of the program is damaged.</b>
        <span>Everything filed is kept. With the server in reach:</span>
        <button nz-button nzSize="small" nzType="primary" (click)="update.take()">Fetch it again</button>
      </div>
    } @else if (update.waiting() && !later()) {
      <div class="strip" role="region" aria-label="Newer program">
        <b>A newer program is here.</b>
        <span>This window goes on with the one it has; half-typed text is kept.</span>
        <button nz-button nzSize="small" nzType="primary" (click)="update.take()">Take it now</button>
        <button nz-button nzSize="small" (click)="later.set(true)">At the next opening</button>
      </div>
    }
  `,
  styleUrl: '../styles/strip.less',
})
export class UpdateStrip {
  protected readonly update = inject(ProgramUpdate);
  protected readonly later = signal(false);
}
