import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { packDifferences } from '@core/answer/newer-pack';
import { packId } from '@core/catalogue/pack';
import { CaseDesk } from '../../data/case-desk';

/** Says when the newest catalogue would answer otherwise than the one this case was decided on. */
@Component({
  selector: 'hs-newer-pack',
  imports: [NzButtonComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (differs(); as d) {
      <section class="card" aria-label="Newer catalogue">
        <p>
          <b>▲ {{ d.newer }} would answer otherwise.</b> This case answers with {{ d.own }}.
        </p>
        @for (line of d.lines; track line) {
          <div>{{ line }}</div>
        }
        <button nz-button (click)="change(d.newer)">Answer with {{ d.newer }}</button>
      </section>
    }
  `,
  styles: 'section { border-color: var(--brass); }',
})
export class NewerPack {
  private readonly desk = inject(CaseDesk);
  protected readonly differs = computed(() => {
    const view = this.desk.current();
    const newest = this.desk.newestPack();
    if (!view?.catalogue || !view.answers || !newest) return undefined;
    const [own, newer] = [packId(view.catalogue.pack), packId(newest)];
    const other = this.desk.catalogues().get(newer);
    if (own === newer || !other) return undefined;
    const lines = packDifferences(view.answers, other, view.state);
    return lines.length ? { own, newer, lines } : undefined;
  });

  protected change(id: string): void {
    void this.desk.file({ key: 'case.catalogue', value: id, how: 'decided' });
  }
}
