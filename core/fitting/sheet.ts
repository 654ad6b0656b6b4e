import type { Catalogue } from '@core/catalogue/find-records';
import type { Procedure, Variant } from '@core/catalogue/pack';
import { fillPlaceholders } from '@core/catalogue/placeholders';
import { limitsOf, readingUnit } from '@core/drive/carrier';
import { driveHas, hasAll } from '@core/drive/drive-has';
import { markedWheels } from '@core/drive/judge-marks';
import { type Layout, tensionerIndex } from '@core/drive/layout';
import { senseWord, typedSense } from '@core/drive/sense';
import type { Stage } from '@core/drive/stages';

export type SheetStep = Procedure['steps'][number] & {
  /** The catalogue's own text fixes a turning sense; it is left out, since it may contradict the drive. */
  unsafe?: true;
};
export type Sheet = {
  /** `none`: the catalogue has no procedure; `other_kind`: the one it names is for another kind of drive. */
  status: 'ready' | 'none' | 'other_kind';
  name: string;
  steps: SheetStep[];
};

/** The fitting sheet of a design: its procedure's steps that this drive has, written from its layout. */
export function sheetFor(cat: Catalogue, variant: Variant, stages: readonly Stage[]): Sheet {
  const procedure = variant.procedure === undefined ? undefined : cat.procedures.get(variant.procedure);
  const layout = stages[0]?.layout;
  if (!procedure || !layout) return { status: 'none', name: '', steps: [] };
  const has = driveHas(stages);
  if (!hasAll(procedure.for, has)) return { status: 'other_kind', name: procedure.name, steps: [] };
  const values = valuesOf(layout);
  const steps = procedure.steps
    .filter((s) => hasAll(s.needs, has))
    .map((s) => writeStep(s, s.turns === undefined ? values : { ...values, turns: String(s.turns) }));
  return { status: 'ready', name: fillPlaceholders(procedure.name, values), steps };
}

type Values = Partial<Record<string, string>>;

function writeStep(step: Procedure['steps'][number], values: Values): SheetStep {
  const written = { ...step };
  let unsafe = false;
  for (const field of ['text', 'proof', 'fault', 'caution'] as const) {
    const text = step[field];
    if (text === undefined) continue;
    if (typedSense(text)) {
      unsafe = true;
      if (field === 'text') written.text = '';
      else Reflect.deleteProperty(written, field);
    } else written[field] = fillPlaceholders(text, values);
  }
  return unsafe ? { ...written, unsafe } : written;
}

const READING = { eccentric: 'eccentric', pointer: 'pointer', lever: 'lever', plunger: 'plunger' };

function valuesOf(layout: Layout): Values {
  const index = tensionerIndex(layout);
  const carrier = layout.wheels[index]?.carrier;
  const names = (at: readonly number[]) => list(at.map((i) => lower(layout.wheels[i]!.name)));
  const all = layout.wheels.map((_, i) => i);
  const values: Values = {
    drive: layout.kind,
    driver: lower(layout.wheels[0]!.name),
    marked: names([...markedWheels(layout)].reverse()),
    route: names(all.slice(1).reverse()),
    rollers: names(
      all.filter((i) => i > 0 && layout.wheels[i]!.teeth === undefined && layout.wheels[i]!.role !== 'pump'),
    ),
  };
  if (!carrier) return values;
  const unit = readingUnit(carrier) === 'mm' ? ' mm' : '°';
  const { window } = limitsOf(carrier);
  const round = (v: number) => String(Math.round(v * 10) / 10);
  values['nominal'] = round(window.nominal) + unit;
  values['window'] = `${round(window.from)}${unit} to ${round(window.to)}${unit}`;
  values['carrier'] = senseWord(carrier.turn);
  values['reading'] =
    carrier.kind === 'eccentric'
      ? carrier.manual
        ? READING.eccentric
        : READING.pointer
      : carrier.plunger
        ? READING.plunger
        : READING.lever;
  if (carrier.kind === 'eccentric') values['key'] = senseWord(carrier.keyTurn);
  return values;
}

/** A name inside a sentence; what is written in capitals, such as a code, stays. */
const lower = (name: string): string =>
  /^[A-Z][a-z]/.test(name) ? name[0]!.toLowerCase() + name.slice(1) : name;
const list = (words: readonly string[]): string =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)!}`;
