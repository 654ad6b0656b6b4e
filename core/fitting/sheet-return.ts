import { oncePer } from '@core/quantity/keep';
import { must, nth } from '@core/quantity/must';
import * as z from 'zod';
import '@core/quantity/plain-schemas';
import type { NewFact } from '@core/facts/change';
import type { Said } from '@core/facts/fact';
import { contentDigest } from '@core/facts/digest';
import { factsOf, textOf } from '@core/facts/read';
import type { State } from '@core/facts/state';
import { asStructured } from '@core/facts/value';
import { isDay } from '@core/quantity/dates';
import { parseJson } from '@core/quantity/parse-json';
import { type Result, err, ok } from '@core/quantity/result';
import { askKey, inBase, isPossible, stepThing } from './fitted';
import { movedIn } from './moved';
import type { Sheet, SheetStep } from './sheet';
import { looksLikeCode } from './looks-like-code';
import { type SheetQuestions, type CodeError, headOfCode, readCode } from './sheet-code';

const RETURN_FORMAT = 'hollow-sprocket-sheet' as const;

/** A filled fitting sheet as it comes back (docs/formats.md). `check`: SHA-256 of the rest, canonical JSON. */
export const ReturnSchema = z.strictObject({
  format: z.literal(RETURN_FORMAT),
  formatVersion: z.literal(1),
  case: z.string().max(80),
  tag: z.string().max(40),
  sheet: z.string().regex(/^[0-9a-f]{64}$/),
  fitter: z.string().max(120),
  /** Day on which it was filled in. */
  day: z.string().max(10),
  steps: z
    .array(
      z.strictObject({
        id: z.string().max(80),
        state: z.enum(['done', 'skipped', 'wrong']),
        /** Place in the order done, from 1; of steps not left out. */
        place: z.number().int().min(1).max(200).optional(),
        values: z.record(z.string(), z.number()).optional(),
        tool: z.string().max(200).optional(),
        note: z.string().max(1000).optional(),
      }),
    )
    .max(200),
  check: z.string(),
});
export type SheetReturn = z.infer<typeof ReturnSchema>;

/** Digest by which a sheet is known: its steps as they read, with what they ask. Numbers of steps are part of it. */
export const sheetDigest = (sheet: Pick<Sheet, 'steps'>): string => stepsDigest(sheet.steps);
const stepsDigest = oncePer((steps: Sheet['steps']) =>
  contentDigest(steps.map((s) => [s.id, s.text, s.proof?.text ?? '', s.proof?.asks ?? [], s.tool ?? null])),
);

/** Short digest of a case's id, as codes carry it. @param digits as the code's edition has them */
export const caseMark = (caseId: string, digits = 10): string => contentDigest(caseId).slice(0, digits);

/** A mark of so few digits leaves room for two cases of a busy desk: it is asked which one is meant. */
export const isShortMark = (mark: string): boolean => mark.length < 10;

export const checkOf = (r: Omit<SheetReturn, 'check'>): string => contentDigest(r);

/** How a sheet's steps ask, for {@link readCode}. */
export const sheetQuestions = (steps: readonly Pick<SheetStep, 'proof' | 'tool'>[]): SheetQuestions =>
  steps.map((s) => ({ asks: s.proof?.asks.length ?? 0, instead: s.tool?.instead?.length ?? 0 }));

export type ReturnError =
  | CodeError
  /** No JSON: cut short, or not a file of ours. */
  | { code: 'cut'; line: number }
  | { code: 'shape'; place: string; detail: string }
  | { code: 'edited' }
  | { code: 'other_case'; tag: string }
  | { code: 'other_version'; sheet: string }
  | { code: 'twice' }
  /** A sheet on which nothing was answered; a step that is answered twice; two steps done at one place; a day that is none. */
  | { code: 'empty' }
  | { code: 'step_twice'; step: string }
  | { code: 'place_twice'; step: string; place: number }
  | { code: 'no_day'; day: string }
  /** A step that its sheet does not have, or a figure that nobody asked for. */
  | { code: 'step_unknown'; step: string }
  | { code: 'impossible'; step: string; value: number };

/** What a returned sheet is held against: the case that it should belong to. */
export type Home = { caseId: string; sheet: Sheet; state: State };
export type ReturnedSheet = { entries: NewFact[]; steps: number };

