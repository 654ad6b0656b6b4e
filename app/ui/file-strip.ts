import { ChangeDetectionStrategy, Component, effect, input, output, signal } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import type { FileRef } from '@core/facts/fact';

type Shown = { file: FileRef; url?: string; missing?: true };

/** Files as small pictures or names; pressing one takes it out. Where the content is not here, that is said. */
@Component({
  selector: 'hs-file-strip',
  imports: [NzButtonComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (s of shown(); track s.file.hash) {
      @if (s.missing) {
        <span class="missing">▲ {{ s.file.name }} is not in this browser; a bundle brings it along.</span>
      } @else {
        <button nz-button nzType="text" (click)="taken.emit(s.file)" [title]="'Take out ' + s.file.name">
          @if (s.url) {
            <img [src]="s.url" [alt]="s.file.name" loading="lazy" decoding="async" />
          } @else {
            {{ s.file.name }}
          }
        </button>
      }
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-wrap: wrap;
      gap: 4px;
    }
    button {
      height: auto;
      padding: 2px;
    }
    img {
      height: 56px;
      max-width: 110px;
      object-fit: cover;
      border: 1px solid var(--rule-strong);
      border-radius: 3px;
      display: block;
    }
    .missing {
      font-size: 0.92em;
      color: var(--ink-2);
    }
  `,
})
export class FileStrip {
  readonly files = input.required<readonly FileRef[]>();
  /** Reads the content of a file; none when it is not here. */
  readonly read = input.required<(file: FileRef) => Promise<Blob | undefined>>();
  readonly taken = output<FileRef>();
  protected readonly shown = signal<readonly Shown[]>([]);

  constructor() {
    effect((cleanup) => {
      const [files, read] = [this.files(), this.read()];
      const urls: string[] = [];
      let gone = false;
      void Promise.all(
        files.map(async (file): Promise<Shown> => {
          const blob = await read(file);
          if (!blob) return { file, missing: true };
          if (gone || !/^image\/(png|jpeg|gif|webp|avif|bmp)$/.test(file.type)) return { file };
          const url = URL.createObjectURL(blob);
          urls.push(url);
          return { file, url };
        }),
      ).then((shown) => !gone && this.shown.set(shown));
      cleanup(() => {
        gone = true;
        for (const url of urls) URL.revokeObjectURL(url);
      });
    });
  }
}
