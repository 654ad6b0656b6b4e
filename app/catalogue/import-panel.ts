import { counted } from '../language/plural';
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { NzProgressModule } from 'ng-zorro-antd/progress';
import { NzTableModule } from 'ng-zorro-antd/table';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { PackImports } from '../data/pack-imports';
import { Notices } from '../commands/notices';
import { issueSentence } from '../messages/packs';
import { FileButton } from '../ui/file-button';

/** Brings a pack in: progress, preview, every bad row, then all or nothing. */
@Component({
  selector: 'hs-import-panel',
  imports: [NzProgressModule, NzTableModule, FileButton, NzButtonComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="card" aria-label="Bring a catalogue in">
      <h2>Bring a catalogue in</h2>
      @if (imports.progress(); as p) {
        <div
          role="progressbar"
          aria-valuemin="0"
          [attr.aria-label]="'Reading ' + p.step"
          [attr.aria-valuemax]="p.total"
          [attr.aria-valuenow]="p.done"
        >
          Reading {{ p.step }}…
          <nz-progress nzSize="small" [nzPercent]="percent(p.done, p.total)" [nzShowInfo]="false" />
        </div>
        <button nz-button (click)="imports.cancel()">Cancel</button>
      } @else if (imports.preview(); as p) {
        @if (p.issueCount) {
          <p role="alert">
            <b>▲ {{ counted(p.issueCount, 'fault', 'faults') }}. Nothing was changed.</b>
            Mend the file and choose it again.
          </p>
          <ol class="faults" aria-label="Faults">
            @for (s of sentences(); track $index) {
              <li>{{ s }}</li>
            }
          </ol>
          <button nz-button (click)="imports.cancel()">Close</button>
        } @else if (p.versionTaken) {
          <p role="alert">
            <b>▲ {{ p.id }} is here already with other content.</b> Give the catalogue a new version. Nothing
            was changed.
          </p>
          <button nz-button (click)="imports.cancel()">Close</button>
        } @else {
          <p>
            <b>{{ p.id }}</b
            >, issued {{ p.issued }}. {{ p.source }}<br /><small>against {{ p.against ?? 'nothing' }}</small>
          </p>
          <nz-table nzTemplateMode nzSize="small">
            <thead>
              <tr>
                <th>Table</th>
                <th class="num">Rows</th>
                <th class="num">New</th>
                <th class="num">Changed</th>
                <th class="num">Removed</th>
              </tr>
            </thead>
            <tbody>
              @for (d of p.diff; track d.table) {
                <tr>
                  <td>{{ d.table }}</td>
                  <td class="num">{{ d.rows }}</td>
                  <td class="num">{{ d.added }}</td>
                  <td class="num">{{ d.changed }}</td>
                  <td class="num">{{ d.removed }}</td>
                </tr>
              }
            </tbody>
          </nz-table>
          <div class="row">
            <button nz-button nzType="primary" (click)="take()">Take it in</button>
            <button nz-button (click)="imports.cancel()">Leave it</button>
          </div>
        }
      } @else {
        @if (imports.failure(); as f) {
          <p role="alert">▲ {{ f }}</p>
        }
        <p class="quiet">
          One JSON file, a zip of CSV tables, or single tables such as kits.csv: tables not given stay as they
          are.
        </p>
        <hs-file-button
          wording="Choose files"
          label="Catalogue files"
          accept=".csv,.json,.zip"
          type="primary"
          size="default"
          (chosen)="picked($event)"
        />
      }
    </section>
  `,
  styles: `
    section {
      display: grid;
      gap: 6px;
      justify-items: start;
    }
    [role='progressbar'] {
      width: 100%;
    }
    .faults {
      max-height: 300px;
      overflow: auto;
      padding-left: 22px;
      margin: 0;
    }
  `,
})
export class ImportPanel {
  protected readonly counted = counted;
  protected readonly imports = inject(PackImports);
  private readonly notices = inject(Notices);
  protected readonly sentences = computed(() => (this.imports.preview()?.issues ?? []).map(issueSentence));

  protected percent(done: number, total: number): number {
    return Math.round((100 * done) / Math.max(1, total));
  }

  protected picked(files: File[]): void {
    this.imports.read(files);
  }

  protected async take(): Promise<void> {
    const id = await this.imports.take();
    if (id) await this.notices.say('success', `${id} is here. New cases answer with it.`);
  }
}
