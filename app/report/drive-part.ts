import { must, nth } from '@core/quantity/must';
import type { Content, ContentStack } from 'pdfmake/interfaces';
import type { Answers } from '@core/answer/answers';
import { drivePicture, pictureSvg } from '../ui/drive-picture';
import {
  clearanceWords,
  extensionWords,
  guideWearWords,
  readingName,
  readingWords,
  settingName,
  SHOWN_WORDS,
} from '../messages/drive';
import { freeSeatWords, goWords, offsetWords, signed, offsetVerdictWords } from '../messages/drive-results';
import { elongationWords } from '../messages/reuse';
import { ROOM } from './paper';
import { heading } from './parts';

/** A drawing is at least so high: marks and pointer are read at that. */
const LEAST_PT = 80 * ROOM.mm;
const [GAP, HALF] = [14, (ROOM.width - 14) / 2];

/**
 * The drive drawn as it should be and, where there is one, the setting it is taken for; beside each other where both are high
 * enough so, else one below the other. @param shownOnly the other setting is drawn only where the returned part shows it
 */
export function drivePart(a: Answers, shownOnly = false): Content[] {
  const d = a.drive;
  if (!d?.settings.ok || !d.right) return [];
  const { layout } = d;
  const other = d.other && (!shownOnly || d.shown === 'wrong_way') ? d.other : undefined;
  const drawn = [
    { title: settingName(d.carrier, 'right'), setting: d.right },
    ...(other ? [{ title: settingName(d.carrier, 'other'), setting: other }] : []),
  ].map((x) => ({ ...x, picture: drivePicture(layout, x.setting, x.title) }));
  const widths = drawnWidths(drawn.map(({ picture }) => picture.box));
  const beside = widths.every((w) => w <= HALF + 0.01);
  const figures = drawn.map(
    ({ title, setting: s, picture }, i): ContentStack => ({
      unbreakable: true,
      margin: [0, 0, 0, beside ? 0 : 8],
      stack: [
        { text: title, bold: true },
        { svg: pictureSvg(picture, nth(widths, i)), width: nth(widths, i) },
        {
          text: `${d.carrier ? `${readingName(d.carrier)} ${readingWords(d.carrier, s.reading)}. ` : ''}Smallest clearance ${s.clearance ? `${s.clearance.mm.toFixed(1)} mm ${clearanceWords(layout, s.clearance)}` : '—'}. Path ${s.path.lengthMm.toFixed(2)} mm.`,
        },
      ],
    }),
  );
  return [
    {
      unbreakable: true,
      stack: [
        heading('The drive, computed, to one scale'),
        {
          text: `${layout.count} ${layout.kind === 'chain' ? 'links' : 'teeth'} × ${layout.pitchMm} mm = ${d.settings.value.targetMm.toFixed(1)} mm. The returned part shows ${d.shown ? SHOWN_WORDS[d.shown] : 'nothing: it was not read'}.`,
          margin: [0, 0, 0, 4],
        },
        ...(beside
          ? [{ columns: figures.map((f, i) => ({ ...f, width: nth(widths, i) })), columnGap: GAP }]
          : figures.slice(0, 1)),
      ],
    },
    ...(beside ? [] : figures.slice(1)),
  ];
}

/** Widths at which pictures have one scale and each is high enough, or the widest as wide as the page. */
export function drawnWidths(boxes: readonly { width: number; height: number }[]): number[] {
  const widest = Math.max(...boxes.map((b) => b.width));
  const wanted = Math.max(HALF / widest, ...boxes.map((b) => LEAST_PT / b.height));
  const scale = Math.min(wanted, ROOM.width / widest);
  return boxes.map((b) => b.width * scale);
}

/** What marks and extension say against the computed drive, as sentences. */
export function measuredPart(a: Answers): Content[] {
  const d = a.drive;
  const lines: string[] = [];
  for (const m of d?.marks?.marks ?? []) {
    const layout = nth(must(d).stages, m.stage).layout;
    lines.push(
      `${nth(layout.wheels, m.wheel).name}: a correct fitting shows it ${offsetWords(m.predicted)}; seen ${signed(m.teeth)} teeth. ${offsetVerdictWords(m.verdict)}.`,
    );
  }
  if (d?.marks)
    lines.push(
      `${goWords(d.marks.go, d.marks.marks.length, d.marks.of)}. ${d.marks.go === 'go' ? freeSeatWords(d.marks.free) : ''}`.trim(),
    );
  const of = (i: number) =>
    must(d).stages.length > 1 ? `${nth(must(d).stages, i).layout.name ?? ''}: ` : '';
  for (const e of d?.elongations ?? []) lines.push(`${of(e.stage)}chain ${elongationWords(e)}.`);
  for (const e of d?.extensions ?? [])
    lines.push(
      `${of(e.stage)}${[extensionWords(nth(must(d).stages, e.stage).layout, e), guideWearWords(e)].join(' ').trim()}`,
    );
  return lines.length ? [heading('Measured against the drive'), ...lines.map((text) => ({ text }))] : [];
}
