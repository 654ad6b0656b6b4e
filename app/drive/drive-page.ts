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
import { NzCollapseModule } from 'ng-zorro-antd/collapse';
import { NzDropDownModule } from 'ng-zorro-antd/dropdown';
import { NzMenuModule } from 'ng-zorro-antd/menu';
import { NzTabsModule } from 'ng-zorro-antd/tabs';
import { CaseDesk } from '../data/case-desk';
import { DriveFiles } from '../commands/drive-files';
import { DialField } from '../ui/dial-field';
import { boxOf } from '../ui/drive-shapes';
import { FileButton } from '../ui/file-button';
import { Pick } from '../ui/pick';
import { Segmented } from '../ui/segmented';
import { StateCard } from '../ui/state';
import { settingsSentence } from '../messages/drive';
import { type DrivePanel, PANEL_NAMES, type DrivePart, drivePartsOf } from './drive-parts';
import { DriveStore } from './drive-store';
import { DriveFigure } from './drive-figure';
import { FaultFigure } from './fault-figure';
import { EditPanel } from './panels/edit-panel';
import { HeadsPanel } from './panels/heads-panel';
import { DriveHeatPanel } from './panels/heat-panel';
import { MarksPanel } from './panels/marks-panel';
import { SettingPanel } from './panels/setting-panel';
import { StrandsPanel } from './panels/strands-panel';
import { TablePanel } from './panels/table-panel';
import { ValvesPanel } from './panels/valves-panel';
import { WearPanel } from './panels/wear-panel';
import { ValveBand } from './valve-band';

/** From this width against its height on, a drive has the whole width and the knobs below it. */
const WIDE = 1.3;

/** The drive bench: a drive to scale, everything that can be asked of it, and two states to compare. */
@Component({
  selector: 'hs-drive-page',
  imports: [
    NzButtonComponent,
    NzCollapseModule,
    NzDropDownModule,
    NzMenuModule,
    Segmented,
    NzTabsModule,
    FileButton,
    Pick,
    StateCard,
    DialField,
    DriveFigure,
    FaultFigure,
    ValveBand,
    SettingPanel,
    MarksPanel,
    HeadsPanel,
    WearPanel,
    DriveHeatPanel,
    ValvesPanel,
    StrandsPanel,
    TablePanel,
    EditPanel,
  ],
  providers: [DriveStore],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './drive-page.html',
  styleUrl: './drive-page.less',
  host: {
    '(keydown)': 'press($event)',
    '[class.wide]': 'wide()',
    '[class.drawing-up]': "!wide() && parts()[part()]?.key === 'table'",
  },
})
export class DrivePage {
  protected readonly store = inject(DriveStore);
  protected readonly desk = inject(CaseDesk);
  private readonly files = inject(DriveFiles);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly figures = viewChildren(DriveFigure);
  protected readonly names = PANEL_NAMES;
  protected readonly views = [
    { value: 'over', label: 'Overlaid' },
    { value: 'beside', label: 'Side by side' },
  ] as const;
  protected readonly part = signal(0);
  protected readonly parts = computed(() => {
    const layout = this.store.layout();
    return layout ? drivePartsOf(layout, Object.keys(this.store.what().nearerMm).length > 0) : [];
  });
  protected readonly wide = computed(() => {
    const made = this.store.made();
    if (!made?.ok) return false;
    const { width, height } = boxOf(made.value.layout, made.value.circles);
    return width / height > WIDE;
  });
  protected readonly choices = computed(() => {
    const own = this.store.own();
    const drives = this.store.drives().map((d) => ({ key: d.id, wording: d.name }));
    return own ? [{ key: own.id, wording: own.name ?? own.id }, ...drives] : drives;
  });
  protected readonly stageNames = computed(() =>
    this.store.stages().map((s) => ({ key: s.layout.id, wording: s.layout.name ?? s.layout.id })),
  );
  protected readonly stageNow = computed(() => this.store.stages()[this.store.stageAt()]?.layout.id);
  protected readonly trouble = computed(() => {
    const [present, layout] = [this.store.present(), this.store.layout()];
    return present && !present.ok && layout ? settingsSentence(layout, present.error) : '';
  });
  protected readonly title = computed(() => {
    const s = this.store.state();
    if (!s) return '';
    const reading = s.setting ? `, tensioner at ${s.setting.reading.toFixed(1)}` : '';
    return `${s.layout.name ?? s.layout.id}, crank turned ${this.store.driverDeg().toFixed(0)} degrees${reading}. All figures stand in the table.`;
  });
  protected readonly other = computed(() => this.store.kept()?.name ?? 'as made');
  /** Degrees within two turns, as the slider shows them. */
  protected readonly crank = computed(() => ((this.store.driverDeg() % 720) + 720) % 720);

  protected press(e: KeyboardEvent): void {
    const target = e.target as HTMLElement;
    const typing = target.closest('input, textarea, nz-select') !== null;
    if (e.ctrlKey && e.key.toLowerCase() === 'z' && !typing && this.store.past().length > 0) {
      this.store.undo();
      e.preventDefault();
      e.stopPropagation();
      return;
    }
    const own = 'nz-slider, nz-tabs-nav, nz-segmented, nz-collapse-panel, [role=listbox]';
    if (typing || target.closest(own) || e.ctrlKey || e.altKey || e.metaKey) return;
    const tooth = 360 / (this.store.layout()?.wheels[0]?.teeth ?? 20);
    const by = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1, PageUp: tooth, PageDown: -tooth }[
      e.key
    ];
    if (by !== undefined) this.store.driverDeg.update((d) => d + by * (e.shiftKey ? 10 : 1));
    else if (e.key === '+' || e.key === '=') this.zoom(1 / 1.25);
    else if (e.key === '-') this.zoom(1.25);
    else if (e.key === 'Home') this.store.driverDeg.set(0);
    else return;
    e.preventDefault();
    e.stopPropagation();
  }

  /** Panels that were opened or closed by hand; of a part the first is open before. */
  private readonly folded = signal<Partial<Record<DrivePanel, boolean>>>({});

  /** Only what is open is computed. */
  protected isOpen(part: DrivePart, panel: DrivePanel): boolean {
    return this.folded()[panel] ?? part.panels[0] === panel;
  }

  protected unfold(panel: DrivePanel, open: boolean): void {
    this.folded.update((f) => ({ ...f, [panel]: open }));
  }

  /** The library's headings know only the mouse. */
  protected fold(e: Event): void {
    const head = e.target as HTMLElement;
    if (!head.classList.contains('ant-collapse-header')) return;
    head.click();
    e.preventDefault();
  }

  protected zoom(by: number): void {
    for (const f of this.figures()) f.zoom(by);
  }

  protected whole(): void {
    for (const f of this.figures()) f.whole();
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
    const layout = this.store.layout();
    if (layout) this.files.json(layout);
  }

  protected toStage(id: string): void {
    this.store.pickStage(this.store.stages().findIndex((s) => s.layout.id === id));
  }

  protected async picked([file]: readonly File[]): Promise<void> {
    const layout = file && (await this.files.open(file));
    if (layout) this.store.take(layout);
  }

  private drawing(): SVGSVGElement | null {
    return this.host.nativeElement.querySelector<SVGSVGElement>('hs-drive-figure:last-of-type svg');
  }

  private fileName(): string {
    return `drive-${this.store.layout()?.id ?? 'own'}`;
  }
}
