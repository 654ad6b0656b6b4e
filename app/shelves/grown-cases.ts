import type { Injector } from '@angular/core';
import { summaryOf } from '@core/answer/case-summary';
import { worldOf } from '@core/answer/world';
import type { Fact } from '@core/facts/fact';
import { textOf } from '@core/facts/read';
import { reduce } from '@core/facts/state';
import type { Cases } from '../data/cases';
import type { FactRepository } from '../data/fact-repository';
import type { Packs } from '../data/packs';
import type { ShelfState } from '../data/shelf-state';

/** Summaries that are made here; more are made in a thread. */
const FEW = 6;

/** Cases that got facts from the shelf: they are told at once, and their summaries follow. */
export class GrownCases {
  private readonly grew = new Set<string>();

  constructor(
    private readonly repository: FactRepository,
    private readonly cases: Cases,
    private readonly packs: Packs,
    private readonly state: ShelfState,
    private readonly injector: Injector,
  ) {}

  grown(cases: readonly string[], facts: readonly Fact[]): void {
    const onRack = new Set(this.cases.summaries().map((h) => h.id));
    for (const id of cases) {
      this.grew.add(id);
      const own = facts.filter((f) => f.case === id);
      // of a case that nobody here has seen yet nothing is newer than the rest
      if (onRack.has(id)) this.state.add(id, own);
    }
    this.repository.tell({ grown: cases, summaries: [], packs: [], extracts: [] });
  }

  /** The rack shows what came: a few cases are read here, many in a thread. */
  async summarise(): Promise<void> {
    const cases = [...this.grew];
    this.grew.clear();
    if (cases.length === 0) return;
    if (cases.length > FEW) {
      const { SummaryKeeper } = await import('../data/summary-keeper');
      await this.injector.get(SummaryKeeper).rebuild(cases);
      return;
    }
    const made = [];
    for (const id of cases) {
      const facts = await this.repository.factsOf(id);
      const catalogue = await this.packs.forCase(id, textOf(reduce(facts), 'case.catalogue'));
      made.push({ summary: summaryOf(id, facts, catalogue && worldOf(catalogue)), facts: facts.length });
    }
    await this.repository.keepSummaries(made);
  }
}
