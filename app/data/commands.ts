import { inject, Injectable, signal } from '@angular/core';
import { Router } from '@angular/router';
import { NzMessageService } from 'ng-zorro-antd/message';
import { STATIONS, type Station } from '@core/facts/observable';
import type { Fact } from '@core/facts/fact';
import { CaseDesk } from './case-desk';
import { HouseStore } from './house';
import { Reports } from './reports';
import { VoiceService } from './voice';
import { nameWords, valueWords } from '../words/facts';

/** Things that can be opened over the desk. */
export type Overlay = 'palette' | 'keys' | 'house' | undefined;
export type Command = { name: string; key?: string; run: () => void };

/** Everything that can be done by name or by key, in one place. */
@Injectable({ providedIn: 'root' })
export class Commands {
  private readonly router = inject(Router);
  private readonly desk = inject(CaseDesk);
  private readonly house = inject(HouseStore);
  private readonly message = inject(NzMessageService);
  private readonly reports = inject(Reports);
  private readonly voice = inject(VoiceService).voice;
  readonly overlay = signal<Overlay>(undefined);
  /** Counts requests to bring the fact line, or the file chooser, forward. */
  readonly factLineAsked = signal(0);
  readonly importAsked = signal(0);
  /** True while a report is being made. */
  readonly making = signal(false);

  /** @param engine code of the engine, when it is known already */
  async newCase(engine?: string): Promise<void> {
    const opened = await this.desk.newCase(
      engine === undefined ? [] : [{ key: 'engine.code', value: engine, how: 'reported' }],
    );
    if (opened.ok) await this.router.navigate(['/case', opened.value, 'call']);
  }

  openCase(id: string, station?: Station): void {
    void this.router.navigate(['/case', id, station ?? 'call']);
  }

  station(station: Station): void {
    const id = this.desk.currentId();
    if (id) void this.router.navigate(['/case', id, station]);
  }

  /** The drive bench: of the case in hand, else the free one. */
  drive(): void {
    const id = this.desk.currentId();
    void this.router.navigate(id ? ['/case', id, 'drive'] : ['/drive']);
  }

  /** Moves to the case that stands before or after the one in hand on the rack. */
  step(by: 1 | -1): void {
    const cases = this.desk.cases();
    const at = cases.findIndex((c) => c.id === this.desk.currentId());
    const next = cases[(at + by + cases.length) % cases.length];
    if (next) this.openCase(next.id);
  }

  async undo(): Promise<void> {
    const fact = await this.desk.undo();
    this.message.info(
      fact ? `Taken back: ${this.words(fact)}` : 'Nothing of yours to take back in this case.',
    );
  }

  async redo(): Promise<void> {
    const strike = await this.desk.redo();
    this.message.info(strike ? 'Brought back.' : 'Nothing to bring back.');
  }

  /** Seals the case and makes its report, where the rules of settling allow it; else shows what they lack. */
  async seal(): Promise<void> {
    const view = this.desk.current();
    if (!view?.answers) return;
    const [objection] = view.answers.decision.objections;
    if (objection) {
      this.station('settle');
      const { objectionWords } = await import('../words/answers');
      this.message.warning(`Not yet: ${objectionWords(objection)}`, { nzDuration: 8000 });
      return;
    }
    const sealed = await this.desk.seal();
    if (sealed.ok) await this.report();
  }

  /** Makes the printed report of the case in hand. */
  async report(): Promise<void> {
    const view = this.desk.current();
    if (!view || this.making()) return;
    this.making.set(true);
    try {
      await this.reports.download(view);
    } catch (e) {
      this.message.error(
        `The report could not be made: ${e instanceof Error ? e.message : String(e)}. The case is kept; try again.`,
        { nzDuration: 20000 },
      );
    } finally {
      this.making.set(false);
    }
  }

  /** All commands, for the list by name. */
  list(): Command[] {
    const inCase: Command[] = this.desk.currentId()
      ? [
          ...STATIONS.map((s, i) => ({
            name: `Station: ${s[0]!.toUpperCase()}${s.slice(1)}`,
            key: String(i + 1),
            run: () => this.station(s),
          })),
          { name: 'Drive bench of this case', key: 'v', run: () => this.drive() },
          { name: 'File a fact', key: 'f', run: () => this.factLineAsked.update((n) => n + 1) },
          { name: 'Seal and issue the report', key: 's', run: () => void this.seal() },
          { name: 'Undo the last fact', key: 'Ctrl+Z', run: () => void this.undo() },
          { name: 'Redo', key: 'Ctrl+Shift+Z', run: () => void this.redo() },
        ]
      : [];
    return [
      { name: 'New case', key: 'n', run: () => void this.newCase() },
      ...inCase,
      { name: 'Next case on the rack', key: 'j', run: () => this.step(1) },
      { name: 'Case before', key: 'k', run: () => this.step(-1) },
      { name: 'Drive bench, free', key: 'b', run: () => void this.router.navigate(['/drive']) },
      { name: 'Catalogue', key: 'c', run: () => void this.router.navigate(['/catalogue']) },
      { name: 'Open a case file', key: 'o', run: () => this.importAsked.update((n) => n + 1) },
      { name: 'House settings', key: 'h', run: () => this.overlay.set('house') },
      {
        name: 'Light or dark',
        key: 'd',
        run: () => this.house.setTheme(this.house.theme() === 'dark' ? 'light' : 'dark'),
      },
      { name: 'Keys', key: '?', run: () => this.overlay.set('keys') },
      { name: 'Find by name', key: 'Ctrl+K', run: () => this.overlay.set('palette') },
    ];
  }

  private words(fact: Fact): string {
    const voice = this.voice();
    return `${nameWords(fact, voice)} ${valueWords(fact, voice, this.desk.nameOf)}`;
  }
}
