import { must, nth, num } from '@core/quantity/must';
import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { DriveAnswer } from '@core/answer/drive-answer';
import { type Setting, travelFrom } from '@core/drive/tensioner';
import { measuredOf } from '@core/facts/read';
import { CaseDesk } from '../data/case-desk';
import { readingAt } from '@core/drive/carrier';
import {
  clearanceWords,
  extensionWords,
  followsWords,
  guideWearWords,
  pathSentence,
  readingName,
  readingWords,
  senseWords,
  settingName,
  settingsSentence,
} from '../messages/drive';
import { readingKey, readingStrip } from '../messages/strips';
import { elongationWords } from '../messages/reuse';
import { DriveDrawing } from '../ui/drive-drawing';
import { drivePicture } from '../ui/drive-picture';
import { LimitStrip, type Strip } from '../ui/limit-strip';

/** Both settings that give the belt's length, to scale, side by side, and which of them the pointer shows. */
@Component({
  selector: 'hs-settings-pair',
  imports: [DriveDrawing, LimitStrip, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './settings-pair.html',
  styles: `
    :host {
      display: block;
    }
    .pair {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: var(--gap);
    }
    figure {
      margin: 0;
      display: grid;
      gap: 4px;
      align-content: start;
      border: 1px solid var(--rule);
      padding: 8px;
    }
    figure.shown {
      border: 2px solid var(--brass);
    }
    hs-drive-drawing {
      height: 330px;
    }
    .tight {
      font-weight: 600;
      color: var(--brass-ink);
    }
    .strip {
      margin-bottom: 8px;
    }
    figure:only-child {
      grid-column: 1 / -1;
      grid-template-columns: minmax(0, 1.2fr) minmax(0, 1fr);
      align-items: center;
    }
    figure:only-child figcaption {
      grid-column: 1 / -1;
    }
    @media (max-width: 760px) {
      .pair {
        grid-template-columns: 1fr;
      }
    }
  `,
})
export class SettingsPair {
  readonly drive = input.required<DriveAnswer>();
  private readonly desk = inject(CaseDesk);
  protected readonly trouble = computed(() => {
    const { settings, layout } = this.drive();
    return settings.ok ? undefined : settingsSentence(layout, settings.error);
  });
  protected readonly impossible = computed(() => {
    const { settings, layout, carrier } = this.drive();
    return settings.ok
      ? settings.value.impossible.map(
          (i) =>
            `${carrier ? `${readingName(carrier)} ${readingWords(carrier, readingAt(carrier, i.carrierDeg))}: ` : ''}${pathSentence(layout, i.why)}`,
        )
      : [];
  });
  protected readonly figures = computed(() => {
    const d = this.drive();
    const pair: { name: string; s: Setting; shown: boolean }[] = [];
    if (d.right) pair.push({ name: settingName(d.carrier, 'right'), s: d.right, shown: d.shown === 'right' });
    if (d.other)
      pair.push({ name: settingName(d.carrier, 'other'), s: d.other, shown: d.shown === 'wrong_way' });
    return pair.map(({ name, s, shown }) => ({
      name,
      shown,
      picture: drivePicture(d.layout, s, this.title(name, s)),
      rows: this.rows(s),
      tight: (s.clearance?.mm ?? 99) < 5,
    }));
  });
  protected readonly facts = computed(() => {
    const d = this.drive();
    const target = d.settings.ok ? d.settings.value.targetMm : 0;
    const stages = d.stages.length;
    const which =
      stages > 1
        ? `Stage 1 of ${stages}, ${d.layout.name ?? d.layout.id}; the others on the drive bench. `
        : '';
    return `${which}${d.layout.count} ${d.layout.kind === 'chain' ? 'links' : 'teeth'} × ${d.layout.pitchMm} mm = ${target.toFixed(1)} mm at the pitch line. Crank runs ${senseWords(d.layout.runs)}, seen from the timing side.`;
  });
  protected readonly strip = computed<Strip | undefined>(() => {
    const [d, state] = [this.drive(), this.desk.current()?.state];
    const key = readingKey(d);
    return state && key ? readingStrip(d, measuredOf(state, this.desk.registry(), key)) : undefined;
  });

  /** What plungers and chains of all stages say of each other. */
  protected readonly measured = computed(() => {
    const { extensions, elongations, stages } = this.drive();
    const of = (i: number) => (stages.length > 1 ? `${stages[i]?.layout.name ?? ''}: ` : '');
    return [
      ...elongations.map((e) => `${of(e.stage)}chain ${elongationWords(e)}.`),
      ...extensions.map(
        (e) =>
          `${of(e.stage)}${[extensionWords(nth(stages, e.stage).layout, e), guideWearWords(e)].join(' ').trim()}`,
      ),
    ];
  });

  private title(name: string, s: Setting): string {
    return `${name}: ${this.readingOf(s)}, smallest clearance ${(s.clearance?.mm ?? 0).toFixed(1)} mm. Wraps: ${this.drive()
      .layout.wheels.map((w, i) => `${w.name} ${((num(s.path.wraps, i) * 180) / Math.PI).toFixed(0)} degrees`)
      .join(', ')}`;
  }

  private readingOf(s: Setting): string {
    const { carrier } = this.drive();
    return carrier ? readingWords(carrier, s.reading) : '';
  }

  private rows(s: Setting): { name: string; value: string }[] {
    const { layout, settings } = this.drive();
    const i = settings.ok ? settings.value.tensioner : 0;
    const n = layout.wheels.length;
    const near = [(i + n - 1) % n, i, (i + 1) % n];
    return [
      {
        name: this.drive().carrier ? readingName(must(this.drive().carrier)) : 'Tensioner',
        value: `${this.readingOf(s)} ${s.inWindow ? 'in its window' : 'outside its window'}`,
      },
      {
        name: 'Smallest clearance',
        value: s.clearance ? `${s.clearance.mm.toFixed(1)} mm ${clearanceWords(layout, s.clearance)}` : '—',
      },
      {
        name: 'Wrap',
        value: near
          .map((k) => `${nth(layout.wheels, k).name} ${((num(s.path.wraps, k) * 180) / Math.PI).toFixed(0)}°`)
          .join(' · '),
      },
      {
        name: 'Can still follow',
        value: settings.ok
          ? `${followsWords(travelFrom(layout, settings.value, s))}, carrier moving ${senseWords(s.takeUp)}`
          : '—',
      },
      { name: 'Path length', value: `${s.path.lengthMm.toFixed(2)} mm` },
    ];
  }
}