/** Text as it came: a file, or a code that was typed or read off a picture. Nothing is filed by reading it. */
export function readReturn(text: string, home: Home): Result<ReturnedSheet, ReturnError> {
  const read = /^\s*HS\d/i.test(text) ? fromCode(text, home) : fromJson(text);
  if (!read.ok) return read;
  const r = read.value;
  if (r.case !== home.caseId) return err({ code: 'other_case', tag: r.tag });
  const known = r.sheet === sheetDigest(home.sheet) || sentSheets(home.state).includes(r.sheet);
  if (!known) return err({ code: 'other_version', sheet: r.sheet.slice(0, 8) });
  const odd = oddity(r);
  if (odd) return err(odd);
  const mark = contentMark(r);
  if (factsOf(home.state, 'fit.sheet_back').some((f) => cameWith(f.value, mark)))
    return laterRemarks(r, home);
  return factsFrom(r, home);
}

/** Whether a fact is of a sheet that came back with this content. Earlier makes wrote "sheet mark 12 of 59 steps". */
const cameWith = (value: Said, mark: string): boolean =>
  typeof value === 'string' ? value.includes(mark) : asStructured('sheet', value)?.content === mark;

/** What no fitter can have done: nothing at all, a step twice, two steps at one place, on a day that is none. */
function oddity(r: SheetReturn): ReturnError | undefined {
  if (r.steps.length === 0) return { code: 'empty' };
  if (r.day !== '' && !isDay(r.day)) return { code: 'no_day', day: r.day };
  const ids = new Set<string>();
  const places = new Map<number, string>();
  for (const s of r.steps) {
    if (ids.has(s.id)) return { code: 'step_twice', step: s.id };
    ids.add(s.id);
    if (s.place === undefined || s.state === 'skipped') continue;
    if (places.has(s.place)) return { code: 'place_twice', step: s.id, place: s.place };
    places.set(s.place, s.id);
  }
  return undefined;
}

/** The same answers again bring only the remarks that were not there: somebody wrote them after the code had been read out. */
function laterRemarks(r: SheetReturn, home: Home): Result<ReturnedSheet, ReturnError> {
  const known = new Set(home.sheet.steps.map((s) => s.id));
  const entries = r.steps.flatMap((s): NewFact[] => {
    const about = stepThing(s.id);
    return s.note && known.has(s.id) && textOf(home.state, 'step.note', about) !== s.note
      ? [{ about, key: 'step.note', value: s.note, how: 'reported' }]
      : [];
  });
  return entries.length === 0 ? err({ code: 'twice' }) : ok({ entries, steps: entries.length });
}

/** The same for the same answers, whether they came as a file or as a code. */
const contentMark = (r: SheetReturn): string =>
  contentDigest(r.steps.map((s) => [s.id, s.state, s.place ?? 0, s.values ?? {}, s.tool ?? ''])).slice(0, 24);

/** Case that a returned file or code is of: its id, or the short mark of one. */
export function returnedTo(text: string): { id: string } | { mark: string } | undefined {
  if (looksLikeCode(text)) {
    const head = headOfCode(text);
    return head.ok ? { mark: head.value.case } : undefined;
  }
  const read = fromJson(text);
  return read.ok ? { id: read.value.case } : undefined;
}

function fromJson(text: string): Result<SheetReturn, ReturnError> {
  const parsed = parseJson(text);
  if (!parsed.ok) return err({ code: 'cut', line: parsed.error.line });
  const read = ReturnSchema.safeParse(parsed.value);
  if (!read.success) {
    const [i] = read.error.issues;
    return err({ code: 'shape', place: must(i).path.map(String).join('.'), detail: must(i).message });
  }
  const { check, ...rest } = read.data;
  return checkOf(rest) === check ? ok(read.data) : err({ code: 'edited' });
}

