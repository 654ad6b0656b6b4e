import { type CauseData, causesFor } from '@core/cause/cause-data';
import { modelOf } from '@core/cause/model';
import { featureKey } from '@core/catalogue/feature-observables';
import { type Catalogue, stagesFor } from '@core/catalogue/find-records';
import { driveHas, hasAll } from '@core/drive/drive-has';
import { isMarked } from '@core/drive/judge-marks';
import { stepThing } from '@core/fitting/fitted';
import { sheetFor, type SheetStep } from '@core/fitting/sheet';
import { KINDS, sentKey } from '@core/facts/kinds';
import type { Registry } from '@core/facts/observable';
import type { Policy } from '@core/policy/policy';
import { plusMonths } from '@core/quantity/dates';
import { type Result, err, ok } from '@core/quantity/result';
import { normalFrom, randomFrom } from '@core/quantity/random';
import { VIRTUAL_BENCH } from './bench';
import { findingPart, pickBy, shownGrade } from './draw-return';
import { type Drawn, lies, liesOf, pick } from './find-things';
import { type Amiss, standsAt } from './physics';
import { type PracticeTheme, themeOf } from './themes';
import { type Truth, TRUTHS } from './truths';
import { type Lies, slotName, type VirtualCase } from './virtual-case';

/** What a return is drawn in. */
export type DrawIn = { cat: Catalogue; registry: Registry; causes: CauseData; policy: Policy };
export type DrawError = { code: 'no_such_drive'; theme: string };

const between = ({ from, to }: { from: number; to: number }, random: () => number): number =>
  from + (to - from) * random();

/**
 * Draws a whole return: a truth, what it does to this drive by geometry, wear, warmth and count, what shows of it elsewhere, and what
 * is told of it. The same for the same seed and theme in the same catalogue.
 * @param family only causes of it, where the theme has any
 */
export function drawCase(
  w: DrawIn,
  seed: number,
  theme = 'mixed',
  family?: string,
): Result<VirtualCase, DrawError> {
  // another theme is another return, whatever its number
  const random = randomFrom([...theme].reduce((s, c) => Math.imul(s, 31) + c.charCodeAt(0), 1000 * seed));
  const of = themeOf(theme);
  const wanted = (t: Truth) => !of || of.causes.length === 0 || of.causes.includes(t.cause);
  const familyOf = new Map(w.causes.causes.map((c) => [c.key, c.family]));
  const some = TRUTHS.filter(wanted);
  const own = family === undefined ? some : some.filter((t) => familyOf.get(t.cause) === family);
  const truths = own.length > 0 ? own : some;
  const drives = w.cat.pack.variants.flatMap((variant) => {
    const stages = variant.layout === undefined ? [] : stagesFor(w.cat, variant.layout);
    if (stages.length === 0 || !hasAll(of?.needs, driveHas(stages))) return [];
    const causes = causesFor(w.causes, driveHas(stages), 'return');
    const possible = truths.filter((t) => causes.causes.some((c) => c.key === t.cause));
    return possible.length > 0 ? [{ variant, stages, causes, possible }] : [];
  });
  const drive = pick(drives, random);
  if (!drive) return err({ code: 'no_such_drive', theme });
  const { variant, stages, causes, possible } = drive;
  const truth = pickBy(possible, (t) => t.weight, random);
  const km = Math.max(50, truth.km.median * Math.exp(truth.km.spread * normalFrom(random)));
  const model = modelOf(causes);
  const grades = new Map(
    [...model.findings]
      .filter(([, node]) => node.parents.length > 0)
      .map(([f, node]) => [f, shownGrade(f, node, truth, km, random)] as const),
  );
  for (const [finding, grade] of actsOn(truth, grades)) grades.set(finding, grade);
  const e = elongationOf(grades.get('chain.long'), stages[0]?.layout.elongationLimit, random);
  const amiss = amissOf(truth, grades, e, stages, random);
  const kit = pick(
    (w.cat.kitsOf.get(variant.id) ?? []).flatMap((n) => w.cat.kits.get(n) ?? []),
    random,
  );
  const drawn: Drawn = {
    ...w,
    variant,
    has: driveHas(stages),
    stages,
    kit,
    random,
    e,
    stands: stages.map((s, i) => standsAt(s.layout, i === 0 ? amiss : e > 0 ? { e } : {})),
  };
  const there: Lies[] = [];
  const shows: string[] = [];
  for (const [finding, grade] of grades) {
    const node = model.findings.get(finding);
    const found = node ? liesOf(finding, node, grade, drawn) : [];
    there.push(...found);
    if (grade !== undefined && Object.hasOwn(truth.shows, finding)) shows.push(...found.map(slotName));
  }
  const told = history(drawn, truth, km);
  const { kept, wrong } = asTold([...there, ...told], of, drawn);
  return ok({
    id: `practice-${theme}-${seed}${family === undefined ? '' : `-${family.replace(/[^a-z]/g, '-')}`}`,
    theme,
    cause: truth.cause,
    opening: [...opening(drawn, truth, kept), ...sheetBack(drawn, truth, of)],
    there: kept,
    // what is not told, or told otherwise, shows nothing
    shows: [...new Set(shows)].filter((s) => !wrong.includes(s) && kept.some((l) => slotName(l) === s)),
    wrong,
    patience: Math.round(between(VIRTUAL_BENCH.patience, random)),
  });
}

