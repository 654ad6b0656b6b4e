import { catalogueLimit, newParts } from '@core/examination/catalogue-limit';
import { EXAMINATIONS } from '@core/examination/examination-data';
import type { Catalogue } from '@core/catalogue/find-records';
import type { Kit, Variant } from '@core/catalogue/pack';
import { codeOfKind } from '@core/examination/codes';
import type { CauseData } from '@core/cause/cause-data';
import type { FindingNode } from '@core/cause/model';
import type { Has } from '@core/drive/drive-has';
import type { Stage } from '@core/drive/stages';
import { hasAll } from '@core/drive/drive-has';
import type { FactValue } from '@core/facts/fact';
import { type Observable, optionsOf, type Registry } from '@core/facts/observable';
import { bankThing, wheelThing } from '@core/facts/thing';
import type { Policy } from '@core/policy/policy';
import { nth } from '@core/quantity/must';
import { normalFrom } from '@core/quantity/random';
import type { StandsAt } from './physics';
import type { Lies } from './virtual-case';

/** What of a return is drawn already, when what lies on its bench is worked out. */
export type Drawn = {
  cat: Catalogue;
  causes: CauseData;
  registry: Registry;
  variant: Variant;
  has: ReadonlySet<Has>;
  stages: readonly Stage[];
  kit: Kit | undefined;
  policy: Policy;
  random: () => number;
  /** How each stage stands, where it can be solved. */
  stands: readonly (StandsAt | undefined)[];
  /** Elongation of each stage's chain. */
  e: number;
};
type Grade = string | undefined;
/** What is found where a finding has a grade; undefined for sound. */
type Put = (grade: Grade, d: Drawn) => Lies[];

/** Links over which a chain is measured, as many as it has at most. */
const CHAIN_LINKS = 40;
const READINGS = 40;
const SECONDS = 1.5;

/** Findings that are computed from several readings: what those are, so that they come to that grade. */
const READINGS_OF: Readonly<Record<string, Put>> = {
  'setting.shown': (_, d) => {
    const at = d.stands.find((s) => s?.reading?.unit === '°');
    return at?.reading ? [measured(d, 'tensioner.pointer', at.reading.value)] : [];
  },
  'extension.window': (_, d) => {
    const at = d.stands.find((s) => s?.reading?.unit === 'mm');
    return at?.reading ? [measured(d, 'tensioner.extension', Math.max(0, at.reading.value))] : [];
  },
  'chain.long': (_, d) => {
    const chain = d.stages.find((s) => s.layout.kind === 'chain')?.layout;
    if (!chain) return [];
    const links = Math.min(CHAIN_LINKS, chain.count - 2);
    return [
      measured(d, 'chain.length', links * chain.pitchMm * (1 + d.e)),
      lies(d, 'chain.links_over', links),
    ];
  },
  'key.sense': (grade, d) => {
    const eccentric = carriers(d).find((c) => c.kind === 'eccentric');
    if (eccentric?.kind !== 'eccentric') return [];
    const other = eccentric.keyTurn === 'cw' ? 'ccw' : 'cw';
    return [lies(d, 'tensioner.key_turn', grade === 'wrong' ? other : eccentric.keyTurn)];
  },
  'rim.marks': (grade, d) => {
    const beside = d.stands[0]?.beside ?? [];
    const wheels = nth(d.stages, 0).layout.wheels.map((w) => w.id);
    const elsewhere = wheels.filter((w) => !beside.includes(w)).slice(0, 1);
    const marked = grade === 'tensioner_side' ? beside.slice(0, 1) : grade === 'elsewhere' ? elsewhere : [];
    return [lies(d, 'wheel.rim_marks', marked)];
  },
  'kit.match': (grade, d) => {
    const own = d.cat.kitsOf.get(d.variant.id) ?? [];
    const others = d.cat.pack.kits.filter((k) => !own.includes(k.number));
    const kit = grade === 'wrong' ? pick(others, d.random)?.number : d.kit?.number;
    return kit === undefined ? [] : [lies(d, 'kit.number', kit)];
  },
  'count.match': (grade, d) => {
    const { layout } = nth(d.stages, 0);
    const key = layout.kind === 'belt' ? 'belt.teeth_count' : 'chain.count';
    return [lies(d, key, layout.count + (grade === 'differs' ? (d.random() < 0.5 ? -2 : 2) : 0))];
  },
  'codes.shown': (grade, d) => {
    const code = grade === undefined ? undefined : codeOfKind(grade);
    return [lies(d, 'fault.codes', code === undefined ? [] : [code])];
  },
  'leak.down': (grade, d) => {
    if (!d.has.has('plunger')) return [];
    const limit = d.policy.leakMaxMmPerS;
    const rate = limit * (grade === 'above' ? 2 + 2 * d.random() : 0.15 + 0.3 * d.random());
    const points = Array.from({ length: READINGS }, (_, i) => [
      i * SECONDS,
      8 - rate * i * SECONDS + 0.002 * normalFrom(d.random),
    ]);
    return [lies(d, 'tensioner.leak_series', points.flat())];
  },
  'marks.verdict': (_, d) =>
    d.stands.flatMap((s) => (s?.marks ?? []).map((m) => measured(d, 'mark', m.teeth, wheelThing(m.wheel)))),
  'trace.shift': (_, d) => {
    // a capture is taken at the cam that is out most
    const [cam] = d.stands
      .flatMap((s) => s?.marks ?? [])
      .sort((a, b) => Math.abs(b.crankDeg) - Math.abs(a.crankDeg));
    return cam ? [measured(d, 'trace.offset', cam.crankDeg)] : [];
  },
  'heads.nearer': (grade, d) =>
    (d.stages[0]?.layout.banks ?? []).map((b) =>
      measured(d, 'bank.nearer', grade === 'nearer' ? 0.4 + 0.2 * d.random() : 0, bankThing(b.id)),
    ),
};
/** Findings that follow from others' readings: nothing of their own lies there. */
const FOLLOWS: ReadonlySet<string> = new Set([
  'extension.rest',
  'guide.material',
  'interval.run',
  'distance.run',
  'time.run',
  'sheet.fault',
  'damage.repeats',
  'part.number',
  'bank.pattern',
  'heads.explain',
  'oil.interval',
]);

