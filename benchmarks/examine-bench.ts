import { chromium, type Page } from '@playwright/test';
import { readdirSync } from 'node:fs';
import { damageSpacing } from '@core/examination/spacing';
import { flatFrame, flatten } from '@core/examination/flatten';
import { randomFrom } from '@core/quantity/random';
import { launch } from '../e2e/browser';
import { serve } from '../server/serve';
import { watch } from './frames';
import { compare, medianMs, type Row } from './measure';

const [FACTS, PHOTOS] = [300, 40];
const PORT = 4394;

/** Sixty marks on a belt, twelve wheels: scattered ones, and ones of which a third repeat with a wheel. */
function spacingRows(): Row[] {
  const wheels = [18, 19, 20, 21, 22, 23, 36, 38, 40, 42, 44, 48].map((teeth) => ({
    id: `w${teeth}`,
    name: `W${teeth}`,
    teeth,
  }));
  const random = randomFrom(7);
  const scattered = (n: number) => {
    const out = new Set<number>();
    while (out.size < n) out.add(1 + Math.floor(random() * 211));
    return [...out];
  };
  const plain = scattered(60);
  const repeated = [
    ...new Set([...Array.from({ length: 20 }, (_, k) => ((4 + k * 21) % 211) + 1), ...scattered(60)]),
  ].slice(0, 60);
  // What the search is made of at the least: as many marks laid in bins, as often, for as many counts and laps.
  const bins = new Uint16Array(64);
  const base = () => {
    for (let k = 0; k < 999; k++)
      for (const { teeth } of wheels)
        for (let lap = 0; lap < 3; lap++) for (const p of plain) bins[(p + lap * 211) % teeth]!++;
  };
  return [
    compare(
      'Spacing of 60 scattered marks, 12 wheels',
      () => damageSpacing(plain, 211, wheels),
      'laying them in bins',
      base,
      '< 50 ms',
    ),
    compare(
      'The same where a third repeats with a wheel',
      () => damageSpacing(repeated, 211, wheels),
      'laying them in bins',
      base,
      '< 50 ms',
    ),
  ];
}

/** A picture of 12 million pixels laid flat. */
function flattenRow(): Row {
  const size = { width: 4000, height: 3000 };
  const rgba = new Uint8ClampedArray(4 * size.width * size.height).map((_, i) => i % 251);
  const corners = [
    { x: 900, y: 700 },
    { x: 3000, y: 820 },
    { x: 2900, y: 2300 },
    { x: 1000, y: 2200 },
  ];
  const frame = flatFrame(size, corners, { width: 100, height: 70 }, 12e6)!;
  const mine = medianMs(() => flatten(rgba, size, frame), 5);
  const copy = medianMs(() => rgba.slice(), 5);
  return {
    name: `A photograph of 12 MP laid flat, ${((frame.width * frame.height) / 1e6).toFixed(1)} MP`,
    value: `${mine.toFixed(0)} ms`,
    target: '< 600 ms',
    baseline: `copying its pixels: ${copy.toFixed(1)} ms`,
    ratio: `${(mine / copy).toFixed(0)}×`,
  };
}

/** Puts a case with so many facts and photographs in the records of the page. */
const fill = (page: Page, hashes: readonly string[]) =>
  page.evaluate(
    async ({ hashes, facts, photos }) => {
      const db = await new Promise<IDBDatabase>((done) => {
        const opening = indexedDB.open('hollow-sprocket');
        opening.onsuccess = () => done(opening.result);
      });
      const own: Record<string, unknown>[] = await new Promise((done) => {
        const all = db
          .transaction('facts')
          .objectStore('facts')
          .getAll(IDBKeyRange.bound(['demo-2033'], ['demo-2033', []]));
        all.onsuccess = () => done(all.result as Record<string, unknown>[]);
      });
      const blobs: Blob[] = [];
      for (let k = 0; k < photos; k++) {
        const bytes = await (await fetch(`photos/${hashes[k % hashes.length]!}.png`)).arrayBuffer();
        // bytes behind the end of a PNG make it another file of the same picture
        blobs.push(new Blob([bytes, new Uint8Array([k])], { type: 'image/png' }));
      }
      const tx = db.transaction(['facts', 'files'], 'readwrite');
      const at = (k: number) => new Date(Date.UTC(2026, 10, 25) + k * 60_000).toISOString();
      let last: string | undefined;
      for (let k = own.length; k < facts; k++) {
        const photo = k >= facts - photos ? facts - 1 - k : undefined;
        const id = `demo-2033-x${k}`;
        const hash = photo === undefined ? '' : photo.toString(16).padStart(64, '0');
        const fact: Record<string, unknown> = {
          id,
          case: 'demo-2033',
          how: 'reported',
          by: 'Ida Fennimore',
          at: at(k),
        };
        if (photo === undefined) {
          Object.assign(fact, {
            key: 'vehicle.odometer',
            value: 141_300 + k,
            ...(last ? { supersedes: last } : {}),
          });
          last = id;
        } else {
          const name = `photo ${photo}.png`;
          const file = { hash, name, type: 'image/png', bytes: blobs[photo]!.size };
          Object.assign(fact, {
            key: 'thing.file',
            about: 'tensioner',
            value: name,
            files: [file],
            series: 'files',
          });
          tx.objectStore('files').put({ sha256: hash, name, type: 'image/png', blob: blobs[photo] });
        }
        tx.objectStore('facts').put(fact);
      }
      await new Promise((done) => (tx.oncomplete = done));
      db.close();
    },
    { hashes, facts: FACTS, photos: PHOTOS },
  );