function elongationOf(grade: string | undefined, limit: number | undefined, random: () => number): number {
  if (limit === undefined) return 0;
  const [from, to] = grade === 'past' ? VIRTUAL_BENCH.wear.past : VIRTUAL_BENCH.wear.sound;
  return limit * between({ from, to }, random);
}

/** What a cause does to the drive by geometry, as grades: whether it shows is no matter of chance then. */
const actsOn = ({ acts }: Truth, grades: ReadonlyMap<string, string | undefined>): [string, string][] =>
  [
    ['setting.shown', acts?.setting] as const,
    ['chain.long', acts?.worn ? 'past' : undefined] as const,
    ['marks.verdict', acts?.teeth === undefined ? undefined : 'teeth_out'] as const,
  ].flatMap(([f, g]) => (g !== undefined && grades.has(f) ? [[f, g]] : []));

const SETTINGS = ['wrong_way', 'slack', 'beyond', 'end'] as const;

/** What the truth does to the drive in figures. */
function amissOf(
  truth: Truth,
  grades: ReadonlyMap<string, string | undefined>,
  e: number,
  stages: Drawn['stages'],
  random: () => number,
): Amiss {
  const marked = (stages[0]?.layout.wheels ?? []).filter(
    (x) => isMarked(x) && x.id !== stages[0]?.layout.wheels[0]?.id,
  );
  const verdict = grades.get('marks.verdict');
  const out = verdict === undefined ? undefined : pick(marked, random);
  const by = truth.acts?.teeth ?? VIRTUAL_BENCH.outBy[verdict ?? ''] ?? 1;
  const window = grades.get('extension.window');
  const rest =
    grades.get('extension.rest') ?? (window === 'beyond' ? 'more' : window === 'short' ? 'less' : '');
  return {
    setting: SETTINGS.find((s) => s === grades.get('setting.shown')),
    setAtC: truth.acts?.warm ? between(VIRTUAL_BENCH.setAtC, random) : undefined,
    e,
    restMm: rest === 'more' ? VIRTUAL_BENCH.restMm : rest === 'less' ? -VIRTUAL_BENCH.restMm : undefined,
    teeth: out && { [out.id]: random() < 0.5 ? by : -by },
  };
}

/** When it was fitted, how far it ran, what it is. */
function history(d: Drawn, truth: Truth, km: number): Lies[] {
  const { random, variant } = d;
  const months = Math.max(1, Math.round(km / VIRTUAL_BENCH.kmPerMonth));
  const then = Math.round(between(VIRTUAL_BENCH.fittedAt, random));
  const [from, to] = truth.shows['oil.interval'] ? VIRTUAL_BENCH.oilKm.past : VIRTUAL_BENCH.oilKm.sound;
  const oil = between({ from, to }, random);
  const features = Object.entries(variant.features).flatMap(([f, allowed]) => {
    const value = pick(allowed, random);
    return value === undefined ? [] : [lies(d, featureKey(f), value)];
  });
  return [
    ...features,
    lies(d, 'kit.fitted_odometer', then),
    lies(d, 'vehicle.odometer', then + Math.round(km)),
    lies(d, 'kit.fitted', plusMonths(VIRTUAL_BENCH.day, -months)),
    ...(d.has.has('oiled') ? [lies(d, 'oil.changed_at', Math.max(0, then + Math.round(km - oil)))] : []),
    lies(d, 'symptom', pickBy(Object.entries(truth.noticed), ([, w]) => w, random)[0]),
  ];
}

