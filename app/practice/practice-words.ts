import { computed, inject, Injectable } from '@angular/core';
import { registryFor } from '@core/answer/world';
import type { CauseEntry } from '@core/cause/cause-data';
import type { FactValue } from '@core/facts/fact';
import type { Registry } from '@core/facts/observable';
import { showValue } from '@core/facts/show-value';
import { nameOfId } from '@core/facts/thing';
import { DeskPolicy } from '../data/desk-policy';
import { DeskSettingsStore } from '../data/desk-settings';
import { Packs } from '../data/packs';

/** What of returns for practice is said by name: looks, values, causes. */
@Injectable({ providedIn: 'root' })
export class PracticeWords {
  private readonly packs = inject(Packs);
  private readonly policy = inject(DeskPolicy);
  private readonly settings = inject(DeskSettingsStore);
  readonly registry = computed<Registry>(() => {
    const catalogue = this.packs.newest();
    return catalogue
      ? registryFor({ catalogue, knowledge: this.policy.judging().knowledge })
      : new Map<string, never>();
  });

  /** The cause itself; undefined of one that is not known here. */
  cause(key: string): CauseEntry | undefined {
    return this.policy.judging().knowledge.causes.causes.find((c) => c.key === key);
  }

  nameOfCause(key: string): string {
    return this.cause(key)?.wording ?? key;
  }

  /** A look by its observable, and the thing where it has a name of its own. */
  look({ key, about }: { key: string; about?: string | undefined }): string {
    const name = this.registry().get(key)?.wording ?? key;
    return about === undefined || about === this.registry().get(key)?.part
      ? name
      : `${name}, ${nameOfId(about)}`;
  }

  value(key: string, value: FactValue, u?: number): string {
    const o = this.registry().get(key);
    if (!o) return '';
    return showValue(o, value, this.settings.notation(), (_, name) => name, u);
  }
}
