import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { driveGeometry } from '@core/answer/drive-answer';
import { standingDrive } from '@core/answer/found-on-drive';
import type { Catalogue } from '@core/catalogue/find-records';
import { engineLeaf } from '@core/catalogue/leaf';
import { list } from '../language/list';
import { lower } from '../language/lower';
import { counted } from '../language/plural';
import { DriveDrawing } from '../ui/drive-drawing';
import { type DrivePicture, drivePicture } from '../ui/drive-picture';
import { Turns } from '../ui/turns';

/** Cards that are shown at most: of a larger catalogue one types what one looks for. */
const MOST = 48;

/** Engines as cards: the drive to scale, and what tells its designs apart. */
@Component({
  selector: 'hs-engine-cards',
  imports: [DriveDrawing, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ul>
      @for (e of engines(); track e.code) {
        <li>
          <a class="card" [routerLink]="['/catalogue/engine', e.code]">
            <span class="head">
              <b class="code">{{ e.code }}</b>
              <span class="quiet">{{ e.maker }} {{ e.family }}</span>
            </span>
            <span class="drawn">
              @if (pictures().get(e.code); as p) {
                <hs-drive-drawing [picture]="p" [bare]="true" />
              } @else {
                <small>{{ pictures().has(e.code) ? 'no layout in the catalogue' : '' }}</small>
              }
            </span>
            <span>{{ e.designs }}</span>
            @if (e.meets) {
              <small class="meets">▲ {{ e.meets }}</small>
            }
          </a>
        </li>
      }
    </ul>
    @if (more() > 0) {
      <p class="quiet">{{ more() }} more: type an engine, a maker or a vehicle above.</p>
    }
  `,
  styles: `
    :host {
      display: block;
      overflow: auto;
      min-height: 0;
    }
    ul {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(200px, 1fr));
      gap: var(--gap);
      margin: 0;
      padding: 2px;
      list-style: none;
    }
    .card {
      display: grid;
      grid-template-rows: auto 112px;
      align-content: start;
      gap: 3px;
      height: 100%;
      margin: 0;
      box-sizing: border-box;
      color: var(--ink);
    }
    .card:hover {
      border-color: var(--verdigris);
    }
    .head {
      display: flex;
      flex-wrap: wrap;
      gap: 0 8px;
      align-items: baseline;
    }
    .drawn {
      display: grid;
      align-items: center;
      min-height: 0;
    }
    hs-drive-drawing {
      height: 112px;
    }
    .meets {
      color: var(--brass-ink);
    }
  `,
})
export class EngineCards {
  readonly catalogue = input.required<Catalogue>();
  /** Pictures so far, by code: drawn in turns, so that no key waits for them; undefined for a drive without a layout. */
  protected readonly pictures = signal<ReadonlyMap<string, DrivePicture | undefined>>(new Map());
  private readonly shown = computed(() => this.catalogue().pack.engines.slice(0, MOST));
  protected readonly more = computed(() => this.catalogue().pack.engines.length - this.shown().length);
  protected readonly engines = computed(() => {
    const cat = this.catalogue();
    return this.shown().map((e) => {
      const own = cat.pack.variants.filter((v) => v.engine === e.code);
      const features = new Set(own.flatMap((v) => Object.keys(v.features)));
      const told = [...features].flatMap((f) => {
        const values = new Set(own.map((v) => JSON.stringify(v.features[f] ?? [])));
        return values.size > 1 ? [lower(cat.features.get(f)?.wording ?? f)] : [];
      });
      return {
        code: e.code,
        maker: e.maker,
        family: e.family,
        designs:
          own.length > 1 && told.length > 0
            ? `${own.length} designs by ${list(told)}`
            : counted(own.length, 'design', 'designs'),
        meets:
          e.interference === 'no' ? '' : e.interference === 'yes' ? 'interference' : 'interference not known',
      };
    });
  });

  constructor() {
    const turns = inject(Turns);
    effect((onCleanup) => {
      const cat = this.catalogue();
      this.pictures.set(new Map());
      const stop = turns.each(this.shown(), ({ code }) => {
        const design = engineLeaf(cat, code)?.designs[0];
        const g = design && driveGeometry(design.stages);
        const stands = g && standingDrive(g);
        const picture = stands && drivePicture(stands.layout, g.right ?? stands, `Drive of ${code}`);
        this.pictures.update((known) => new Map(known).set(code, picture));
      });
      onCleanup(stop);
    });
  }
}
