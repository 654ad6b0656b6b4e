import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { NzButtonComponent } from 'ng-zorro-antd/button';
import { answersFor } from '@core/answer/answers';
import { answerDifference, linesOf } from '@core/answer/difference';
import { worldOf } from '@core/answer/world';
import { packId } from '@core/catalogue/version';
import { CaseSentences } from '../../commands/case-sentences';
import { CaseDesk } from '../../data/case-desk';
import { Packs } from '../../data/packs';
import { differenceWords } from '../../messages/difference';

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
  private readonly packs = inject(Packs);
  private readonly voice = inject(CaseSentences).voice;
  protected readonly differs = computed(() => {
    const view = this.desk.current();
    const newer = this.packs.newest();
    if (!view?.catalogue || !view.answers || !newer || newer === view.catalogue) return undefined;
    const names = { own: packId(view.catalogue.pack), newer: packId(newer.pack) };
    // by the same rules and knowledge: only the catalogue is another
    const there = answersFor(worldOf(newer, view.world), view.state);
    const lines = answerDifference(linesOf(view.answers), linesOf(there));
    if (names.own === names.newer || lines.length === 0) return undefined;
    return { ...names, lines: lines.map((d) => differenceWords(d, this.voice(), this.desk.nameOf)) };
  });

  protected change(id: string): void {
    void this.desk.file({ key: 'case.catalogue', value: id, how: 'decided' });
  }
}