/** A code tells states, places and figures by number: it is read with the very sheet that it was made of. */
function fromCode(text: string, { caseId, sheet }: Home): Result<SheetReturn, ReturnError> {
  const head = headOfCode(text);
  if (!head.ok) return head;
  if (head.value.case !== caseMark(caseId, head.value.case.length))
    return err({ code: 'other_case', tag: '' });
  const digest = sheetDigest(sheet);
  if (head.value.sheet !== digest.slice(0, 8)) return err({ code: 'other_version', sheet: head.value.sheet });
  const read = readCode(text, sheetQuestions(sheet.steps));
  if (!read.ok) return read;
  const steps = sheet.steps.flatMap((s, i): SheetReturn['steps'] => {
    const a = nth(read.value.steps, i);
    if (!a.state) return [];
    const values = Object.fromEntries(
      (s.proof?.asks ?? []).flatMap((q, k) => (a.values[k] === undefined ? [] : [[q.id, a.values[k]]])),
    );
    const tool = a.instead === undefined ? undefined : s.tool?.instead?.[a.instead]?.name;
    return [
      { id: s.id, state: a.state, values, ...(tool ? { tool } : {}), ...(a.place ? { place: a.place } : {}) },
    ];
  });
  const rest = {
    format: RETURN_FORMAT,
    formatVersion: 1 as const,
    case: caseId,
    tag: '',
    sheet: digest,
    fitter: '',
    day: '',
    steps: placed(steps),
  } satisfies Omit<SheetReturn, 'check'>;
  return ok({ ...rest, check: checkOf(rest) });
}

/** Codes give a place only to what was moved; in a file every step done has one. */
function placed(steps: SheetReturn['steps']): SheetReturn['steps'] {
  const done = steps.filter((s) => s.state !== 'skipped');
  const order = done.filter((s) => s.place === undefined).map((s) => s.id);
  for (const s of done.filter((x) => x.place !== undefined).sort((a, b) => must(a.place) - must(b.place)))
    order.splice(must(s.place) - 1, 0, s.id);
  return steps.map((s) => (s.state === 'skipped' ? s : { ...s, place: order.indexOf(s.id) + 1 }));
}

/** Digests of the sheets that were sent for a case. Earlier makes wrote "digest 59 steps". */
export const sentSheets = (state: State): string[] =>
  factsOf(state, 'fit.sheet_sent').flatMap(({ value }) =>
    typeof value === 'string' ? (value.split(' ')[0] ?? []) : (asStructured('sheet', value)?.sheet ?? []),
  );

/** The fact that a sheet was sent. */
export const sentEntry = (sheet: Sheet, how: string): NewFact => ({
  key: 'fit.sheet_sent',
  value: { is: 'sheet', sheet: sheetDigest(sheet), steps: sheet.steps.length, of: sheet.steps.length },
  how: 'decided',
  note: how,
  series: 'sheets',
});

function factsFrom(r: SheetReturn, { sheet }: Home): Result<ReturnedSheet, ReturnError> {
  const byId = new Map(sheet.steps.map((s) => [s.id, s]));
  const known = r.steps.filter((s) => byId.has(s.id));
  if (r.sheet === sheetDigest(sheet) && known.length < r.steps.length)
    return err({ code: 'step_unknown', step: must(r.steps.find((s) => !byId.has(s.id))).id });
  const order = known
    .filter((s) => s.state !== 'skipped')
    .sort((a, b) => (a.place ?? Infinity) - (b.place ?? Infinity))
    .map((s) => s.id);
  const moved = movedIn(
    sheet.steps.map((s) => s.id),
    order,
  );
  const entries: NewFact[] = [
    {
      key: 'fit.sheet_back',
      value: {
        is: 'sheet',
        sheet: r.sheet.slice(0, 12),
        content: contentMark(r),
        steps: known.length,
        of: sheet.steps.length,
      },
      how: 'document',
      series: 'sheets',
      ...(r.fitter || r.day ? { note: [r.fitter, r.day].filter(Boolean).join(', ') } : {}),
    },
    { key: 'claim.sheet', value: 'yes', how: 'document' },
  ];
  for (const s of known) {
    const step = must(byId.get(s.id));
    const about = stepThing(s.id);
    const say = (key: string, value: NewFact['value']) =>
      entries.push({ about, key, value, how: 'reported' });
    say('step.done', s.state);
    if (moved.has(s.id)) say('step.place', must(moved.get(s.id)));
    if (s.tool) say('step.tool', s.tool);
    if (s.note) say('step.note', s.note);
    for (const [id, value] of Object.entries(s.values ?? {})) {
      const ask = step.proof?.asks.find((a) => a.id === id);
      if (!ask) return err({ code: 'step_unknown', step: `${s.id} ${id}` });
      if (!isPossible(ask, value)) return err({ code: 'impossible', step: s.id, value });
      say(askKey(ask), inBase(ask, value));
      if (ask.key !== undefined) entries.push({ key: ask.key, value, how: 'reported' });
    }
  }
  return ok({ entries, steps: known.length });
}
