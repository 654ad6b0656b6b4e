import type { Page } from '@playwright/test';
import type { Row } from './measure';

export type Frames = { frames: number; ms: number; late: number; longest: number };

/** Counts frames and long tasks in the page while something is done to it. */
export async function watch(page: Page, act: () => Promise<void>): Promise<Frames> {
  await page.evaluate(() => {
    const w = window as unknown as { hs: { times: number[]; long: number[]; on: boolean } };
    const mine = { times: [] as number[], long: [] as number[], on: true };
    w.hs = mine;
    new PerformanceObserver((list) => {
      for (const e of list.getEntries()) if (mine.on) mine.long.push(e.duration);
    }).observe({ entryTypes: ['longtask'] });
    const tick = (t: number) => {
      mine.times.push(t);
      if (mine.on) requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);
  });
  await act();
  return page.evaluate(() => {
    const { hs } = window as unknown as { hs: { times: number[]; long: number[]; on: boolean } };
    hs.on = false;
    const ms = (hs.times.at(-1) ?? 0) - (hs.times[0] ?? 0);
    return { frames: hs.times.length - 1, ms, late: hs.long.length, longest: Math.max(0, ...hs.long) };
  });
}

const rate = (f: Frames) => (f.frames / f.ms) * 1000;

/** Lets the page be for so many frames. */
export const idle = (page: Page, frames: number) =>
  page.evaluate(async (n) => {
    for (let k = 0; k < n; k++) await new Promise(requestAnimationFrame);
  }, frames);

export function asRow(name: string, f: Frames, base: Frames, target: string): Row {
  return {
    name,
    value: `${rate(f).toFixed(0)} fps`,
    target,
    baseline: `idle page ${rate(base).toFixed(0)} fps; tasks over 50 ms: ${f.late}, longest ${f.longest.toFixed(0)} ms`,
    ratio: `${(rate(f) / rate(base)).toFixed(2)}×`,
  };
}
