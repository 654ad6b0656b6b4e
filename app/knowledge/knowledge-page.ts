import { must, nth } from '@core/quantity/must';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  signal,
} from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzInputDirective } from 'ng-zorro-antd/input';
import { CAUSES } from '@core/cause/cause-data';
import { changeRows, holding, readChanges } from '@core/cause/changes';
import { numbersOf } from '@core/cause/numbers';
import { download } from '../report/download';
import { Notices } from '../commands/notices';
import { OwnNumbers } from '../data/own-numbers';
import { writeCsv } from '../report/csv';
import { FileButton } from '../ui/file-button';
import { StateCard } from '../ui/state';
import { editionWords, fileSentence, numberPlaceWords, shareWords } from '../messages/knowledge';
import { HistoryPanel } from './history-panel';
import { LifeCurve } from './life-curve';
import { NumberRow } from './number-row';
import { OwnCases } from './own-cases';
import { RejudgePanel } from './rejudge-panel';
import { ScorePanel } from './score-panel';
import { WORDED, refusalWords, KnowledgeSentences } from './knowledge-sentences';

/** The numbers that causes are weighed by: each with its ground, to be seen otherwise by the ownNumbers. */
@Component({
  selector: 'hs-knowledge-page',
  imports: [
    NzButtonComponent,
    NzInputDirective,
    FileButton,
    StateCard,
    NumberRow,
    LifeCurve,
    OwnCases,
    RejudgePanel,
    ScorePanel,
    HistoryPanel,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './knowledge-page.html',
  styleUrl: './knowledge-page.less',
})
export class KnowledgePage {
  protected readonly ownNumbers = inject(OwnNumbers);
  private readonly voice = inject(KnowledgeSentences).voice;
  private readonly notices = inject(Notices);
  /** Cause that is looked at, from the address. */
  readonly cause = input<string>();
  protected readonly chosen = linkedSignal(() => this.cause() ?? nth(WORDED.causes, 0).key);
  protected readonly typed = signal('');
  /** Place of the number that is open. */
  protected readonly opened = signal<string | undefined>(undefined);
  /** Mechanism whose findings are in sight. */
  protected readonly shown = signal<string | undefined>(undefined);

  private readonly numbers = computed(() => numbersOf(this.ownNumbers.knowledge().causes));
  private readonly held = computed(() => holding(this.ownNumbers.changes()));
  protected readonly edition = computed(() => editionWords(CAUSES.edition, this.held().size));
  protected readonly families = computed(() => {
    const wanted = this.typed().toLowerCase().split(/\s+/).filter(Boolean);
    const places = [...this.held().keys()];
    const found = WORDED.causes
      .filter((c) => {
        const text = `${c.wording} ${c.family} ${c.mechanism} ${c.consequence}`.toLowerCase();
        return wanted.every((w) => text.includes(w));
      })
      .map((c) => ({
        key: c.key,
        name: c.wording,
        family: c.family,
        prior: shareWords(must(this.numbers().get(`causes/${c.key}/prior`)).value),
        changed: places.some((p) => p.startsWith(`causes/${c.key}/`)),
      }));
    const families = [...new Set(found.map((c) => c.family))];
    return families.map((name) => ({ name, causes: found.filter((c) => c.family === name) }));
  });
  protected readonly detail = computed(() => {
    const c = WORDED.causes.find((x) => x.key === this.chosen()) ?? nth(WORDED.causes, 0);
    const now = must(this.ownNumbers.knowledge().causes.causes.find((x) => x.key === c.key));
    const places = [...this.numbers().values()];
    return {
      ...c,
      life: now.life,
      needs: (c.needs ?? []).map((n) => n.replaceAll('_', ' ')).join(', '),
      prior: `causes/${c.key}/prior`,
      lives: ['shape', 'scale'].map((k) => `causes/${c.key}/life/${k}`),
      works: Object.keys(c.works).map((m) => ({
        key: m,
        place: `causes/${c.key}/works/${m}`,
        name: WORDED.mechanisms.find((x) => x.key === m)?.wording ?? m,
        places: places.filter((n) => n.place.startsWith(`mechanisms/${m}/`)).map((n) => n.place),
      })),
    };
  });
  /** How common each family is beside, by drive and arrival. */
  protected readonly tilts = computed(() =>
    [...this.numbers().values()]
      .filter((n) => n.kind === 'tilt' && n.about[0] === this.detail().family)
      .map((n) => n.place),
  );
  protected readonly nameOf = (place: string): string =>
    numberPlaceWords(numbersOf(CAUSES).get(place), place, WORDED, this.voice());

  protected choose(key: string): void {
    this.chosen.set(key);
    this.opened.set(undefined);
    this.shown.set(undefined);
  }

  protected takeOut(): void {
    download(
      'knowledge-changes.csv',
      new Blob([writeCsv(changeRows(this.ownNumbers.changes()))], { type: 'text/csv' }),
    );
  }

  /** A file of changes takes the place of those that are here: all of it or nothing. */
  protected async bringIn(files: readonly File[]): Promise<void> {
    const read = readChanges(CAUSES, await nth(files, 0).text());
    if (!read.ok) return this.notices.refuse(fileSentence(read.error));
    const kept = await this.ownNumbers.keep(read.value);
    if (kept.ok) return this.notices.say('success', `${read.value.length} changes brought in.`);
    this.notices.refuse(refusalWords(kept.error));
  }
}
