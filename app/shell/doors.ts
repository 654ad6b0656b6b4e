import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { toDo } from '@core/answer/to-do';
import { PROMISE_DAYS } from '@core/policy/promise';
import { Commands } from '../commands/commands';
import { Setup } from '../commands/setup';
import { Cases } from '../data/cases';
import { Clock } from '../data/clock';
import { Packs } from '../data/packs';

/** An empty desk: three ways to begin, and what each leads to. */
@Component({
  selector: 'hs-doors',
  imports: [NzButtonComponent, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="card" aria-label="Try it on a case">
      <h2>Try it on a case</h2>
      <p>
        An invented supplier with its catalogue, calls, boxes with photographs, captures and claims.
        Everything can be changed; nothing of it leaves this browser.
      </p>
      <button nz-button nzType="primary" [nzLoading]="loading()" (click)="demo()">
        Open the invented desk
      </button>
      @if (failed(); as why) {
        <p role="alert">▲ {{ why }}</p>
      }
    </section>
    <section class="card" aria-label="Bring your own catalogue">
      <h2>Bring your own catalogue</h2>
      <p>
        From your tables (CSV, XLSX), from another desk, or engine by engine: typed in, its drive drawn up
        from a photograph, checked as you go. Nothing of it is kept before you say so.
      </p>
      <div class="row">
        <a nz-button routerLink="/catalogue/own">Enter a first engine</a>
        <a nz-button routerLink="/catalogue">Bring tables in</a>
      </div>
    </section>
    <section class="card" aria-label="File the first call">
      <h2>File the first call</h2>
      <p>
        Type or paste what was said on the line above, or begin with an empty case. It is read into facts that
        you take or leave{{ packs.newestId() ? '' : '; engines are found once a catalogue is here' }}.
      </p>
      <button nz-button (click)="create()">New case <kbd>n</kbd></button>
    </section>
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(260px, 1fr));
      gap: var(--gap);
      align-items: stretch;
    }
    .card {
      display: grid;
      grid-template-rows: auto 1fr auto;
      gap: 8px;
      justify-items: start;
    }
    p {
      margin: 0;
    }
    kbd {
      margin-left: 6px;
    }
  `,
})
export class Doors {
  protected readonly packs = inject(Packs);
  private readonly cases = inject(Cases);
  private readonly clock = inject(Clock);
  private readonly commands = inject(Commands);
  private readonly setup = inject(Setup);
  protected readonly loading = signal(false);
  protected readonly failed = signal('');

  protected create(): void {
    void this.commands.newCase();
  }

  /** Puts the invented desk in, and opens a question whose answer stands ready. */
  protected async demo(): Promise<void> {
    this.loading.set(true);
    this.failed.set('');
    try {
      await this.setup.loadDemo();
      const list = toDo(this.cases.summaries(), PROMISE_DAYS, this.clock.today());
      const first = list.find((t) => t.task === 'answer') ?? list[0];
      if (first) this.commands.openCase(first.summary.id, 'call');
    } catch (e) {
      this.failed.set(e instanceof Error ? e.message : String(e));
    } finally {
      this.loading.set(false);
    }
  }
}
