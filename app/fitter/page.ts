/**
 * What makes a fitting sheet answer on a telephone, from disk, without a network. Bundled by itself and put into the file.
 * It keeps what is entered, tells the order in which steps were confirmed, and gives it back with a check sum.
 */
import { found } from '@core/quantity/must';
import qrcode from 'qrcode-generator';
import { contentDigest } from '@core/facts/digest';
import { readNumber } from '@core/quantity/parse-quantity';
import { movedIn } from '@core/fitting/moved';
import { writeCode } from '@core/fitting/sheet-code';

type Went = 'done' | 'skipped' | 'wrong';
type Entry = { went?: Went; values: Record<string, number>; tool?: number; note?: string };
type Sheet = {
  case: string;
  tag: string;
  sheet: string;
  day: string;
  steps: { id: string; asks: { id: string; from?: number; to?: number }[]; instead: string[] }[];
};
type Kept = { fitter: string; order: string[]; entries: Record<string, Entry> };

const sheet = JSON.parse(found(document.getElementById('sheet')).textContent) as Sheet;
const KEY = `fitting-sheet-${sheet.sheet.slice(0, 16)}-${sheet.case}`;
const state: Kept = { fitter: '', order: [], entries: {} };
const part = <T extends Element>(root: ParentNode, selector: string): T =>
  found(root.querySelector<T>(selector));
const fitter = part<HTMLInputElement>(document, '#fitter');

function entryOf(id: string): Entry {
  return (state.entries[id] ??= { values: {} });
}

function keep(): void {
  try {
    localStorage.setItem(KEY, JSON.stringify(state));
  } catch {
    part(document, '#keeps').textContent =
      'This browser does not keep what you enter: leave this page open until you have sent it back.';
  }
}

/** What was entered before, when the page is opened again. */
function recall(): void {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(KEY) ?? 'null');
    if (kept !== null) take(kept);
  } catch {
    part(document, '#keeps').textContent =
      'What this browser had kept of the sheet cannot be read: enter it again. The sheet itself is whole.';
  }
}

const isObject = (x: unknown): x is Record<string, unknown> =>
  typeof x === 'object' && x !== null && !Array.isArray(x);

/** Of what was kept, all that can be an entry of this sheet; the rest is left, so that nothing damaged stops it. */
function take(kept: unknown): void {
  if (!isObject(kept)) return;
  const ids = new Set(sheet.steps.map((s) => s.id));
  if (typeof kept['fitter'] === 'string') state.fitter = kept['fitter'].slice(0, 120);
  if (Array.isArray(kept['order']))
    state.order = [
      ...new Set(kept['order'].filter((id): id is string => typeof id === 'string' && ids.has(id))),
    ];
  if (!isObject(kept['entries'])) return;
  for (const s of sheet.steps) {
    const e = kept['entries'][s.id];
    if (!isObject(e)) continue;
    const entry = entryOf(s.id);
    if (e['went'] === 'done' || e['went'] === 'skipped' || e['went'] === 'wrong') entry.went = e['went'];
    if (typeof e['note'] === 'string') entry.note = e['note'].slice(0, 1000);
    if (typeof e['tool'] === 'number' && s.instead[e['tool']] !== undefined) entry.tool = e['tool'];
    if (isObject(e['values']))
      for (const a of s.asks) {
        const v = e['values'][a.id];
        if (typeof v === 'number' && Number.isFinite(v)) entry.values[a.id] = v;
      }
    if (entry.went && !state.order.includes(s.id)) state.order.push(s.id);
  }
}

const doneSteps = (): string[] =>
  state.order.filter((id) => {
    const went = state.entries[id]?.went;
    return went === 'done' || went === 'wrong';
  });

function answers() {
  const order = doneSteps();
  return sheet.steps.flatMap((s) => {
    const e = state.entries[s.id];
    if (!e?.went) return [];
    const place = order.indexOf(s.id) + 1;
    const tool = e.tool === undefined ? undefined : s.instead[e.tool];
    return [
      {
        id: s.id,
        state: e.went,
        ...(place > 0 ? { place } : {}),
        ...(Object.keys(e.values).length > 0 ? { values: e.values } : {}),
        ...(tool ? { tool } : {}),
        ...(e.note ? { note: e.note } : {}),
      },
    ];
  });
}

function file(): string {
  const rest = {
    format: 'hollow-sprocket-sheet',
    formatVersion: 1,
    case: sheet.case,
    tag: sheet.tag,
    sheet: sheet.sheet,
    fitter: state.fitter,
    day: new Intl.DateTimeFormat('sv-SE').format(Date.now()),
    steps: answers(),
  };
  return `${JSON.stringify({ ...rest, check: contentDigest(rest) }, null, 1)}\n`;
}

