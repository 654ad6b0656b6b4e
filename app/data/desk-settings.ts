import { computed, inject, Injectable, signal } from '@angular/core';
import * as z from 'zod';
import '@core/quantity/plain-schemas';
import type { Notation } from '@core/facts/read-value';
import { KeptViewSchema, MOST_VIEWS } from '@core/answer/ledger-view';
import { KeptFormSchema, MOST_FORMS } from '@core/intake/kept-form';
import { TaughtWordsSchema } from '@core/intake/taught-words';
import { SETTING } from '../records/records';
import { FactRepository } from './fact-repository';

/** How this desk writes and looks. Read back through the schema, so that an old or broken record falls to defaults. */
export const DeskSettingsSchema = z.strictObject({
  by: z.string().min(1).max(120),
  /** As the house signs its letters: its name, then its address, a line each. */
  house: z.string().max(400).default(''),
  dateOrder: z.enum(['dmy', 'mdy', 'ymd']),
  distance: z.enum(['km', 'mi']),
  /** 'bench' is what large targets were called before. */
  density: z.preprocess((d) => (d === 'bench' ? 'large' : d), z.enum(['compact', 'large'])),
  /** The hand that works: what is reached for most, the tape, stands on its side. */
  hand: z.enum(['right', 'left']).default('right'),
  /** Where spoken words may be understood: on this machine, or also by a service of the browser's maker. */
  dictation: z.enum(['here', 'service']).default('here'),
  /** Rack and tape whole, or narrowed to a rail. */
  rack: z.enum(['whole', 'rail']).default('whole'),
  tape: z.enum(['whole', 'rail']).default('whole'),
  /** At the bench a part is drawn large, its inspections as a list behind it, or beside it. */
  looks: z.enum(['picture', 'list']).default('picture'),
  /** Step to which a service label rounds its distance down, in the house's unit. */
  labelStep: z.number().int().min(1).max(50_000).default(1000),
  /** Answers to what practitioners disagree on, where they are not the ones that ship. */
  chosen: z.record(z.string(), z.string()).default({}),
  /** Words that this house taught the reader of messages. */
  taught: TaughtWordsSchema.default([]),
  /** Ways to look at the ledger, by name. */
  ledgerViews: z.array(KeptViewSchema).max(MOST_VIEWS).default([]),
  /** How tables of claims were read here, the last one first. */
  claimForms: z.array(KeptFormSchema).max(MOST_FORMS).default([]),
});
export type DeskSettings = z.infer<typeof DeskSettingsSchema>;
export type Theme = 'light' | 'dark';

function localeOrder(): DeskSettings['dateOrder'] {
  const parts = new Intl.DateTimeFormat(navigator.language).formatToParts(Date.UTC(2000, 11, 31));
  const order = parts
    .map((p) => p.type[0])
    .filter((c) => c === 'd' || c === 'm' || c === 'y')
    .join('');
  return order === 'mdy' || order === 'ymd' ? order : 'dmy';
}

const DEFAULTS: DeskSettings = {
  by: 'Specialist',
  house: '',
  dateOrder: localeOrder(),
  distance: 'km',
  density: 'compact',
  hand: 'right',
  dictation: 'here',
  rack: 'whole',
  tape: 'whole',
  looks: 'picture',
  labelStep: 1000,
  chosen: {},
  taught: [],
  ledgerViews: [],
  claimForms: [],
};

@Injectable({ providedIn: 'root' })
export class DeskSettingsStore {
  private readonly repository = inject(FactRepository);
  readonly settings = signal<DeskSettings>(DEFAULTS);
  readonly theme = signal<Theme>(document.documentElement.dataset['theme'] === 'dark' ? 'dark' : 'light');
  readonly notation = computed<Notation>(() => ({
    dateOrder: this.settings().dateOrder,
    units: { distance: this.settings().distance },
  }));

  async load(): Promise<void> {
    const kept = DeskSettingsSchema.safeParse(await this.repository.setting(SETTING.desk));
    if (kept.success) this.settings.set(kept.data);
    this.paint();
  }

  change(part: Partial<DeskSettings>): void {
    const next = DeskSettingsSchema.safeParse({ ...this.settings(), ...part });
    if (!next.success) return;
    this.settings.set(next.data);
    this.paint();
    void this.repository.keepSetting(SETTING.desk, next.data);
  }

  /** Narrows the rack or the tape to a rail, or opens it again. */
  flip(part: 'rack' | 'tape'): void {
    this.change({ [part]: this.settings()[part] === 'rail' ? 'whole' : 'rail' });
  }

  setTheme(theme: Theme): void {
    this.theme.set(theme);
    document.documentElement.dataset['theme'] = theme;
    for (const sheet of ['theme', 'controls'])
      document.getElementById(`app-${sheet}`)?.setAttribute('href', `${sheet}-${theme}.css`);
    try {
      localStorage.setItem('hs-theme', theme);
    } catch {
      // A browser that forbids its small store forgets the theme with the window; nothing else depends on it.
    }
  }

  private paint(): void {
    document.documentElement.dataset['density'] = this.settings().density;
    document.documentElement.dataset['hand'] = this.settings().hand;
  }
}
