import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { featureKey } from '@core/catalogue/feature-observables';
import { kindWord } from '@core/drive/drive-has';
import { formatNumber } from '@core/quantity/format-quantity';
import { has } from '@core/facts/read';
import { CaseDesk } from '../../data/case-desk';
import { VoiceService } from '../../acts/voice';
import { FactField } from '../../entry/fact-field';
import { SettingsPair } from '../../entry/settings-pair';
import { ComparePanel } from './compare-panel';
import { DuePanel } from './due-panel';
import { JobPanel } from './job-panel';
import { NewerPack } from './newer-pack';
import { percent } from '../../words/answers';
import { exclusionWords, kitReasons, kitStatus, VERDICT_WORDS } from '../../words/match';

/** Which drive it is, which kit belongs to it, and what it looks like. */
@Component({
  selector: 'hs-identify-page',
  imports: [FactField, RouterLink, SettingsPair, ComparePanel, DuePanel, JobPanel, NewerPack],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './identify-page.html',
  styles: `
    :host {
      display: grid;
      grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
      gap: var(--gap);
      align-items: start;
    }
    section {
      display: grid;
      gap: 6px;
    }
    .wide {
      grid-column: 1 / -1;
    }
    .left {
      display: grid;
      gap: var(--gap);
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
    .verdict {
      font-weight: 600;
      white-space: nowrap;
    }
    @media (max-width: 1100px) {
      :host {
        grid-template-columns: minmax(0, 1fr);
      }
    }
  `,
})
export class IdentifyPage {
  protected readonly desk = inject(CaseDesk);
  private readonly voice = inject(VoiceService).voice;
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
  protected readonly questions = computed(() =>
    (this.answers()?.asking.questions ?? []).map((q) => ({
      key: featureKey(q.feature.id),
      worth: `${q.bits.toFixed(2)} bits for ${q.minutes} min`,
      leaves: q.outcomes.map(
        (o) =>
          `${q.feature.options.find((x) => x.key === o.value)?.wording ?? o.value} → ${o.leaves.map((v) => v.name).join(' or ')}`,
      ),
    })),
  );
  protected readonly saving = computed(() => {
    const a = this.answers()?.asking;
    if (!a || a.questions.length < 2 || Number.isNaN(a.expectedMinutes)) return '';
    return `In this order about ${formatNumber(a.expectedMinutes, 1)} min to expect, ${formatNumber(a.allMinutes - a.expectedMinutes, 1)} min less than asking everything.`;
  });
  protected readonly answered = computed(() => {
    const cat = this.desk.current()?.catalogue;
    const state = this.desk.current()?.state;
    return [...(cat?.features.keys() ?? [])].map(featureKey).filter((k) => state && has(state, k));
  });
  protected readonly kits = computed(() =>
    (this.answers()?.kits ?? []).map((m) => ({
      number: m.kit.number,
      name: m.kit.name,
      verdict: VERDICT_WORDS[m.verdict],
      status: kitStatus(m),
      sign: { fits: '✓', fits_if: '?', no: '✕' }[m.verdict],
      reasons: kitReasons(m, this.voice()),
      named: this.answers()?.kit?.number === m.kit.number,
    })),
  );
}
