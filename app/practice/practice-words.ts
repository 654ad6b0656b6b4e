import { computed, inject, Injectable } from '@angular/core';
import { registryFor } from '@core/answer/world';
import { stagesFor } from '@core/catalogue/find-records';
import { type CauseEntry, causesFor } from '@core/cause/cause-data';
import { anyHas } from '@core/drive/drive-has';
import type { FactValue } from '@core/facts/fact';
import type { Registry } from '@core/facts/observable';
import { showValue } from '@core/facts/show-value';
import { nameOfId } from '@core/facts/thing';
import type { VirtualCase } from '@core/practice/virtual-case';
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

  /** The cause itself, in the words of a return's drive; undefined of one that is not known here. */
  cause(key: string, of?: VirtualCase): CauseEntry | undefined {
    const causes = this.policy.judging().knowledge.causes;
    return causesFor(causes, of && this.hasOf(of)).causes.find((c) => c.key === key);
  }

  nameOfCause(key: string, of?: VirtualCase): string {
    return this.cause(key, of)?.wording ?? this.cause(key)?.wording ?? key;
  }

  /** What the engine's drives have; undefined where the engine is not known here. */
  private hasOf({ opening }: VirtualCase): ReadonlySet<string> | undefined {
    const catalogue = this.packs.newest();
    const engine = opening.find((l) => l.key === 'engine.code')?.value;
    const variants = typeof engine === 'string' ? (catalogue?.variantsOf.get(engine) ?? []) : [];
    return anyHas(
      variants.map((v) => (catalogue && v.layout !== undefined ? stagesFor(catalogue, v.layout) : [])),
    );
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
