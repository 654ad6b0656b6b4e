import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  type ElementRef,
  inject,
  Injector,
  signal,
  viewChild,
} from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzInputDirective } from 'ng-zorro-antd/input';
import { NzTableModule } from 'ng-zorro-antd/table';
import { costFacts } from '@core/answer/decide';
import { COST_KINDS, type CostKind } from '@core/catalogue/plan';
import { type CostLine, type Costs, MINOR } from '@core/claim/costs';
import { has, textOf } from '@core/facts/read';
import { readValue } from '@core/facts/read-value';
import { nameOfId } from '@core/facts/thing';
import { must } from '@core/quantity/must';
import { CaseDesk } from '../../data/case-desk';
import { troubleSentence } from '../../data/store-trouble';
import { percent } from '../../messages/answers';
import { COST_KIND_WORDS, costLineWords, ROUNDING } from '../../messages/costs';
import { moneyWords } from '../../messages/money';
import { readSentence } from '../../messages/reading';
import { Segmented } from '../../ui/segmented';

type Draft = { what: string; kind: CostKind; quantity: string; rate: string; tax: string; share: string };
const EMPTY: Draft = { what: '', kind: 'part', quantity: '1', rate: '', tax: '', share: '' };
const NONE: Costs = { lines: [], net: 0, taxed: 0, gross: 0, ours: undefined, theirs: undefined };

/** What a claim asks for, line by line with quantity, rate and tax; totals to the cent, and who bears them by the decision. */
@Component({
  selector: 'hs-costs-card',
  imports: [NzButtonComponent, NzInputDirective, NzTableModule, Segmented],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './costs-card.html',
  styleUrl: './costs-card.less',
})
export class CostsCard {
  private readonly desk = inject(CaseDesk);
  private readonly injector = inject(Injector);
  private readonly what = viewChild<ElementRef<HTMLInputElement>>('what');
  /** The sum stands on the page; its lines are opened to be worked on. */
  protected readonly open = signal(false);
  protected readonly KINDS = COST_KIND_WORDS;
  protected readonly ROUNDING = ROUNDING;
  protected readonly money = moneyWords;
  protected readonly line = costLineWords;
  protected readonly share = percent;
  protected readonly kinds = COST_KINDS.map((value) => ({ value, label: COST_KIND_WORDS[value] }));
  protected readonly costs = computed(() => this.desk.current()?.answers?.costs ?? NONE);
  protected readonly needsShare = computed(() => {
    const state = this.desk.current()?.state;
    const decision = state && textOf(state, 'claim.decision');
    return (
      (decision === 'part' || decision === 'goodwill') && state !== undefined && !has(state, 'claim.share')
    );
  });
  protected readonly draft = signal<Draft>(EMPTY);
  /** Id of the line that is being changed. */
  protected readonly changing = signal<string | undefined>(undefined);
  protected readonly wrong = signal('');
  protected readonly typed = computed(() => this.draft().rate.trim() !== '');

  /** A line of its own; the others are sums as somebody told them. */
  protected own(l: CostLine): boolean {
    return l.id.startsWith('cost:');
  }

  protected name(l: CostLine): string {
    return l.what || COST_KIND_WORDS[l.kind];
  }

  protected put(part: Partial<Draft>): void {
    this.wrong.set('');
    this.draft.update((d) => ({ ...d, ...part }));
  }

  protected key(e: KeyboardEvent): void {
    if (e.key === 'Escape') this.leave();
    if (e.key !== 'Enter' || e.target instanceof HTMLButtonElement) return;
    e.preventDefault();
    void this.file();
  }

  /** Files the line, all of it or nothing with what is wrong; the next one begins. */
  protected async file(): Promise<void> {
    const d = this.draft();
    const quantity = this.number('cost.quantity', d.quantity.trim() || '1');
    const rate = this.number('cost.rate', d.rate);
    const tax = this.number('cost.tax', d.tax);
    const share = this.number('cost.share', d.share);
    if (quantity === null || rate === null || tax === null || share === null) return;
    if (rate === undefined) return this.wrong.set('Type the rate of one, in AC.');
    const id = this.changing() ?? crypto.randomUUID().slice(0, 8);
    const what = d.what.trim();
    const { state } = must(this.desk.current());
    const filed = await this.desk.fileAll(
      costFacts(id, { what, kind: d.kind, quantity: quantity ?? 1, rate, tax, share }, state),
    );
    if (!filed.ok) return this.wrong.set(troubleSentence(filed.error));
    this.changing.set(undefined);
    // The next line is taxed alike.
    this.draft.set({ ...EMPTY, kind: d.kind, tax: d.tax });
    this.what()?.nativeElement.focus();
  }

  protected change(l: CostLine): void {
    const state = must(this.desk.current()).state;
    this.changing.set(nameOfId(l.id));
    this.draft.set({
      what: l.what,
      kind: l.kind,
      quantity: String(l.quantity),
      rate: String(l.rate / MINOR),
      tax: l.tax > 0 ? String(Number((l.tax * 100).toFixed(2))) : '',
      share: has(state, 'cost.share', l.id) ? String(Math.round((l.share ?? 0) * 100)) : '',
    });
    this.what()?.nativeElement.focus();
  }

  protected fold(): void {
    this.leave();
    this.open.update((o) => !o);
    if (this.open()) afterNextRender(() => this.what()?.nativeElement.focus(), { injector: this.injector });
  }

  protected leave(): void {
    this.changing.set(undefined);
    this.draft.set(EMPTY);
    this.wrong.set('');
  }

  /** Takes a line back with all that was filed of it, or the sum that was told. */
  protected async remove(l: CostLine): Promise<void> {
    const done = await this.desk.strikeAll((f) => (this.own(l) ? f.about === l.id : f.key === l.id));
    if (!done.ok) this.wrong.set(troubleSentence(done.error));
  }

  /** The number that was typed; undefined for none, null for one that cannot be, which is told. */
  private number(key: string, typed: string): number | undefined | null {
    if (typed.trim() === '') return undefined;
    const read = readValue(must(this.desk.registry().get(key)), typed, this.desk.readContext());
    if (read.ok && typeof read.value.value === 'number') return read.value.value;
    this.wrong.set(read.ok ? 'Type a number.' : readSentence(read.error));
    return null;
  }
}
