import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { NzMessageService } from 'ng-zorro-antd/message';
import { PackImports } from '../data/pack-imports';
import { issueSentence } from '../words/packs';

/** Brings a pack in: progress, preview, every bad row, then all or nothing. */
@Component({
  selector: 'hs-import-panel',
  imports: [NzButtonComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="card" aria-label="Bring a catalogue in">
      <h2>Bring a catalogue in</h2>
      @if (imports.progress(); as p) {
        <label for="import-progress">Reading {{ p.step }}…</label>
        <progress id="import-progress" [value]="p.done" [max]="p.total"></progress>
        <button nz-button (click)="imports.cancel()">Cancel</button>
      } @else if (imports.preview(); as p) {
        @if (p.issueCount) {
          <p role="alert">
            <b>▲ {{ p.issueCount }} {{ p.issueCount === 1 ? 'fault' : 'faults' }}. Nothing was changed.</b>
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
            <b>▲ {{ p.id }} is here already with other content.</b> Give the pack a new version. Nothing was
            changed.
          </p>
          <button nz-button (click)="imports.cancel()">Close</button>
        } @else {
          <p>
            <b>{{ p.id }}</b
            >, issued {{ p.issued }}. {{ p.source }}<br /><small>against {{ p.against ?? 'nothing' }}</small>
          </p>
          <table class="plain">
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
          </table>
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
          One JSON pack, a zip of CSV tables, or single tables such as kits.csv: tables not given stay as they
          are.
        </p>
        <button nz-button nzType="primary" (click)="file.click()">Choose files</button>
        <input
          #file
          hidden
          type="file"
          multiple
          tabindex="-1"
          aria-label="Catalogue files"
          accept=".csv,.json,.zip"
          (change)="picked(file)"
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
    progress {
      width: 100%;
      accent-color: var(--verdigris);
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
  protected readonly imports = inject(PackImports);
  private readonly message = inject(NzMessageService);
  protected readonly sentences = computed(() => (this.imports.preview()?.issues ?? []).map(issueSentence));

  protected picked(input: HTMLInputElement): void {
    const files = [...(input.files ?? [])];
    input.value = '';
    if (files.length) void this.imports.read(files);
  }

  protected async take(): Promise<void> {
    const id = await this.imports.take();
    if (id) this.message.success(`${id} is here. New cases answer with it.`);
  }
}
