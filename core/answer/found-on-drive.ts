import type { Layout } from '@core/drive/layout';
import type { Circle, Path, Point } from '@core/drive/path';
import { solveFixed } from '@core/drive/solve-drive';
import type { Finding } from '@core/examination/finding';
import { stageOf } from '@core/examination/stage-of';
import { KINDS } from '@core/facts/kinds';
import type { State } from '@core/facts/state';
import { nameOfId } from '@core/facts/thing';
import { nth } from '@core/quantity/must';
import type { Answers } from './answers';
import type { DriveGeometry } from './drive-answer';

/** A drive as it can be drawn: at its intended setting where it has a tensioner, else as it was measured. */
export type StandingDrive = { layout: Layout; circles: Circle[]; path: Path };

/** Undefined where no belt or chain could run so. */
export function standingDrive(g: Pick<DriveGeometry, 'layout' | 'right'>): StandingDrive | undefined {
  if (g.right) return { layout: g.layout, circles: g.right.circles, path: g.right.path };
  const fixed = solveFixed(g.layout);
  return fixed.ok ? { layout: g.layout, circles: fixed.value.circles, path: fixed.value.path } : undefined;
}

/** What was found at one place of the drive: a wheel by its index, or the belt or chain itself. */
type FoundSpot = {
  at: number | 'strand';
  /** Where it lies, mm. */
  x: number;
  y: number;
  abnormal: Finding[];
  /** Findings there that need no explanation. */
  sound: number;
};
export type FoundOnDrive = { drive: StandingDrive; spots: FoundSpot[]; elsewhere: Finding[] };

/** Belt or chain, as a kind's places name it. */
const STRAND = 'strand';

/**
 * The findings that are weighed, each at the place of the drive where it was seen; abnormal ones of no place, of a further stage, or of a
 * part of which the drive has several and nobody said which, apart.
 */
export function foundOnDrive(
  a: Pick<Answers, 'drive' | 'findings' | 'ranking' | 'registry'>,
  state: State,
): FoundOnDrive | undefined {
  const drive = a.drive && standingDrive(a.drive);
  if (!a.drive || !drive) return undefined;
  const { stages } = a.drive;
  const byId = new Map(state.log.map((f) => [f.id, f]));
  const abnormal = new Set(a.ranking.abnormal);
  const spots = new Map<number | 'strand', FoundSpot>();
  const elsewhere: Finding[] = [];
  for (const finding of a.findings) {
    const at = placeOf(finding);
    if (at === undefined) {
      if (abnormal.has(finding)) elsewhere.push(finding);
      continue;
    }
    const spot = spots.get(at) ?? { at, ...pointOf(drive, at), abnormal: [], sound: 0 };
    if (abnormal.has(finding)) spot.abnormal.push(finding);
    else spot.sound++;
    spots.set(at, spot);
  }
  return { drive, spots: [...spots.values()], elsewhere };

  function placeOf({ facts }: Finding): number | 'strand' | undefined {
    const fact = facts.map((id) => byId.get(id)).find((f) => f !== undefined);
    const kind = fact && a.registry.get(fact.key)?.part;
    if (!fact || kind === undefined || !drive) return undefined;
    const { wheels } = drive.layout;
    if (kind === 'wheel') {
      const i = wheels.findIndex((w) => w.id === nameOfId(fact.about ?? ''));
      return i < 0 ? undefined : i;
    }
    const sits = KINDS.get(kind)?.sits ?? [];
    if (sits.length === 0) return undefined;
    const suits = (l: Layout) =>
      sits.includes(STRAND) ? l.kind === kind : l.wheels.some((w) => sits.includes(w.role));
    if (stageOf(state, fact.about ?? '', kind, stages, suits) !== 0) return undefined;
    if (sits.includes(STRAND)) return STRAND;
    const there = wheels.flatMap((w, i) => (sits.includes(w.role) ? [i] : []));
    return there.length === 1 ? there[0] : undefined;
  }
}

/** The middle of the longest strand, so that what is said of the belt stands off its wheels. */
function pointOf({ circles, path }: StandingDrive, at: number | 'strand'): Point {
  if (at !== STRAND) {
    const { x, y, r, arc } = nth(circles, at);
    if (!arc) return { x, y };
    // A shoe is where its surface is, not in the middle of its circle.
    const middle = (arc[0] + arc[1]) / 2;
    return { x: x + r * Math.cos(middle), y: y + r * Math.sin(middle) };
  }
  const [longest] = [...path.spans].sort((p, q) => q.lengthMm - p.lengthMm);
  const { a, b } = longest ?? nth(path.spans, 0);
  return { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
}
