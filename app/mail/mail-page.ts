import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  inject,
  linkedSignal,
  signal,
  untracked,
} from '@angular/core';
import { ScrollingModule } from '@angular/cdk/scrolling';
import { Router, RouterLink } from '@angular/router';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzCheckboxModule } from 'ng-zorro-antd/checkbox';
import { NzProgressModule } from 'ng-zorro-antd/progress';
import { formatDay } from '@core/quantity/dates';
import { Attachments } from '../commands/attachments';
import { Incoming } from '../commands/incoming';
import { Notices } from '../commands/notices';
import { Cases } from '../data/cases';
import { DeskSettingsStore } from '../data/desk-settings';
import { Mailbox } from '../data/mailbox';
import { troubleSentence } from '../data/store-trouble';
import { counted } from '../language/plural';
import { mailboxWords, mailWords } from '../messages/mail';
import { FileButton } from '../ui/file-button';
import { Segmented } from '../ui/segmented';
import { StateCard } from '../ui/state';
import type { Mail } from '../workers/read-mailbox.protocol';

/** Height of a line. */
const ROW_PX = 52;
type Which = 'new' | 'here' | 'all';

/** Messages that came in together, each on a line: from whom, of what, here already or not; opened as cases. */
@Component({
  selector: 'hs-mail-page',
  imports: [
    NzButtonComponent,
    NzCheckboxModule,
    NzProgressModule,
    RouterLink,
    ScrollingModule,
    FileButton,
    Segmented,
    StateCard,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './mail-page.html',
  styleUrl: './mail-page.less',
  host: { '(document:paste)': 'pasted($event)' },
})
export class MailPage {
  protected readonly box = inject(Mailbox);
  private readonly incoming = inject(Incoming);
  private readonly attachments = inject(Attachments);
  private readonly cases = inject(Cases);
  private readonly settings = inject(DeskSettingsStore);
  private readonly notices = inject(Notices);
  private readonly router = inject(Router);
  protected readonly rowPx = ROW_PX;
  protected readonly WHICH = [
    { value: 'new' as const, label: 'Not here yet' },
    { value: 'here' as const, label: 'Here' },
    { value: 'all' as const, label: 'All' },
  ];
  protected readonly which = signal<Which>('all');
  protected readonly mails = this.box.mails;
  protected readonly rows = computed(() => {
    const which = this.which();
    return (this.mails() ?? []).filter(
      (m) => which === 'all' || (which === 'here') === (m.here !== undefined),
    );
  });
  protected readonly says = computed(() => {
    const all = this.mails() ?? [];
    return mailboxWords(all.length, all.filter((m) => m.here !== undefined).length);
  });
  /** Numbers of those that are chosen; another mailbox begins with none. */
  private readonly picked = linkedSignal<number, ReadonlySet<number>>({
    source: this.box.count,
    computation: () => new Set(),
  });
  protected readonly chosen = computed(() =>
    (this.mails() ?? []).filter((m) => this.picked().has(m.no) && m.here === undefined),
  );
  private readonly free = computed(() =>
    (this.mails() ?? []).filter((m) => m.here === undefined && this.canOpen(m)),
  );
  protected readonly allChosen = computed(
    () => this.free().length > 0 && this.chosen().length === this.free().length,
  );
  /** How many of the chosen ones are open, while that goes on. */
  protected readonly opening = signal<number | undefined>(undefined);
  protected readonly openWords = computed(() => {
    const [at, of] = [this.opening(), this.chosen().length];
    if (at !== undefined) return `${at} opened, ${of} to go`;
    return of === 0 ? 'Open what is chosen' : `Open ${counted(of, 'case', 'cases')}`;
  });
  private stopped = false;

  constructor() {
    this.cases.putBack();
    // One mail that came alone is what somebody wants to see.
    effect(() => {
      const [only, ...more] = this.mails() ?? [];
      if (only && more.length === 0 && only.here === undefined && this.canOpen(only))
        untracked(() => void this.openOne(only));
    });
    inject(DestroyRef).onDestroy(() => this.stop());
  }

  protected readonly byNo = (_: number, m: Mail): number => m.no;

  protected canOpen(mail: Mail): boolean {
    return !('code' in mail.read);
  }

  protected words(mail: Mail): string {
    return mailWords(mail);
  }

  protected day(mail: Mail): string {
    return mail.day === '' ? '' : formatDay(mail.day, this.settings.settings().dateOrder);
  }

  protected tag(id: string): string {
    return this.cases.summaries().find((s) => s.id === id)?.tag ?? 'a case';
  }

  protected isChosen(mail: Mail): boolean {
    return this.picked().has(mail.no);
  }

  protected choose(mail: Mail, on: boolean): void {
    this.picked.update((before) => {
      const next = new Set(before);
      if (on) next.add(mail.no);
      else next.delete(mail.no);
      return next;
    });
  }

  protected chooseAll(on: boolean): void {
    this.picked.set(new Set(on ? this.free().map((m) => m.no) : []));
  }

  protected files(files: readonly File[]): void {
    void this.incoming.mailbox(files.length === 1 ? (files[0]?.name ?? '') : `${files.length} files`, files);
  }

  protected pasted(e: ClipboardEvent): void {
    if (e.target instanceof HTMLInputElement || e.target instanceof HTMLTextAreaElement) return;
    const text = e.clipboardData?.getData('text/plain') ?? '';
    if (text.trim() === '') return;
    e.preventDefault();
    void this.incoming.mailbox('What was pasted', [new Blob([text])]);
  }

  protected async openOne(mail: Mail): Promise<void> {
    const id = await this.take(mail);
    if (id !== undefined) await this.router.navigate(['/case', id, 'call']);
  }

  /** Opens what is chosen, one after the other; Stop leaves what is open. */
  protected async openChosen(): Promise<void> {
    if (this.opening() !== undefined) return;
    this.stopped = false;
    let done = 0;
    this.opening.set(done);
    for (const mail of this.chosen()) {
      if (this.stopped || (await this.take(mail)) === undefined) break;
      this.opening.set(++done);
    }
    this.opening.set(undefined);
    this.cases.putBack();
    await this.notices.say('success', `${counted(done, 'case', 'cases')} opened. They wait under Call.`);
  }

  protected stop(): void {
    this.stopped = true;
  }

  /** Opens one with what came with it; its case. */
  private async take(mail: Mail): Promise<string | undefined> {
    const opened = await this.box.open(mail);
    if (!opened.ok) {
      this.notices.refuse(`${mail.subject} was not opened. ${troubleSentence(opened.error)}`);
      return undefined;
    }
    if (mail.files.length > 0)
      await this.attachments.attach(mail.files.map((f) => new File([f.bytes], f.name, { type: f.type })));
    return opened.value;
  }
}
