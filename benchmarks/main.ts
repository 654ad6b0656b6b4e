import { resolve } from 'node:path';
import { isMainThread, workerData } from 'node:worker_threads';
import { CAPTURE_THREAD, serveCaptures } from '../server/capture-threads';
import { answerBench } from './answer-bench';
import { catalogueBench } from './catalogue-bench';
import { causeBench } from './cause-bench';
import { deskBench } from './desk-bench';
import { benchLayoutFile, driveBench } from './drive-bench';
import { examineBench } from './examine-bench';
import { handBench } from './hand-bench';
import { intakeBench } from './intake-bench';
import { loadBench } from './load-bench';
import { traceBench } from './trace-bench';
import { traceScreenBench } from './trace-screen-bench';
import { print } from './measure';
import { screenBench } from './screen-bench';
import { sheetBench } from './sheet-bench';

const root = resolve('dist/app');
const BENCHES = {
  drive: driveBench,
  catalogue: catalogueBench,
  answers: answerBench,
  cause: causeBench,
  intake: intakeBench,
  sheet: () => sheetBench(root),
  load: () => loadBench(root),
  screen: () => screenBench(root, benchLayoutFile()),
  trace: async () => [...traceBench(), ...(await traceScreenBench(root))],
  examine: () => examineBench(root),
  hand: () => handBench(root),
  desk: () => deskBench(root),
};
async function run(): Promise<void> {
  // npm run bench -- desk answers: only those
  const wanted = process.argv.slice(2).filter((a) => a in BENCHES);
  console.log('Medians on this machine, now; the ratio is what compares across machines.\n');
  for (const [name, bench] of Object.entries(BENCHES))
    if (wanted.length === 0 || wanted.includes(name)) print(await bench());
}

// The server makes captures in a thread of the very program that it runs in.
if (!isMainThread && workerData === CAPTURE_THREAD) serveCaptures();
else await run();
