import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { whyAsked } from '@core/answer/why-asked';
import { CaseDesk } from '../data/case-desk';
import { termIn } from '../messages/glossary';
import { whyAskedWords } from '../messages/why-asked';

const USUAL = 'Enter: on to what is lacking · a letter presses its tile · F2: how it is known · ?: all keys';

/** One line at the foot of a station: how the field in focus is observed, what to beware of, what its words mean. */
@Component({
  selector: 'hs-help-strip',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { role: 'region', 'aria-label': 'Help', '(document:focusin)': 'look($event.target)' },
  template: `
    <p [class.quiet]="!help()">{{ help() || usual }}</p>
    @if (why()) {
      <p><b>Why ask?</b> {{ why() }}</p>
    }
    @if (meaning(); as m) {
      <p class="quiet">
        <b>{{ m.term }}</b
        >: {{ m.means }}
      </p>
    }
  `,
  styles: `
    :host {
      display: block;
      padding: 3px 14px;
      min-height: 2.9em;
      max-height: 6.4em;
      overflow: auto;
      border-top: 1px solid var(--rule);
      background: var(--paper-3);
      font-size: 0.92em;
    }
    p {
      margin: 0;
    }
  `,
})
export class HelpStrip {
  protected readonly usual = USUAL;
  protected readonly help = signal('');
  private readonly desk = inject(CaseDesk);
  /** Key of the field in focus. */
  private readonly key = signal('');
  protected readonly why = computed(() => {
    const [key, view] = [this.key(), this.desk.current()];
    return key !== '' && view?.answers ? whyAskedWords(whyAsked(key, view.answers, view.state)) : '';
  });
  protected readonly meaning = signal<ReturnType<typeof termIn>>(undefined);

  /** What describes the element in focus, and the term that its label holds. */
  protected look(target: EventTarget | null): void {
    const field = target instanceof HTMLElement ? target.closest<HTMLElement>('main [data-field]') : null;
    this.key.set(field?.dataset['key'] ?? '');
    this.help.set(field?.querySelector('[id$="-help"]')?.textContent.trim() ?? '');
    const label = field?.querySelector('.label')?.textContent ?? '';
    // On the bench words are those of the field: a seal there is none of a report.
    const of = field?.closest('[data-apart]') ? 'field' : undefined;
    this.meaning.set(label ? termIn(label, of) : undefined);
  }
}
