import { chromium } from '@playwright/test';
import { launch } from '../e2e/browser';
import { Desk } from '../e2e/desk';
import { demoPack } from '../demo/catalogue';
import { catalogueOf, stagesFor } from '@core/catalogue/find-records';
import { brokenGates, wayBack } from '@core/fitting/order';
import { makeSheet } from '@core/fitting/sheet';
import { SHIPPED_POLICY } from '@core/policy/policy';
import { readFileSync } from 'node:fs';
import { serve, stop } from '../server/serve';
import { compare, medianMs, type Row } from './measure';

/** Sheets built and checked, in Node; one set as PDF in the browser's thread, and the size of the file for a telephone. */
export async function sheetBench(root: string): Promise<Row[]> {
  const cat = catalogueOf(demoPack());
  const v = cat.variants.get('TE47-MOOR/A')!;
  const stages = stagesFor(cat, v.layout!);
  const sheet = makeSheet(cat, v, stages, SHIPPED_POLICY);
  const done = sheet.steps.map((s) => s.id);
  const gates = [...sheet.gates, ...sheet.gates.slice(0, 150 - sheet.gates.length)];
  const performed = { done: [...done].reverse(), skipped: new Set<string>() };
  const copy = () => JSON.stringify(sheet.steps);
  const rows: Row[] = [
    compare(
      `Sheet of ${done.length} steps, ${sheet.gates.length} gates built`,
      () => makeSheet(cat, v, stages, SHIPPED_POLICY),
      'writing it as JSON',
      copy,
      '< 10 ms',
    ),
    compare(
      `Order of ${done.length} steps against ${gates.length} gates`,
      () => brokenGates(performed, gates),
      'writing it as JSON',
      copy,
      '< 1 ms',
    ),
    compare(
      'The shortest way back of it',
      () => wayBack(sheet.steps, gates, performed),
      'writing it as JSON',
      copy,
      '< 1 ms',
    ),
  ];
  const started = await serve({ root, port: 4394, host: '127.0.0.1', demo: true });
  if (!started.ok) throw new Error(started.error.code);
  const url = 'http://127.0.0.1:4394';
  const browser = await chromium.launch(launch);
  try {
    const page = await browser.newPage();
    const desk = new Desk(page);
    await desk.open(`${url}/case/demo-2044/fit`);
    const times: number[] = [];
    for (let k = 0; k < 5; k++) {
      const from = performance.now();
      await desk.download(() => page.getByRole('button', { name: /^PDF/ }).click());
      times.push(performance.now() - from);
    }
    times.sort((a, b) => a - b);
    const json = medianMs(copy, 11);
    rows.push({
      name: 'Sheet of 42 steps as PDF, pressed to saved (slowest)',
      value: `${times[2]!.toFixed(0)} ms (${times.at(-1)!.toFixed(0)})`,
      target: '< 1.5 s of 45',
      baseline: `writing it as JSON: ${json.toFixed(2)} ms`,
      ratio: `${(times[2]! / json).toPrecision(2)}×`,
    });
    const html = await desk.download(() => page.getByRole('button', { name: /Sheet for a phone/ }).click());
    const bytes = readFileSync(html.path).length;
    const plain = Buffer.byteLength(copy());
    rows.push({
      name: 'The same for a telephone, one file',
      value: `${(bytes / 1000).toFixed(0)} kB`,
      target: '< 150 kB',
      baseline: `a sheet as JSON: ${(plain / 1000).toFixed(0)} kB`,
      ratio: `${(bytes / plain).toPrecision(2)}×`,
    });
  } finally {
    await browser.close();
    await stop(started);
  }
  return rows;
}