function code(): string {
  const moved = movedIn(
    sheet.steps.map((s) => s.id),
    doneSteps(),
  );
  return writeCode(
    {
      sheet: sheet.sheet,
      case: contentDigest(sheet.case),
      steps: sheet.steps.map((s) => {
        const e = state.entries[s.id];
        return {
          state: e?.went,
          place: moved.get(s.id),
          values: s.asks.map((a) => e?.values[a.id]),
          instead: e?.tool,
        };
      }),
    },
    sheet.steps.map((s) => ({ asks: s.asks.length, instead: s.instead.length })),
  );
}

function paint(): void {
  const order = doneSteps();
  let open = 0;
  for (const s of sheet.steps) {
    const article = part<HTMLElement>(document, `article[data-step="${s.id}"]`);
    const e = state.entries[s.id];
    if (e?.went) article.dataset['went'] = e.went;
    else {
      delete article.dataset['went'];
      open++;
    }
    const place = order.indexOf(s.id) + 1;
    part<HTMLElement>(article, '.place').hidden = place === 0;
    part<HTMLInputElement>(article, '[data-place]').value = place > 0 ? String(place) : '';
  }
  part(document, '#bar').textContent = `${sheet.steps.length - open} of ${sheet.steps.length} steps answered`;
  part(document, '#left').textContent =
    open === 0
      ? 'Every step is answered.'
      : `${open} steps are not answered. What is not answered is no evidence of anything.`;
  const text = code();
  part(document, '#code').textContent = text;
  const qr = qrcode(0, 'M');
  qr.addData(text.replace(/ /g, ''), 'Alphanumeric');
  qr.make();
  part(document, '#qr').innerHTML = qr.createSvgTag({ scalable: true, margin: 8 });
}

function changed(): void {
  keep();
  paint();
}

function wire(): void {
  sheet.steps.forEach((s, i) => {
    const article = part<HTMLElement>(document, `article[data-step="${s.id}"]`);
    const e = entryOf(s.id);
    for (const radio of article.querySelectorAll<HTMLInputElement>(`[name="s${i + 1}"]`)) {
      radio.checked = radio.value === e.went;
      radio.addEventListener('change', () => {
        entryOf(s.id).went = radio.value as Went;
        if (!state.order.includes(s.id)) state.order.push(s.id);
        changed();
      });
    }
    for (const radio of article.querySelectorAll<HTMLInputElement>(`[name="t${i + 1}"]`)) {
      radio.checked = radio.value === (e.tool === undefined ? '' : String(e.tool));
      radio.addEventListener('change', () => {
        if (radio.value === '') delete entryOf(s.id).tool;
        else entryOf(s.id).tool = Number(radio.value);
        changed();
      });
    }
    for (const a of s.asks) {
      const box = part<HTMLInputElement>(article, `[data-ask="${a.id}"]`);
      box.value = e.values[a.id] === undefined ? '' : String(e.values[a.id]);
      box.addEventListener('change', () => {
        const v = box.value.trim() === '' ? undefined : readNumber(box.value);
        box.setAttribute('aria-invalid', String(v === undefined && box.value.trim() !== ''));
        if (v === undefined) Reflect.deleteProperty(entryOf(s.id).values, a.id);
        else entryOf(s.id).values[a.id] = v;
        changed();
      });
    }
    const note = part<HTMLTextAreaElement>(article, '[data-note]');
    note.value = e.note ?? '';
    note.addEventListener('change', () => {
      if (note.value.trim()) entryOf(s.id).note = note.value.trim();
      else delete entryOf(s.id).note;
      changed();
    });
    const place = part<HTMLInputElement>(article, '[data-place]');
    place.addEventListener('change', () => {
      const n = Number(place.value);
      const order = doneSteps().filter((id) => id !== s.id);
      if (Number.isInteger(n) && n >= 1) order.splice(Math.min(n, order.length + 1) - 1, 0, s.id);
      else order.push(s.id);
      state.order = [...order, ...state.order.filter((id) => !order.includes(id))];
      changed();
    });
  });
  fitter.value = state.fitter;
  fitter.addEventListener('change', () => {
    state.fitter = fitter.value.trim();
    changed();
  });
  part(document, '#save').addEventListener('click', () => {
    const link = document.createElement('a');
    link.href = URL.createObjectURL(new Blob([file()], { type: 'application/json' }));
    link.download = `filled-sheet-${sheet.tag}.json`;
    link.click();
    setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
  });
}

recall();
wire();
paint();
