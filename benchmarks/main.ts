import { existsSync } from 'node:fs';
import { resolve } from 'node:path';
import { isMainThread, workerData } from 'node:worker_threads';
import { CAPTURE_THREAD, serveCaptures } from '../server/capture-threads';
import { answerBench } from './answer-bench';
import { catalogueBench } from './catalogue-bench';
import { causeBench } from './cause-bench';
import { claimsBench } from './claims-bench';
import { deskBench } from './desk-bench';
import { benchLayoutFile, driveBench } from './drive-bench';
import { examineBench } from './examine-bench';
import { feltBench } from './felt-bench';
import { handBench } from './hand-bench';
import { corpusBench, intakeBench } from './intake-bench';
import { loadBench } from './load-bench';
import { joinBench } from './shelf-join-bench';
import { generatedPairs, pairsBench } from './pairs-bench';
import { traceBench } from './trace-bench';
import { traceScreenBench } from './trace-screen-bench';
import { print } from './measure';
import { patternsBench } from './patterns-bench';
import { practiceBench } from './practice-bench';
import { screenBench } from './screen-bench';
import { settleBench } from './settle-bench';
import { shelfBench } from './shelf-bench';
import { NEWS_THREAD, newsRow, serveDesks } from './shelf-news-bench';
import { sheetBench } from './sheet-bench';
import { storiesBench } from './stories-bench';

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
  pairs: generatedPairs,
  hand: () => handBench(root),
  felt: () => feltBench(root),
  desk: () => deskBench(root),
  claims: claimsBench,
  settle: () => settleBench(root),
  patterns: patternsBench,
  practice: practiceBench,
  shelf: () => shelfBench(root),
  'shelf-join': () => joinBench(root),
  'shelf-news': async () => [await newsRow(root)],
};
/** Minutes long: only when it is named. */
const LONG = new Set(['pairs', 'shelf-join', 'shelf-news']);
async function run(): Promise<void> {
  // npm run bench -- desk answers: only those
  const wanted = process.argv.slice(2).filter((a) => a in BENCHES);
  // npm run bench -- trace some/folder: a folder of captures whose truth is known; cause some/stories.json: stories; intake some/messages.json: labelled messages
  const folder = process.argv.slice(2).find((a) => !(a in BENCHES) && existsSync(a));
  if (folder?.endsWith('.json'))
    return print(process.argv.includes('intake') ? corpusBench(folder) : storiesBench(folder));
  if (folder !== undefined) return print(pairsBench(folder));
  console.log('Medians on this machine, now; the ratio is what compares across machines.\n');
  for (const [name, bench] of Object.entries(BENCHES))
    if (wanted.includes(name) || (wanted.length === 0 && !LONG.has(name))) print(await bench());
}

// The server makes captures in a thread of the very program that it runs in.
if (!isMainThread && workerData === CAPTURE_THREAD) serveCaptures();
else if (!isMainThread && workerData === NEWS_THREAD) serveDesks();
else await run();