/** Milliseconds from the press on a tag of the rack to the case painted, and from there to its bench. */
const openCase = (page: Page, id: string) =>
  page.evaluate(async (name) => {
    const painted = async (until: () => boolean) => {
      while (!until()) await new Promise((rest) => setTimeout(rest));
      await new Promise(requestAnimationFrame);
      await new Promise(requestAnimationFrame);
    };
    const tag = () => document.querySelector('hs-case-page h1')?.textContent ?? '';
    const before = tag();
    const t = performance.now();
    document.querySelector<HTMLElement>(`hs-rack a[href*="${name}"]`)!.click();
    await painted(() => tag() !== before && document.querySelector('hs-call-page') !== null);
    const opened = performance.now() - t;
    document.querySelector<HTMLElement>('nav[aria-label=Stations] a[href$="/examine"]')!.click();
    await painted(() => document.querySelector('hs-look-panel') !== null);
    return [opened, performance.now() - t - opened] as const;
  }, id);

export async function examineBench(root: string): Promise<Row[]> {
  const started = await serve({ root, port: PORT, host: '127.0.0.1', demo: true });
  if (!started.ok) throw new Error(started.error.code);
  const browser = await chromium.launch(launch);
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    const url = `http://127.0.0.1:${PORT}`;
    await page.goto(`${url}/case/demo-2036/examine`);
    await page.locator('hs-look-panel').waitFor();
    await fill(
      page,
      readdirSync('demo/photos').map((f) => f.replace('.png', '')),
    );
    await page.goto(`${url}/case/demo-2036/examine`);
    await page.locator('hs-look-panel').waitFor();
    const [small, large, benches]: [number[], number[], number[]] = [[], [], []];
    for (let k = 0; k < 7; k++) {
      const [opened, bench] = await openCase(page, 'demo-2033');
      large.push(opened);
      benches.push(bench);
      small.push((await openCase(page, 'demo-2027'))[0]);
    }
    const middle = (xs: number[]) => [...xs].sort((a, b) => a - b)[Math.floor(xs.length / 2)]!;
    // a dial gauge of ten readings a second at five times its pace, drawn as it comes
    await page.goto(`${url}/case/demo-2036/examine?instruments=leak%3D0.03%26pace%3D5`);
    await page.getByRole('tab', { name: /^Tensioner/ }).click();
    await page.locator('[data-row="tensioner.leak_series"] button').click();
    await page.getByRole('button', { name: 'It can no longer be read' }).click();
    await page.getByRole('button', { name: 'Load is on: record' }).click();
    await page.locator('hs-series-chart canvas').waitFor();
    const drawn = await watch(page, () => page.waitForTimeout(8000));
    return [
      ...spacingRows(),
      flattenRow(),
      {
        name: `A case of ${FACTS} facts and ${PHOTOS} photographs opened (then its bench)`,
        value: `${middle(large).toFixed(0)} ms (${middle(benches).toFixed(0)} ms)`,
        target: '< 500 ms',
        baseline: `a case of 38 facts: ${middle(small).toFixed(0)} ms`,
        ratio: `${(middle(large) / middle(small)).toFixed(1)}×`,
      },
      {
        name: 'A live leak-down at 50 readings a second, drawn for 8 s',
        value: `${((drawn.frames / drawn.ms) * 1000).toFixed(0)} fps`,
        target: 'no task > 50 ms',
        baseline: `long tasks: ${drawn.late}, longest ${drawn.longest.toFixed(0)} ms`,
        ratio: `${drawn.late}`,
      },
    ];
  } finally {
    await browser.close();
    started.server.closeAllConnections();
    started.server.close();
  }
}
