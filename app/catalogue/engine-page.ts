import { must } from '@core/quantity/must';
import { Location } from '@angular/common';
import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  input,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import type { CaseSummary } from '@core/answer/case-summary';
import { driveGeometry } from '@core/answer/drive-answer';
import { standingDrive } from '@core/answer/found-on-drive';
import { engineLeaf, type LeafDesign } from '@core/catalogue/leaf';
import { sheetFor } from '@core/fitting/sheet';
import { writtenDay } from '@core/facts/read-value';
import { Commands } from '../commands/commands';
import { Cases } from '../data/cases';
import { Clock } from '../data/clock';
import { DeskSettingsStore } from '../data/desk-settings';
import { Packs } from '../data/packs';
import { DriveDrawing } from '../ui/drive-drawing';
import { drivePicture } from '../ui/drive-picture';
import { isFreeKey } from '../ui/free-keys';
import { StateCard } from '../ui/state';
import { distance, percent } from '../messages/answers';
import { list } from '../language/list';
import { waitsWords } from '../messages/waits';
import { TwoParts } from './two-parts';

const INTERFERENCE = {
  yes: 'interference engine: never turn one shaft alone with the drive off',
  unknown: 'interference not known, counts as yes',
  no: 'no interference',
} as const;

/** One page of the catalogue: an engine with its designs side by side, kits, job, interval and cases. */
@Component({
  selector: 'hs-engine-page',
  imports: [NzButtonComponent, RouterLink, DriveDrawing, StateCard, TwoParts],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(document:keydown.backspace)': 'backKey($event)' },
  templateUrl: './engine-page.html',
  styleUrl: './engine-page.less',
})
export class EnginePage {
  /** Engine of the page, and the kit or part that led here. */
  readonly code = input.required<string>();
  readonly kit = input<string>();
  protected readonly packs = inject(Packs);
  private readonly all = inject(Cases);
  private readonly clock = inject(Clock);
  private readonly settings = inject(DeskSettingsStore);
  private readonly commands = inject(Commands);
  private readonly location = inject(Location);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  protected readonly leaf = computed(() => {
    const cat = this.packs.newest();
    return cat && engineLeaf(cat, this.code());
  });
  protected readonly interference = computed(() => INTERFERENCE[must(this.leaf()).engine.interference]);
  protected readonly designs = computed(() => {
    const all = this.leaf()?.designs ?? [];
    const shares = all.reduce((sum, d) => sum + d.variant.share, 0);
    return all.map((d) => ({
      id: d.variant.id,
      name: d.variant.name,
      share: percent(d.variant.share / shares),
      built: this.built(d),
      picture: pictureOf(d),
      stages: d.stages
        .map(
          ({ layout: l }) =>
            `${l.name ?? l.kind}: ${l.count} ${l.kind === 'chain' ? 'links' : 'teeth'} × ${l.pitchMm} mm`,
        )
        .join(' · '),
      telling: d.telling.map((t) => ({ name: t.feature.wording, values: list(t.values, 'or') })),
      procedure: this.procedure(d),
    }));
  });
  /** How to ask what tells them apart, each sentence once. */
  protected readonly asks = computed(() => {
    const all = this.leaf()?.designs ?? [];
    const features = new Map(all.flatMap((d) => d.telling.map((t) => [t.feature.id, t.feature] as const)));
    return [...features.values()].map((f) => ({
      id: f.id,
      say: f.say,
      leaves: f.options
        .map((o) => ({
          o,
          of: all.filter((d) => d.variant.features[f.id]?.includes(o.key)).map((d) => d.variant.name),
        }))
        .filter((x) => x.of.length > 0)
        .map((x) => `${x.o.wording} → ${x.of.join(' or ')}`)
        .join(' · '),
    }));
  });
  protected readonly kits = computed(() =>
    (this.leaf()?.kits ?? []).map((k) => ({
      number: k.kit.number,
      name: k.kit.name,
      status: [
        k.kit.status === 'discontinued' ? 'discontinued' : '',
        k.replacedBy === undefined ? '' : `replaced by ${k.replacedBy}`,
        k.replaces.length ? `replaces ${list(k.replaces)}` : '',
      ]
        .filter(Boolean)
        .join(', '),
      serves: list(k.serves.map((v) => v.name)),
      contents: k.contents.map((c) => ({ ...c, name: c.part?.name ?? '' })),
    })),
  );
  /** Parts of its kits, each once. */
  protected readonly kitParts = computed(() => {
    const all = (this.leaf()?.kits ?? []).flatMap((k) => k.contents.flatMap((c) => c.part ?? []));
    return [...new Map(all.map((p) => [p.number, p])).values()];
  });
  protected readonly jobs = computed(() => {
    const all = this.leaf()?.designs ?? [];
    const items = new Map<string, { item: string; why: string; of: string[] }>();
    for (const d of all)
      for (const j of d.jobs) {
        const own = items.get(j.item) ?? { item: j.item, why: j.why, of: [] };
        own.of.push(d.variant.name);
        items.set(j.item, own);
      }
    return [...items.values()].map((j) => ({
      ...j,
      of: j.of.length === all.length ? '' : ` (only ${list(j.of)})`,
    }));
  });
  protected readonly cases = computed(() => this.all.summaries().filter((h) => h.engine === this.code()));

  constructor() {
    // What led here is in sight.
    afterRenderEffect(() => {
      if (this.leaf() && this.kit() !== undefined)
        this.host.nativeElement.querySelector('.lit')?.scrollIntoView({ block: 'center' });
    });
  }

  protected state(h: CaseSummary): string {
    return waitsWords(h, this.clock.today());
  }

  protected distance(km: number): string {
    return distance(km, this.settings.notation());
  }

  protected begin(): void {
    void this.commands.newCase([{ key: 'engine.code', value: this.code(), how: 'reported' }]);
  }

  protected back(): void {
    this.location.back();
  }

  protected backKey(e: Event): void {
    if (!isFreeKey(e as KeyboardEvent)) return;
    e.preventDefault();
    this.back();
  }

  private procedure(d: LeafDesign): string {
    const cat = this.packs.newest();
    const sheet = cat && sheetFor(cat, d.variant, d.stages);
    return sheet?.status === 'ready' ? `${sheet.name}, ${sheet.steps.length} steps` : 'none in the catalogue';
  }

  private built({ variant: { built } }: LeafDesign): string {
    const day = (d: string) => writtenDay(d, this.settings.notation());
    const window = [built.from ? `from ${day(built.from)}` : '', built.to ? `to ${day(built.to)}` : '']
      .filter(Boolean)
      .join(' ');
    return window === '' ? 'at any time' : `${window}${built.slackDays ? ` ± ${built.slackDays} days` : ''}`;
  }
}

/** The stage at the crank, at its intended setting. */
function pictureOf(d: LeafDesign) {
  const g = driveGeometry(d.stages);
  const stands = g && standingDrive(g);
  return stands && drivePicture(stands.layout, g.right ?? stands, d.variant.name);
}
