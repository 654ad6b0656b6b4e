import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { foundOnDrive } from '@core/answer/found-on-drive';
import { nth } from '@core/quantity/must';
import { CaseSentences } from '../../commands/case-sentences';
import { CaseDesk } from '../../data/case-desk';
import { counted } from '../../language/plural';
import { findingWords } from '../../messages/answers';
import { DriveDrawing, type DrawnMark } from '../../ui/drive-drawing';
import { drivePicture } from '../../ui/drive-picture';
import { flip } from '../../ui/drive-shapes';

/** What has to be explained, at the place of the drive where it was found; what is as it should be is only counted. */
@Component({
  selector: 'hs-where-found',
  imports: [DriveDrawing],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (shown(); as s) {
      <section class="card" aria-label="Where it was found">
        <h2>Where it was found</h2>
        <hs-drive-drawing [picture]="s.picture" [marks]="s.marks" />
        <div class="told">
          @for (p of s.places; track p.name) {
            <p>
              <b>{{ p.sign }} {{ p.name }}</b>
              @for (f of p.found; track $index) {
                <br />{{ f }}
              }
              @if (p.sound) {
                <br /><span class="quiet">{{ p.sound }}</span>
              }
            </p>
          }
          @if (s.elsewhere.length) {
            <p>
              <b>Not on the drive</b>
              @for (f of s.elsewhere; track $index) {
                <br />{{ f }}
              }
            </p>
          }
        </div>
      </section>
    }
  `,
  styles: `
    .told {
      columns: 2 150px;
      column-gap: 14px;
    }
    .told > p {
      break-inside: avoid;
    }
    hs-drive-drawing {
      height: 290px;
    }
    p {
      margin: 0 0 6px;
    }
  `,
})
export class WhereFound {
  private readonly desk = inject(CaseDesk);
  private readonly voice = inject(CaseSentences).voice;
  protected readonly shown = computed(() => {
    const view = this.desk.current();
    const found = view?.answers && foundOnDrive(view.answers, view.state);
    if (!found || found.spots.every((s) => s.abnormal.length === 0)) return undefined;
    const { layout } = found.drive;
    const v = this.voice();
    const spots = found.spots.map((s, i) => ({
      ...s,
      name: s.at === 'strand' ? `The ${layout.kind}` : nth(layout.wheels, s.at).name,
      sign: s.abnormal.length > 0 ? '▲' : '✓',
      key: String(i),
    }));
    const marks = spots.map((s): DrawnMark => {
      const { x, y } = flip(s);
      const n = s.abnormal.length;
      return { key: s.key, x, y, sign: n > 1 ? `${s.sign}${n}` : s.sign, bad: n > 0 };
    });
    const title = `Where it was found: ${spots.map((s) => `${s.name}, ${counted(s.abnormal.length, 'finding', 'findings')} to be explained`).join('; ')}`;
    return {
      picture: drivePicture(layout, view.answers?.drive?.right ?? found.drive, title),
      marks,
      places: spots
        .sort((a, b) => b.abnormal.length - a.abnormal.length)
        .map((s) => ({
          name: s.name,
          sign: s.sign,
          found: s.abnormal.map((f) => findingWords(f, v)),
          sound: s.sound > 0 ? `${counted(s.sound, 'look', 'looks')} as it should be` : '',
        })),
      elsewhere: found.elsewhere.map((f) => findingWords(f, v)),
    };
  });
}
