import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { adviseKit } from '@core/advice/kits';
import { featureKey } from '@core/catalogue/feature-observables';
import { kindWord } from '@core/drive/drive-has';
import { formatNumber } from '@core/quantity/format-quantity';
import { NzTableModule } from 'ng-zorro-antd/table';
import { NzTabsModule } from 'ng-zorro-antd/tabs';
import { NzTagModule } from 'ng-zorro-antd/tag';
import { wasAsked } from '@core/facts/read';
import { Clock } from '../../data/clock';
import { CaseDesk } from '../../data/case-desk';
import { CaseSentences } from '../../commands/case-sentences';
import { DeskSession } from '../../entry/desk-session';
import { Field } from '../../entry/field';
import { StateCard } from '../../ui/state';
import { SettingsPair } from '../../entry/settings-pair';
import { ComparePartsPanel } from './compare-panel';
import { DuePanel } from './due-panel';
import { JobPanel } from './job-panel';
import { NewerPack } from './newer-pack';
import { percent } from '../../messages/answers';
import { identifyOpening } from '../../messages/openings';
import { minutesWords } from '../../messages/verdict';
import { Opening } from '../../ui/opening';
import { exclusionWords, kitReasons, kitStatus, VERDICT_WORDS } from '../../messages/match';

type KitGroup = {
  kits: { number: string; name: string; status: string; named: boolean }[];
  verdict: string;
  sign: string;
  reasons: string[];
};

/** Which drive it is, which kit belongs to it, and what it looks like. */
@Component({
  selector: 'hs-identify-page',
  imports: [
    Opening,
    Field,
    RouterLink,
    SettingsPair,
    ComparePartsPanel,
    DuePanel,
    JobPanel,
    NewerPack,
    NzTableModule,
    NzTabsModule,
    NzTagModule,
    StateCard,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './identify-page.html',
  styles: `
    :host {
      display: block;
    }
    .which {
      display: grid;
      grid-template-columns: minmax(0, 1.25fr) minmax(0, 1fr);
      gap: var(--gap);
      align-items: start;
    }
    section {
      display: grid;
      gap: 5px;
    }
    .wide {
      grid-column: 1 / -1;
    }
    ul {
      list-style: none;
      padding: 0;
      margin: 0;
      display: grid;
      gap: 6px;
    }
    .out {
      color: var(--ink-2);
    }
    .out b {
      text-decoration: line-through;
    }
    .number {
      margin-right: 8px;
    }
    .verdict {
      font-weight: 600;
      white-space: nowrap;
    }
    @media (max-width: 760px) {
      .which {
        grid-template-columns: minmax(0, 1fr);
      }
    }
  `,
})
export class IdentifyPage {
  protected readonly session = inject(DeskSession);
  protected readonly desk = inject(CaseDesk);
  private readonly voice = inject(CaseSentences).voice;
  private readonly clock = inject(Clock);
  protected readonly answers = computed(() => this.desk.current()?.answers);
  protected readonly kind = computed(() => kindWord(this.answers()?.possible.has));
  protected readonly counts = computed(() => {
    const o = this.desk.registry().get('belt.teeth_count');
    return o !== undefined && this.desk.applies()(o);
  });
  protected readonly standings = computed(() =>
    (this.answers()?.identification?.standings ?? []).map((s) => ({
      name: s.variant.name,
      share: s.excludedBy.length ? '' : percent(s.share),
      why: s.excludedBy.map((e) => exclusionWords(e, this.voice())).join('; '),
    })),
  );
  /** Which kit it takes, as a caller would be told it. */
  protected readonly opening = computed(() => {
    const view = this.desk.current();
    if (!view?.answers?.engine || !view.world) return undefined;
    const { world, state, answers: a } = view;
    const { lead } = adviseKit({ world, state, a, today: this.clock.today() });
    return identifyOpening(lead, a, this.voice());
  });
  protected readonly questions = computed(() =>
    (this.answers()?.asking.questions ?? []).map((q) => ({
      key: featureKey(q.feature.id),
      worth: minutesWords(q.minutes),
      leaves: q.outcomes
        .map(
          (o) =>
            `${q.feature.options.find((x) => x.key === o.value)?.wording ?? o.value} → ${o.leaves.map((v) => v.name).join(' or ')}`,
        )
        .join(' · '),
    })),
  );
  protected readonly saving = computed(() => {
    const a = this.answers()?.asking;
    if (!a || a.questions.length < 2 || Number.isNaN(a.expectedMinutes)) return '';
    return `In this order about ${formatNumber(a.expectedMinutes, 0)} min to expect, ${formatNumber(a.allMinutes - a.expectedMinutes, 0)} min less than asking everything.`;
  });
  protected readonly answered = computed(() => {
    const cat = this.desk.current()?.catalogue;
    const state = this.desk.current()?.state;
    return [...(cat?.features.keys() ?? [])].map(featureKey).filter((k) => state && wasAsked(state, k));
  });
  /** Kits that have the same answer for the same reasons stand together. */
  protected readonly kits = computed(() => {
    const groups = new Map<string, KitGroup>();
    for (const m of this.answers()?.kits ?? []) {
      const reasons = kitReasons(m, this.voice());
      const key = [m.verdict, ...reasons].join('\n');
      const group = groups.get(key) ?? {
        kits: [],
        verdict: VERDICT_WORDS[m.verdict],
        sign: { fits: '✓', fits_if: '?', no: '✕' }[m.verdict],
        reasons,
      };
      group.kits.push({
        number: m.kit.number,
        name: m.kit.name,
        status: kitStatus(m),
        named: this.answers()?.kit?.number === m.kit.number,
      });
      groups.set(key, group);
    }
    return [...groups.values()];
  });
}