/** What is asked is sometimes told otherwise: as if nothing had been amiss, or nobody knows it. */
function asTold(
  all: readonly Lies[],
  of: PracticeTheme | undefined,
  d: Drawn,
): { kept: Lies[]; wrong: string[] } {
  const wrong: string[] = [];
  const chance = of?.toldWrong ?? VIRTUAL_BENCH.toldWrong;
  const kept = all.flatMap((l): Lies[] => {
    const o = d.registry.get(l.key);
    const told = o?.how === 'reported' && o.part !== 'drive' && o.part !== 'wheel' && o.part !== 'bank';
    if (!told || o.key === 'symptom' || d.random() >= chance) return [l];
    if (o.type.kind !== 'choice') return d.random() < 0.5 ? [] : [l];
    const sound = o.type.options.filter((x) => !x.abnormal && x.key !== l.value && hasAll(x.needs, d.has));
    const other = pick(sound, d.random);
    if (!other) return [l];
    wrong.push(slotName(l));
    return [{ ...l, value: other.key }];
  });
  return { kept, wrong };
}

/**
 * The filled sheet in the box, where one came back: every step done as it says, but for the one that the cause is a fault of;
 * and that, too, is ticked as done where the sheet lies.
 */
function sheetBack(d: Drawn, truth: Truth, of: PracticeTheme | undefined): Lies[] {
  const { random, cat, variant, stages, policy } = d;
  if (random() >= (of?.sheetBack ?? VIRTUAL_BENCH.sheetBack)) return [];
  const sheet = sheetFor(cat, variant, stages, policy);
  const codes = Object.entries(d.causes.sheet.names).flatMap(([code, causes]) =>
    causes.includes(truth.cause) ? [code] : [],
  );
  const at = (s: SheetStep) =>
    (['wrong', 'skipped'] as const).find((how) => codes.includes(s.faults?.[how] ?? ''));
  const faulty = random() < (of?.toldWrong ?? VIRTUAL_BENCH.toldWrong) ? undefined : sheet.steps.find(at);
  return sheet.steps.map((s) => ({
    ...lies(d, 'step.done', (s === faulty ? at(s) : undefined) ?? 'done', stepThing(s.id)),
    how: 'document',
  }));
}

/** What stands on the paper in the box. */
function opening(d: Drawn, truth: Truth, there: readonly Lies[]): Lies[] {
  const { random } = d;
  const shownOn = new Set(Object.keys(truth.shows).map(findingPart));
  const possible = [...KINDS.values()].filter((k) => k.part && !k.rare && hasAll(k.sent?.needs, d.has));
  const sent = possible.filter(({ kind }) =>
    [
      VIRTUAL_BENCH.always.includes(kind),
      shownOn.has(kind) && random() < VIRTUAL_BENCH.sentShown,
      random() < VIRTUAL_BENCH.sentAlong,
    ].some(Boolean),
  );
  const vehicle = pick(d.cat.engines.get(d.variant.engine)?.vehicles ?? [], random);
  const onPaper = ['symptom', 'kit.number', 'vehicle.odometer', 'kit.fitted_odometer', 'kit.fitted'];
  const first = there.filter((l) => onPaper.includes(l.key) && random() >= 2 * VIRTUAL_BENCH.unsaid);
  return [
    lies(d, 'engine.code', d.variant.engine),
    ...(vehicle === undefined ? [] : [lies(d, 'vehicle.name', vehicle)]),
    lies(d, 'case.date', VIRTUAL_BENCH.day),
    lies(
      d,
      'parts.sent',
      sent.map(({ kind }) => sentKey(kind)),
    ),
    ...first,
  ];
}
