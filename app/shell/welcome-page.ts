import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { Cases } from '../data/cases';
import { Packs } from '../data/packs';
import { Commands } from '../acts/commands';
import { Setup } from '../acts/setup';

@Component({
  selector: 'hs-welcome-page',
  imports: [NzButtonComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <main>
      <h1>What came in?</h1>
      <p>
        A call, a box or a claim becomes a case. File what you see and measure; drive, causes, terms and
        report are computed from it as you go.
      </p>
      <div class="row">
        <button nz-button nzType="primary" (click)="create()">New case <kbd>n</kbd></button>
        <button nz-button (click)="open()">Open a case file <kbd>o</kbd></button>
        @if (packs.known() && !packs.newestId()) {
          <button nz-button (click)="demo()">Load the demo data</button>
        }
      </div>
      @if (packs.known() && !packs.newestId()) {
        <p class="caution">
          There is no catalogue yet, so no engine can be identified. Load the demo data, or open a case file:
          it brings its part of the catalogue along.
        </p>
      }
      <section class="card">
        <h2>What this desk cannot do</h2>
        <p>
          It computes from what is filed and from the catalogue at hand. It does not know what nobody looked
          at, it does not replace the vehicle maker’s service information, local rules or qualified people,
          which come first, and it gives no legal advice. Weights of causes are house estimates that you may
          overrule with a reason.
        </p>
      </section>
    </main>
  `,
  styles: `
    main {
      padding: 40px;
      max-width: 74ch;
      display: grid;
      gap: 16px;
      align-content: start;
    }
    kbd {
      font: 12px var(--mono);
      opacity: 0.8;
      margin-left: 6px;
    }
  `,
})
export class WelcomePage {
  protected readonly packs = inject(Packs);
  private readonly commands = inject(Commands);
  private readonly setup = inject(Setup);

  constructor() {
    inject(Cases).putBack();
  }

  protected create(): void {
    void this.commands.newCase();
  }

  protected open(): void {
    this.commands.importAsked.update((n) => n + 1);
  }

  protected demo(): void {
    void this.setup.loadDemo();
  }
}
