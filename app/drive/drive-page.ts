import {
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  signal,
  viewChildren,
} from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { CaseDesk } from '../data/case-desk';
import { DriveFiles } from '../acts/drive-files';
import { DialField } from '../ui/dial-field';
import { settingsSentence } from '../words/drive';
import { BenchStore } from './bench-store';
import { DriveFigure } from './drive-figure';
import { FaultFigure } from './fault-figure';
import { EditPanel } from './panels/edit-panel';
import { HeadsPanel } from './panels/heads-panel';
import { HeatPanel } from './panels/heat-panel';
import { MarksPanel } from './panels/marks-panel';
import { SettingPanel } from './panels/setting-panel';
import { StrandsPanel } from './panels/strands-panel';
import { TablePanel } from './panels/table-panel';
import { ValvesPanel } from './panels/valves-panel';
import { WearPanel } from './panels/wear-panel';
import { ValveBand } from './valve-band';

const PANELS = [
  'Setting',
  'Marks',
  'Heads',
  'Wear',
  'Heat',
  'Valves',
  'Strands',
  'Table',
  'Draw up',
] as const;

/** The drive bench: a drive to scale, everything that can be asked of it, and two states to compare. */
@Component({
  selector: 'hs-drive-page',
  imports: [
    NzButtonComponent,
    DialField,
    DriveFigure,
    FaultFigure,
    ValveBand,
    SettingPanel,
    MarksPanel,
    HeadsPanel,
    WearPanel,
    HeatPanel,
    ValvesPanel,
    StrandsPanel,
    TablePanel,
    EditPanel,
  ],
  providers: [BenchStore],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './drive-page.html',
  styleUrl: './drive-page.less',
  host: { '(keydown)': 'press($event)', '[class.drawing-up]': "panel() === 'Draw up'" },
})
export class DrivePage {
  protected readonly bench = inject(BenchStore);
  protected readonly desk = inject(CaseDesk);
  private readonly files = inject(DriveFiles);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly figures = viewChildren(DriveFigure);
  protected readonly panels = PANELS;
  protected readonly panel = signal<(typeof PANELS)[number]>('Setting');
  protected readonly trouble = computed(() => {
    const [present, layout] = [this.bench.present(), this.bench.layout()];
    return present && !present.ok && layout ? settingsSentence(layout, present.error) : '';
  });
  protected readonly title = computed(() => {
    const s = this.bench.state();
    if (!s) return '';
    const reading = s.setting ? `, tensioner at ${s.setting.reading.toFixed(1)}` : '';
    return `${s.layout.name ?? s.layout.id}, crank turned ${this.bench.driverDeg().toFixed(0)} degrees${reading}. The Table panel has all figures.`;
  });
  protected readonly other = computed(() => this.bench.held()?.name ?? 'as made');
  /** Degrees within two turns, as the slider shows them. */
  protected readonly crank = computed(() => ((this.bench.driverDeg() % 720) + 720) % 720);

  protected press(e: KeyboardEvent): void {
    const target = e.target as HTMLElement;
    const typing = target.closest('input:not([type=range]), select, textarea') !== null;
    if (e.ctrlKey && e.key.toLowerCase() === 'z' && !typing && this.bench.past().length > 0) {
      this.bench.undo();
      e.preventDefault();
      e.stopPropagation();
      return;
    }
    if (target.closest('input, select, textarea') || e.ctrlKey || e.altKey || e.metaKey) return;
    const tooth = 360 / (this.bench.layout()?.wheels[0]?.teeth ?? 20);
    const by = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1, PageUp: tooth, PageDown: -tooth }[
      e.key
    ];
    if (by !== undefined) this.bench.driverDeg.update((d) => d + by * (e.shiftKey ? 10 : 1));
    else if (e.key === '+' || e.key === '=') this.zoom(1 / 1.25);
    else if (e.key === '-') this.zoom(1.25);
    else if (e.key === 'Home') this.bench.driverDeg.set(0);
    else return;
    e.preventDefault();
    e.stopPropagation();
  }

  protected zoom(by: number): void {
    for (const f of this.figures()) f.zoom(by);
  }

  protected fit(): void {
    for (const f of this.figures()) f.fit();
  }

  protected svg(): void {
    const element = this.drawing();
    if (element) this.files.svg(element, this.fileName());
  }

  protected png(): void {
    const element = this.drawing();
    if (element) void this.files.png(element, this.fileName());
  }

  protected json(): void {
    const layout = this.bench.layout();
    if (layout) this.files.json(layout);
  }

  protected async picked(input: HTMLInputElement): Promise<void> {
    const file = input.files?.[0];
    input.value = '';
    if (!file) return;
    const layout = await this.files.open(file);
    if (layout) this.bench.take(layout);
  }

  private drawing(): SVGSVGElement | null {
    return this.host.nativeElement.querySelector<SVGSVGElement>('hs-drive-figure:last-of-type svg');
  }

  private fileName(): string {
    return `drive-${this.bench.layout()?.id ?? 'own'}`;
  }
}
