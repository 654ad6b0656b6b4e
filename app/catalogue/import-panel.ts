import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { PackImports } from '../data/pack-imports';
import { PackExports } from '../commands/pack-exports';
import { FileButton } from '../ui/file-button';
import { PackPreview } from './pack-preview';

/** Brings a catalogue in: by files, by tables that are filled in first, or engine by engine from a photograph. */
@Component({
  selector: 'hs-import-panel',
  imports: [FileButton, NzButtonComponent, PackPreview, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="card" aria-label="Bring a catalogue in">
      <h2>Bring a catalogue in</h2>
      <hs-pack-preview />
      @if (idle()) {
        <p class="quiet">Tables as CSV or XLSX, a zip of them, or JSON. What is not given stays as it is.</p>
        <div class="row">
          <hs-file-button
            wording="Choose files"
            label="Catalogue files"
            accept=".csv,.json,.zip,.xlsx"
            type="primary"
            size="default"
            (chosen)="picked($event)"
          />
          <button nz-button (click)="exports.empty()">Empty tables to fill in</button>
        </div>
        <a routerLink="/catalogue/own">Or engine by engine, with a photograph of the drive</a>
      }
    </section>
  `,
  styles: `
    section {
      display: grid;
      gap: 6px;
      justify-items: start;
    }
    p {
      margin: 0;
    }
  `,
})
export class ImportPanel {
  protected readonly imports = inject(PackImports);
  protected readonly exports = inject(PackExports);
  protected readonly idle = computed(() => !this.imports.progress() && !this.imports.preview());

  protected picked(files: File[]): void {
    this.imports.read(files);
  }
}
