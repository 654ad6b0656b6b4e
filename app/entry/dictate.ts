import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  inject,
  input,
  signal,
} from '@angular/core';
import type { Subscription } from 'rxjs';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzPopconfirmModule } from 'ng-zorro-antd/popconfirm';
import { DeskSettingsStore } from '../data/desk-settings';
import { type Heard, SPEECH, type SpeechHearing } from '../instruments/speech';
import { SPEECH_LEAVES, speechEndSentence } from '../messages/speech';

/** Lets a text be spoken into its box, where the browser can: what is understood for good goes where the cursor is. */
@Component({
  selector: 'hs-dictate',
  imports: [NzButtonComponent, NzPopconfirmModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(document:focusout)': 'left($event)' },
  template: `
    @if (speech()) {
      <button
        nz-button
        type="button"
        class="ear"
        [class.listens]="listening()"
        [title]="listening() ? 'Stop listening' : 'Dictate'"
        [attr.aria-label]="(listening() ? 'Stop listening: ' : 'Dictate: ') + label()"
        nz-popconfirm
        [nzCondition]="listening() || allowed()"
        [nzPopconfirmTitle]="leaves"
        [nzPopconfirmOverlayStyle]="narrow"
        nzOkText="Dictate"
        nzCancelText="Type"
        (nzOnConfirm)="press()"
        (mousedown)="$event.preventDefault()"
      >
        <svg width="13" height="13" viewBox="0 0 13 13" aria-hidden="true">
          @if (listening()) {
            <path d="M2.5 2.5h8v8h-8z" fill="currentColor" />
          } @else {
            <path
              d="M6.5 1a2 2 0 0 0-2 2v3a2 2 0 0 0 4 0v-3a2 2 0 0 0-2-2M2.5 6a4 4 0 0 0 8 0M6.5 10v2.5"
              fill="none"
              stroke="currentColor"
            />
          }
        </svg>
      </button>
      <span class="heard" role="status" [class.open]="says()">{{ says() }}</span>
      <!-- what may still change is not read aloud word by word -->
      <span class="heard" [class.open]="listening()">{{ hearing() || 'Listening …' }}</span>
    }
  `,
  styles: `
    .ear {
      padding: 0 6px;
    }
    .listens {
      background: var(--verdigris-soft);
      border-color: var(--verdigris);
    }
    .heard {
      display: none;
      position: absolute;
      z-index: 3;
      top: 100%;
      left: 0;
      right: 0;
      padding: 2px 6px;
      background: var(--paper-2);
      border: 1px solid var(--rule-strong);
      border-radius: 3px;
    }
    .open {
      display: block;
    }
  `,
})
export class Dictate {
  readonly box = input.required<HTMLTextAreaElement>();
  readonly label = input.required<string>();
  protected readonly leaves = SPEECH_LEAVES;
  protected readonly narrow = { maxWidth: '340px' };
  private readonly settings = inject(DeskSettingsStore);
  protected readonly speech = signal<SpeechHearing | undefined>(undefined);
  protected readonly hearing = signal('');
  protected readonly says = signal('');
  private readonly under = signal<{ stop: AbortController; heard: Subscription } | undefined>(undefined);
  protected readonly listening = computed(() => this.under() !== undefined);
  /** Nothing that is spoken leaves this machine without having been allowed to. */
  protected readonly allowed = computed(
    () => this.speech()?.here === true || this.settings.settings().dictation === 'service',
  );

  constructor() {
    void inject(SPEECH).then((s) => this.speech.set(s));
    inject(DestroyRef).onDestroy(() => this.under()?.heard.unsubscribe());
  }

  /** Begins to listen, or lets it end. What is not allowed yet was asked for before. */
  protected press(): void {
    this.says.set('');
    const under = this.under();
    if (under) return under.stop.abort();
    if (!this.allowed()) this.settings.change({ dictation: 'service' });
    this.begin();
  }

  private begin(): void {
    const speech = this.speech();
    if (!speech) return;
    this.box().focus();
    this.hearing.set('');
    const stop = new AbortController();
    const heard = speech.listen(stop.signal).subscribe((h) => this.hear(h));
    if (!heard.closed) this.under.set({ stop, heard });
  }

  private hear(h: Heard): void {
    if (h.kind === 'hearing') this.hearing.set(h.words);
    else if (h.kind === 'said') this.write(h.words);
    else {
      this.under.set(undefined);
      this.says.set(h.why === undefined ? '' : speechEndSentence(h.why));
    }
  }

  /** Puts words where the cursor is, apart from what stands before; the box tells of it as of typing. */
  private write(words: string): void {
    const box = this.box();
    const before = box.value.slice(0, box.selectionStart);
    box.setRangeText(
      (before === '' || /\s$/.test(before) ? '' : ' ') + words,
      box.selectionStart,
      box.selectionEnd,
      'end',
    );
    box.dispatchEvent(new Event('input', { bubbles: true }));
  }

  /** Who goes on elsewhere has done with speaking; a complaint has been read. */
  protected left(e: FocusEvent): void {
    if (e.target !== this.box()) return;
    this.says.set('');
    this.under()?.stop.abort();
  }
}
