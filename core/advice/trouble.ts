import { must, num } from '@core/quantity/must';
import { type CrankRange, pistonDrop, restDeg, safeCrankRanges } from '@core/drive/valve-safety';
import type { ValveGeometry } from '@core/drive/valves-schema';
import { has, listOf, textOf } from '@core/facts/read';
import type { AnsweredQuestion, Case, PistonsAt, Reason } from './advice';
import { codeOf } from './codes';
import { designsOf, missingDesign, missingEngine } from './missing';
import { withOutcomes } from './outcomes';

/** Inspections that are named for a noise. */
const LOOKS = 3;

/** Timing is lost: whether and where the crank may be turned, computed from pistons and valves; unknown counts as interference. */
export function adviseLost(c: Case): AnsweredQuestion {
  const { a } = c;
  if (!a.engine) return missingEngine();
  const { interference } = a.engine;
  const because = [{ code: 'interference' as const, interference }];
  if (interference === 'no') return { standing: 'yes', lead: { code: 'turn_free' }, because, missing: [] };
  const designs = designsOf(c).map((d) => d.stages.map((s) => s.layout.valves).find((v) => v !== undefined));
  if (designs.length === 0 || designs.some((v) => v === undefined))
    return { standing: 'cannot', lead: { code: 'do_not_turn', interference }, because, missing: [] };
  const ranges = designs.map((v) => safeCrankRanges(must(v)).ranges).reduce(common);
  if (ranges.length === 0)
    return {
      standing: 'no',
      lead: { code: 'do_not_turn', interference },
      because,
      missing: missingDesign(c),
    };
  // Designs with one and the same geometry have one answer.
  const same = designs.every((v) => JSON.stringify(v) === JSON.stringify(designs[0]));
  const pistons = same ? pistonsAt(must(designs[0]), ranges, a.policy.leastRoomMm) : [];
  return {
    standing: 'yes',
    lead: { code: 'may_turn', ranges },
    because: [...because, ...pistons],
    missing: [],
  };
}

/** Pistons within this of each other, mm, stand alike. */
const ALIKE_MM = 0.5;

/** What the pistons do where the crank comes to rest: how far each stands below its top and which way it goes. */
function pistonsAt(g: ValveGeometry, ranges: readonly CrankRange[], roomMm: number): Reason[] {
  const crankDeg = restDeg(g, roomMm) ?? middle(must(ranges[0]));
  const at: PistonsAt[] = [];
  for (const c of g.cylinders) {
    const down = (deg: number) => pistonDrop(g, deg - c.firingDeg);
    const mm = down(crankDeg);
    const slope = down(crankDeg + 0.5) - down(crankDeg - 0.5);
    const going = Math.abs(slope) < 1e-6 ? 'top' : slope > 0 ? 'down' : 'up';
    const alike = at.find((p) => p.going === going && Math.abs(p.mm - mm) < ALIKE_MM);
    if (alike) alike.cylinders.push(c.name);
    else at.push({ cylinders: [c.name], mm, going });
  }
  const room = num(safeCrankRanges(g).roomMm, ((Math.round(crankDeg) % 360) + 360) % 360);
  return [{ code: 'pistons', crankDeg, roomMm: room, at }];
}
const middle = (r: CrankRange): number => (r.fromDeg + r.toDeg) / 2;

/** Ranges that two designs share. */
function common(x: readonly CrankRange[], y: readonly CrankRange[]): CrankRange[] {
  return x.flatMap((r) =>
    y.flatMap((s) => {
      const [fromDeg, toDeg] = [Math.max(r.fromDeg, s.fromDeg), Math.min(r.toDeg, s.toDeg)];
      return fromDeg < toDeg ? [{ fromDeg, toDeg }] : [];
    }),
  );
}

/** What a code or a noise means: which shaft it accuses, what else sets it, and what to look at first. */
export function adviseMeans(c: Case): AnsweredQuestion {
  const { a, state } = c;
  const codes = listOf(state, 'fault.codes');
  const keys = ['fault.codes', 'symptom', 'kit.fitted'];
  const fitted = has(state, 'kit.fitted') ? [{ code: 'after_job' as const }] : [];
  const looks = a.checks
    .flatMap((x) => x.inspections)
    .filter((l, i, all) => all.findIndex((m) => m.key === l.key && m.about === l.about) === i)
    .slice(0, LOOKS)
    .map(({ key, about, minutes }) => ({ key, minutes, ...(about === undefined ? {} : { about }) }));
  const missing = a.engine ? looks : [{ key: 'engine.code', minutes: 1 }];
  if (codes.length > 0) {
    const known = codes.flatMap((code) => codeOf(code) ?? []);
    const unknown = codes.filter((code) => codeOf(code) === undefined);
    return {
      standing: known.length > 0 ? 'if' : 'cannot',
      lead: { code: 'codes', codes: known, unknown },
      because: fitted,
      missing,
      keys,
    };
  }
  const symptom = textOf(state, 'symptom');
  if (symptom === undefined)
    return {
      standing: 'open',
      lead: { code: 'nothing_told' },
      because: [],
      missing: [
        { key: 'fault.codes', minutes: 1 },
        { key: 'symptom', minutes: 1 },
      ],
      keys,
    };
  return {
    standing: 'if',
    lead: {
      code: 'noise',
      looks: looks.map((l) => ({ key: l.key, about: 'about' in l ? l.about : undefined })),
    },
    because: fitted,
    // What each outcome would mean is said beside it.
    missing: a.engine ? withOutcomes(c, looks) : missing,
    keys,
  };
}