/** What lies there of a finding that has this grade. */
export function liesOf(finding: string, node: FindingNode, grade: Grade, d: Drawn): Lies[] {
  const readings = READINGS_OF[finding];
  if (readings) return readings(grade, d);
  const o = d.registry.get(finding);
  if (FOLLOWS.has(finding) || !o || !hasAll(o.needs, d.has)) return [];
  switch (o.type.kind) {
    case 'choice':
      return choiceOf(o, node, grade, d);
    case 'number':
    case 'count':
      return numberOf(o, node, grade, d);
    default:
      return [];
  }
}

function choiceOf(o: Observable, node: FindingNode, grade: Grade, d: Drawn): Lies[] {
  const can = optionsOf(o).filter((x) => hasAll(x.needs, d.has));
  const value = grade ?? node.spec.sound.find((s) => can.some((x) => x.key === s));
  if (value === undefined || !can.some((x) => x.key === value)) return [];
  if (o.place === undefined) return [lies(d, o.key, value)];
  // nothing at any place is what a sound part shows
  const from = 5 + Math.floor(30 * d.random());
  return grade === undefined ? [] : [{ ...lies(d, o.key, value), place: { on: o.place, from } }];
}

/** A number in the band of its grade, or against the new part's dimension. */
function numberOf(o: Observable, node: FindingNode, grade: Grade, d: Drawn): Lies[] {
  const { edges, grades } = node.spec;
  const band = edges && grades ? grades.indexOf(grade ?? nth(node.spec.sound, 0)) : -1;
  if (edges && band >= 0) {
    const [a, b] = [nth(edges, band), Math.min(nth(edges, band + 1), 2 * nth(edges, band) + 1)];
    return placed(o, measured(d, o.key, Math.round(a + (b - a) * d.random())));
  }
  const look = EXAMINATIONS.get(o.part)?.inspections.find((i) => i.key === o.key);
  const limit = look?.limit && catalogueLimit(newParts(d.cat, d.kit, o.part, undefined), look.limit);
  if (!limit) return [];
  const step = Math.max(3 * limit.tolerance, 0.05 * limit.nominal, Number.EPSILON);
  const off = grade === undefined ? 0 : GROWS.test(o.key) ? step : -step;
  return placed(o, measured(d, o.key, Math.max(0, limit.nominal + off)));
}
/** Plays and run-outs grow with wear; what else is measured of a part gets less. */
const GROWS = /play|runout|sag|length/;

const placed = (o: Observable, l: Lies): Lies[] =>
  o.place === undefined ? [l] : [{ ...l, place: { on: o.place, from: 1 } }];

const carriers = (d: Drawn) =>
  d.stages.flatMap((s) => s.layout.wheels.flatMap((w) => (w.carrier ? [w.carrier] : [])));

export function pick<T>(all: readonly T[], random: () => number): T | undefined {
  return all[Math.floor(random() * all.length)];
}

/** A line as whoever looks would know it. */
export function lies(d: Pick<Drawn, 'registry'>, key: string, value: FactValue, about?: string): Lies {
  const how = d.registry.get(key)?.how ?? 'reported';
  return { key, ...(about === undefined ? {} : { about }), value, how };
}

/** A reading with the usual gauge's error, to a fifth of it. */
function measured(d: Drawn, key: string, truth: number, about?: string): Lies {
  const type = d.registry.get(key)?.type;
  if (type?.kind !== 'number') return lies(d, key, Math.round(truth), about);
  const u = type.u ?? 0;
  const off = truth + u * 0.7 * normalFrom(d.random);
  const read = u > 0 ? Math.round(off / (u / 5)) * (u / 5) : off;
  const value = Number(Math.min(type.max, Math.max(type.min, read)).toFixed(9));
  return { ...lies(d, key, value, about), ...(u > 0 ? { u } : {}) };
}
