import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  signal,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzInputDirective } from 'ng-zorro-antd/input';
import { NzProgressModule } from 'ng-zorro-antd/progress';
import { optionsOf } from '@core/facts/observable';
import { lexiconOf } from '@core/intake/lexicon';
import { checkTaught, readTaughtFile, taughtFile } from '@core/intake/taught';
import type { TaughtWord } from '@core/intake/taught-words';
import { registryFor, worldOf } from '@core/answer/world';
import { Notices } from '../commands/notices';
import { DeskSettingsStore } from '../data/desk-settings';
import { Packs } from '../data/packs';
import { WordTrial } from '../data/word-trial';
import { taughtErrorWords, taughtFileWords, trialWords } from '../messages/taught';
import { download } from '../report/download';
import { FileButton } from '../ui/file-button';
import { Pick } from '../ui/pick';
import { StateCard } from '../ui/state';

/** Pieces that nothing takes, in sight. */
const IN_SIGHT = 60;

/** Words that this house taught the reader of messages: each tried against all kept messages before it is taken; and what is told that nothing takes. */
@Component({
  selector: 'hs-words-page',
  imports: [NzButtonComponent, NzInputDirective, NzProgressModule, RouterLink, FileButton, Pick, StateCard],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './words-page.html',
  styleUrl: './words-page.less',
})
export class WordsPage {
  protected readonly settings = inject(DeskSettingsStore);
  protected readonly trial = inject(WordTrial);
  private readonly packs = inject(Packs);
  private readonly notices = inject(Notices);
  /** A phrase that nothing takes, from the address. */
  readonly phrase = input<string>();
  protected readonly typed = linkedSignal(() => this.phrase() ?? '');
  protected readonly key = signal<string | undefined>(undefined);
  protected readonly option = signal<string | undefined>(undefined);
  private readonly registry = computed(() => {
    const catalogue = this.packs.newest();
    return catalogue && registryFor(worldOf(catalogue));
  });
  protected readonly observables = computed(() => {
    const registry = this.registry();
    return registry
      ? [...lexiconOf(registry).observables.values()]
          .map((o) => ({ key: o.key, wording: o.wording }))
          .sort((a, b) => a.wording.localeCompare(b.wording))
      : [];
  });
  protected readonly options = computed(() => {
    const o = this.registry()?.get(this.key() ?? '');
    return o ? optionsOf(o).map((x) => ({ key: x.key, wording: x.wording })) : [];
  });
  protected readonly taught = computed(() => {
    const registry = this.registry();
    return this.settings.settings().taught.map((t) => {
      const o = registry?.get(t.key);
      return {
        ...t,
        what: o?.wording ?? t.key,
        says: (o && optionsOf(o).find((x) => x.key === t.option)?.wording) ?? t.option,
      };
    });
  });
  /** The word that is being taught, with the words of the house, where it can be. */
  protected readonly wanted = computed(() => {
    const [registry, key, option, phrase] = [this.registry(), this.key(), this.option(), this.typed().trim()];
    if (!registry || key === undefined || option === undefined || phrase === '') return undefined;
    return checkTaught({ phrase, key, option }, this.settings.settings().taught, registry);
  });
  protected readonly wrong = computed(() => {
    const wanted = this.wanted();
    return wanted && !wanted.ok ? taughtErrorWords(wanted.error) : '';
  });
  /** Words as they were tried; another word has to be tried anew. */
  private readonly tried = signal<string | undefined>(undefined);
  protected readonly answer = computed(() => this.trial.answer());
  protected readonly fresh = computed(
    () => this.tried() === JSON.stringify(this.after()) && this.answer() !== undefined,
  );
  protected readonly says = computed(() => {
    const a = this.answer();
    return a ? trialWords(a.changed.length, a.messages, this.wanted()?.ok === true) : '';
  });
  protected readonly untaken = computed(() => this.answer()?.untaken.slice(0, IN_SIGHT) ?? []);
  protected readonly more = computed(() => Math.max(0, (this.answer()?.untaken.length ?? 0) - IN_SIGHT));

  protected pickKey(key: string): void {
    this.key.set(key);
    this.option.set(undefined);
  }

  private after(): readonly TaughtWord[] {
    const wanted = this.wanted();
    const taught = this.settings.settings().taught;
    return wanted?.ok ? [...taught, wanted.value] : taught;
  }

  protected try(): void {
    this.tried.set(JSON.stringify(this.after()));
    this.trial.try(this.after());
  }

  protected take(): void {
    this.keep(this.after());
    this.typed.set('');
    this.key.set(undefined);
    this.option.set(undefined);
  }

  protected remove(word: TaughtWord): void {
    this.keep(
      this.settings.settings().taught.filter((t) => !(t.phrase === word.phrase && t.key === word.key)),
    );
  }

  private keep(taught: readonly TaughtWord[]): void {
    this.settings.change({ taught: [...taught] });
    this.trial.forget();
    this.tried.set(undefined);
  }

  protected export(): void {
    download(
      'words-of-the-house.json',
      new Blob([taughtFile(this.settings.settings().taught)], { type: 'application/json' }),
    );
  }

  /** Words of a file are added to those that are here; what is known or unknown to this registry is left and told. */
  protected async import(files: readonly File[]): Promise<void> {
    const registry = this.registry();
    for (const file of files) {
      const read = readTaughtFile(await file.text());
      if (!read.ok || !registry) {
        this.notices.refuse(
          `${file.name}: ${read.ok ? 'no catalogue is here yet' : taughtFileWords(read.error)}. Nothing was taken.`,
        );
        continue;
      }
      let taught = this.settings.settings().taught;
      const left: string[] = [];
      for (const w of read.value) {
        const checked = checkTaught(w, taught, registry);
        if (checked.ok) taught = [...taught, checked.value];
        else left.push(taughtErrorWords(checked.error));
      }
      const added = taught.length - this.settings.settings().taught.length;
      this.keep(taught);
      void this.notices.say(
        'success',
        `${file.name}: ${added} of ${read.value.length} words taken.${left.length > 0 ? ` Left: ${left.join(' ')}` : ''}`,
      );
    }
  }
}
