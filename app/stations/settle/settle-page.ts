import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzMessageService } from 'ng-zorro-antd/message';
import type { FaultAnswer } from '@core/answer/answers';
import { faultKey } from '@core/claim/faults';
import { CaseDesk } from '../../data/case-desk';
import { CaseFiles } from '../../data/case-files';
import { HouseStore } from '../../data/house';
import { Reports } from '../../data/reports';
import { VoiceService } from '../../data/voice';
import { FactField } from '../../ui/fact-field';
import { factWords } from '../../words/facts';
import { objectionWords, termsWords, warningWords } from '../../words/answers';

/** Fault against the claim, decision, and the report that can be proved. */
@Component({
  selector: 'hs-settle-page',
  imports: [NzButtonComponent, FactField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './settle-page.html',
  styles: `
    :host {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(340px, 1fr));
      gap: var(--gap);
      align-items: start;
    }
    section {
      display: grid;
      gap: 5px;
    }
    .fault {
      border-bottom: 1px solid var(--rule);
      padding: 4px 0;
      display: grid;
      gap: 2px;
    }
    .objections {
      margin: 0;
      padding-left: 18px;
    }
    .seal {
      border-left: 3px solid var(--verdigris);
      padding-left: 8px;
    }
    .seal.altered {
      border-color: var(--bad-ink);
    }
    .digest {
      overflow-wrap: anywhere;
      font-size: 0.86em;
    }
  `,
})
export class SettlePage {
  protected readonly desk = inject(CaseDesk);
  private readonly house = inject(HouseStore);
  private readonly voice = inject(VoiceService).voice;
  private readonly files = inject(CaseFiles);
  private readonly reports = inject(Reports);
  private readonly message = inject(NzMessageService);
  protected readonly busy = signal(false);
  protected readonly answers = computed(() => this.desk.current()?.answers);
  protected readonly terms = computed(() => {
    const t = this.answers()?.terms;
    return t ? termsWords(t, this.house.house()) : 'Cannot tell: the kit is not known.';
  });
  protected readonly claimKeys = [
    'claim.number',
    'claim.invoice',
    'claim.sheet',
    'claim.cost_part',
    'claim.cost_labour',
    'claim.cost_other',
  ];
  protected readonly decisionKeys = ['claim.decision', 'claim.share', 'claim.alternative', 'claim.reason'];
  protected readonly faults = computed(() =>
    (this.answers()?.faults ?? [])
      .filter((f) => f.proposed || f.recorded !== undefined || f.evidence.length > 0)
      .sort((a, b) => Number(b.proposed) - Number(a.proposed))
      .map((f) => ({ answer: f, evidence: f.evidence.map((id) => this.factText(id)) })),
  );
  protected readonly objections = computed(() =>
    (this.answers()?.decision.objections ?? []).map(objectionWords),
  );
  protected readonly warnings = computed(() =>
    (this.answers()?.decision.warnings ?? []).map((w) => warningWords(w, this.desk.nameOf)),
  );
  protected readonly seals = computed(() => this.answers()?.seals ?? []);

  protected record(f: FaultAnswer): void {
    void this.desk.file({
      key: faultKey(f.fault.code),
      value: f.step?.id ?? 'step not known',
      how: 'decided',
      basis: f.evidence,
    });
  }

  protected withdraw(f: FaultAnswer): void {
    if (f.recorded) void this.desk.strike(f.recorded);
  }

  protected async issue(): Promise<void> {
    await this.desk.seal();
    await this.print();
  }

  protected async print(): Promise<void> {
    const view = this.desk.current();
    if (!view) return;
    this.busy.set(true);
    try {
      await this.reports.download(view);
    } catch (e) {
      this.message.error(
        `The report could not be made: ${e instanceof Error ? e.message : String(e)}. The case is kept; try again.`,
      );
    } finally {
      this.busy.set(false);
    }
  }

  protected export(): void {
    const view = this.desk.current();
    if (view) this.files.export(view);
  }

  private factText(id: string): string {
    const fact = this.desk.current()?.state.log.find((f) => f.id === id);
    return fact ? factWords(fact, this.voice(), this.desk.nameOf) : id;
  }
}
