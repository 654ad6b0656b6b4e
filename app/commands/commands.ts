import { inject, Injectable, Injector, signal } from '@angular/core';
import { Router } from '@angular/router';
import type { NewFact } from '@core/facts/change';
import { isPractice } from '@core/facts/practice';
import { type Station, stationName, STATIONS } from '@core/facts/stations';
import { Cases } from '../data/cases';
import { DeskSettingsStore } from '../data/desk-settings';
import { Notices } from './notices';
import type { PaperKind } from './reports';

/** Things that can be opened over the desk. */
export type OpenDialog =
  | 'palette'
  | 'keys'
  | 'settings'
  | 'policy'
  | 'glossary'
  | 'labels'
  | 'scan'
  | undefined;
export type Command = { name: string; key?: string; run: () => void };

/** The tours by key, as they are called; what they are made of is fetched with the first. */
export const TOUR_NAMES = [
  ['call', 'a call'],
  ['box', 'a box'],
  ['capture', 'a capture'],
  ['claim', 'a claim'],
  ['drive', 'a drive'],
] as const;

/** Everything that can be done by name or by key, in one place. */
@Injectable({ providedIn: 'root' })
export class Commands {
  private readonly router = inject(Router);
  private readonly injector = inject(Injector);
  private readonly cases = inject(Cases);
  private readonly settings = inject(DeskSettingsStore);
  private readonly notices = inject(Notices);
  readonly overlay = signal<OpenDialog>(undefined);
  /** The tour that goes on, by its key. */
  readonly tour = signal<string | undefined>(undefined);
  /** What was typed for the list by name while it was being fetched. */
  readonly typedAhead = signal('');
  /** The fact line is wanted; it takes this back when it has the focus. */
  readonly factLineAsked = signal(false);
  /** Counts requests to bring the file chooser forward. */
  readonly importAsked = signal(0);
  /** True once case files were opened: what asks about altered ones is fetched then. */
  readonly filesUsed = signal(false);

  /** Closes what is opened over the desk, if it is still this. */
  close(overlay: OpenDialog): void {
    if (this.overlay() === overlay) this.overlay.set(undefined);
  }

  /** @param known what is known of it already */
  async newCase(known: readonly NewFact[] = []): Promise<void> {
    const opened = await (await this.desk()).newCase(known);
    if (opened.ok) await this.router.navigate(['/case', opened.value, 'call']);
  }

  openCase(id: string, station?: Station): void {
    void this.router.navigate(['/case', id, station ?? 'call']);
  }

  station(station: Station): void {
    const id = this.cases.currentId();
    if (id) void this.router.navigate(['/case', id, station]);
  }

  /** The drive bench: of the case in hand, else the free one. */
  drive(): void {
    const id = this.cases.currentId();
    void this.router.navigate(id ? ['/case', id, 'drive'] : ['/drive']);
  }

  /** Moves to the case that stands before or after the one in hand on the rack. */
  step(by: 1 | -1): void {
    const next = this.cases.beside(this.cases.currentId(), by);
    if (next) this.openCase(next.id);
  }

  async undo(): Promise<void> {
    const desk = await this.desk();
    const fact = await desk.undo();
    const { CaseWords } = await import('./case-words');
    await this.notices.say(
      'info',
      fact
        ? `Taken back: ${this.injector.get(CaseWords).of(fact)}`
        : 'Nothing of yours to take back in this case.',
    );
  }

  async redo(): Promise<void> {
    const strike = await (await this.desk()).redo();
    await this.notices.say('info', strike ? 'Brought back.' : 'Nothing to bring back.');
  }

  /** Seals the case and makes its report, where the rules of settling allow it; else shows what they lack. */
  async seal(): Promise<void> {
    const desk = await this.desk();
    const view = desk.current();
    if (!view?.answers) return;
    const [objection] = view.answers.decision.objections;
    if (objection) {
      this.station('settle');
      const { objectionWords } = await import('../messages/answers');
      await this.notices.say('warning', `Not yet: ${objectionWords(objection)}`, 8000);
      return;
    }
    const sealed = await desk.seal();
    if (sealed.ok) await this.report();
  }

  /** Makes the report of the case in hand, or a letter of it. */
  async report(kind: PaperKind = 'full', as: 'pdf' | 'html' = 'pdf'): Promise<void> {
    const { Reports } = await import('./reports');
    const made = await this.injector.get(Reports).download(kind, as);
    if (!made.ok)
      await this.notices.say(
        'error',
        `The paper could not be made: ${made.error.detail}. The case is kept; try again.`,
        20000,
      );
  }

