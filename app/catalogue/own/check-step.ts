import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { Router } from '@angular/router';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { driveGeometry } from '@core/answer/drive-answer';
import { standingDrive } from '@core/answer/found-on-drive';
import { engineLeaf } from '@core/catalogue/leaf';
import { PackImports } from '../../data/pack-imports';
import { list } from '../../language/list';
import { ownFaultWords } from '../../messages/own-engine';
import { DriveDrawing } from '../../ui/drive-drawing';
import { drivePicture } from '../../ui/drive-picture';
import { PackPreview } from '../pack-preview';
import { OwnStore, STEP_WORDS } from './own-store';

/** What is still missing; then how the engine would answer, its drive to scale, and the way into the catalogue. */
@Component({
  selector: 'hs-check-step',
  imports: [DriveDrawing, NzButtonComponent, PackPreview],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="two">
      <section class="card" aria-label="What is missing">
        @if (lacks().length) {
          <h2>Still to do</h2>
          <ul aria-label="Still to do">
            @for (l of lacks(); track $index) {
              <li>
                <b>{{ l.step }}:</b> {{ l.words }}
              </li>
            }
          </ul>
        } @else if (answer(); as a) {
          <h2>{{ a.code }} answers</h2>
          <ul>
            @for (l of a.lines; track l) {
              <li>{{ l }}</li>
            }
          </ul>
          @if (!imports.preview() && !imports.progress()) {
            <div class="row">
              <button nz-button nzType="primary" (click)="store.check()">
                Check it and show what changes
              </button>
            </div>
          }
        }
        <hs-pack-preview (taken)="done()" />
      </section>
      <section class="card" aria-label="The drive, to scale">
        @if (picture(); as p) {
          <hs-drive-drawing [picture]="p" />
        } @else {
          <p class="quiet">
            No drive: the engine finds its design and kit, but nothing is computed of its drive.
          </p>
        }
      </section>
    </div>
  `,
  styleUrl: './steps.less',
  styles: `
    .two {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(320px, 1fr));
      gap: var(--gap);
    }
    ul {
      margin: 0;
      padding-left: 18px;
    }
    hs-drive-drawing {
      height: 460px;
    }
  `,
})
export class CheckStep {
  protected readonly store = inject(OwnStore);
  protected readonly imports = inject(PackImports);
  private readonly router = inject(Router);
  protected readonly lacks = computed(() => {
    const faults = this.store.faults().map((f) => ({ step: STEP_WORDS[f.step], words: ownFaultWords(f) }));
    const open = this.store.drawn() && this.store.layout() === undefined;
    return open
      ? [...faults, { step: STEP_WORDS.drive, words: 'it was begun, and its loop does not close yet.' }]
      : faults;
  });
  private readonly leaf = computed(() => {
    const cat = this.store.catalogue();
    return cat && engineLeaf(cat, this.store.form().code.trim());
  });
  protected readonly picture = computed(() => {
    const design = this.leaf()?.designs.find((d) => d.stages.length > 0);
    const g = design && driveGeometry(design.stages);
    const stands = g && standingDrive(g);
    return (
      stands && drivePicture(stands.layout, g.right ?? stands, `Drive of ${this.store.form().code.trim()}`)
    );
  });
  protected readonly answer = computed(() => {
    const leaf = this.leaf();
    if (!leaf) return undefined;
    const asked = leaf.designs.flatMap((d) => d.telling.map((t) => t.feature));
    const [ask] = asked;
    return {
      code: leaf.engine.code,
      lines: [
        leaf.designs.length === 1
          ? 'One design: nothing has to be asked.'
          : `${leaf.designs.length} designs: ${list(leaf.designs.map((d) => d.variant.name))}.`,
        ...(ask ? [`Told apart on the phone: “${ask.say}”`] : []),
        ...leaf.kits.map(
          (k) =>
            `${k.kit.number} fits ${leaf.designs.length === 1 ? 'it' : list(k.serves.map((v) => v.name))}: ${list(k.contents.map((c) => `${c.quantity} × ${c.part?.name ?? c.number}`))}.`,
        ),
      ],
    };
  });

  constructor() {
    // What came in elsewhere and waits to be looked at is none of this.
    this.imports.cancel();
  }

  protected done(): void {
    const code = this.store.form().code.trim();
    this.store.clear();
    void this.router.navigate(['/catalogue/engine', code]);
  }
}