  /** All commands, for the list by name. */
  list(): Command[] {
    const practising = isPractice(this.cases.currentId());
    const inCase: Command[] = this.cases.currentId()
      ? [
          ...STATIONS.map((s, i) => ({
            name: `Station: ${stationName(s)}`,
            key: String(i + 1),
            run: () => this.station(s),
          })),
          { name: 'Drive bench of this case', key: 'v', run: () => this.drive() },
          { name: 'File a fact', key: 'f', run: () => this.factLineAsked.set(true) },
          ...(practising ? [] : this.leaving()),
          { name: 'Undo the last fact', key: 'Ctrl+Z', run: () => void this.undo() },
          { name: 'Redo', key: 'Ctrl+Shift+Z', run: () => void this.redo() },
        ]
      : [];

    return [
      { name: 'New case', key: 'n', run: () => void this.newCase() },
      ...inCase,
      { name: 'Next case on the rack', key: '.', run: () => this.step(1) },
      { name: 'Case before', key: ',', run: () => this.step(-1) },
      { name: 'Drive bench, free', key: 'b', run: () => void this.router.navigate(['/drive']) },
      { name: 'Trace bench, free', run: () => void this.router.navigate(['/trace']) },
      { name: 'Catalogue', key: 'c', run: () => void this.router.navigate(['/catalogue']) },
      { name: 'What causes are weighed by', key: 'k', run: () => void this.router.navigate(['/knowledge']) },
      { name: 'Ledger: every case, added up', key: 'l', run: () => void this.router.navigate(['/ledger']) },
      {
        name: 'Patterns: one fitter, one lot or one confusing design',
        key: 'y',
        run: () => void this.router.navigate(['/patterns']),
      },
      {
        name: 'Practice: returns whose truth is known',
        key: 'e',
        run: () => void this.router.navigate(['/practice']),
      },
      { name: 'Fitting trainer', run: () => void this.router.navigate(['/practice/fitting']) },
      { name: 'Mailbox: many messages at once', run: () => void this.router.navigate(['/mail']) },
      {
        name: 'Claims table: claims from elsewhere',
        run: () => void this.router.navigate(['/claims']),
      },
      {
        name: 'Verify a file or a paper; who signs here',
        run: () => void this.router.navigate(['/proof']),
      },
      { name: 'Read a code with the camera', run: () => this.overlay.set('scan') },
      { name: 'Words of the house: what callers say here', run: () => void this.router.navigate(['/words']) },
      { name: 'Open a case file', key: 'o', run: () => this.importAsked.update((n) => n + 1) },
      { name: 'Back everything up', key: 'Ctrl+Shift+S', run: () => void this.backUp() },
      {
        name: 'Together: the shelf that several desks share',
        run: () => void this.router.navigate(['/together']),
      },
      { name: 'Backups, room and safety', run: () => void this.router.navigate(['/safety']) },
      { name: 'Take every case out as one file', run: () => void this.exportDesk() },
      ...TOUR_NAMES.map(([key, name]) => ({ name: `Tour: ${name}`, run: () => this.tour.set(key) })),
      { name: 'Settings', key: 'h', run: () => this.overlay.set('settings') },
      { name: 'Policy: what practitioners disagree on', key: 'u', run: () => this.overlay.set('policy') },
      {
        name: 'Light or dark',
        key: 'd',
        run: () => this.settings.setTheme(this.settings.theme() === 'dark' ? 'light' : 'dark'),
      },
      { name: 'Rack: whole or narrow', key: '[', run: () => this.settings.flip('rack') },
      { name: 'Tape: whole or narrow', key: ']', run: () => this.settings.flip('tape') },
      { name: 'Glossary: what the words mean', key: 'g', run: () => this.overlay.set('glossary') },
      { name: 'Keys', key: '?', run: () => this.overlay.set('keys') },
      { name: 'Find by name', key: 'Ctrl+K', run: () => this.overlay.set('palette') },
    ];
  }

  /** In what a case leaves; nothing of a return for practice does. */
  private leaving(): Command[] {
    return [
      { name: 'Seal and issue the report', key: 's', run: () => void this.seal() },
      { name: 'Labels for the box', run: () => this.overlay.set('labels') },
      { name: 'Letter to the workshop', run: () => void this.report('workshop') },
      { name: 'Letter to the customer', run: () => void this.report('customer') },
      { name: 'Full report', run: () => void this.report('full') },
    ];
  }

  /** Opens a case file or a bundle; what reads it is fetched then. */
  async openFile(file: File): Promise<void> {
    this.filesUsed.set(true);
    const { CaseFiles } = await import('./case-files');
    await this.injector.get(CaseFiles).open(file);
  }

  /** Everything of this browser as one file. */
  async backUp(): Promise<void> {
    const { Backups } = await import('./backups');
    await this.injector.get(Backups).save();
  }

  /** Everything that was filed or typed, in one file. */
  async exportDesk(): Promise<void> {
    const { CaseExports } = await import('./case-exports');
    await this.injector.get(CaseExports).exportDesk();
  }

  /** Takes out what was set aside as damaged. */
  async exportDamaged(): Promise<void> {
    const { CaseExports } = await import('./case-exports');
    this.injector.get(CaseExports).exportDamaged();
  }

  /** What opens and answers cases; it is fetched when a case is first wanted. */
  private async desk() {
    const { CaseDesk } = await import('../data/case-desk');
    return this.injector.get(CaseDesk);
  }
}
