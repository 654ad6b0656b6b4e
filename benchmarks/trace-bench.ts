import { simulateCapture } from '@core/simulate/capture';
import { camOf } from '@core/simulate/capture-box';
import { comparePatterns } from '@core/trace/compare';
import { type Capture, CaptureReader } from '@core/trace/read-capture';
import { readTrace } from '@core/trace/trace';
import { medianMs, type Row } from './measure';

const SAMPLES = 10_000_000;
const CSV_BYTES = 100_000_000;

/** Two channels of so many samples: some minutes of cranking. */
function large(): Capture {
  const rateHz = 50_000;
  const cycles = Math.floor((SAMPLES / rateHz) * 2) - 2;
  const s = simulateCapture({
    seed: 3,
    teeth: Array.from({ length: 60 }, (_, i) => i < 58),
    cam: camOf('bench'),
    late: 0,
    rpm: 240,
    ripple: 0.1,
    cycles,
    rateHz,
    crank: 'square',
    noise: 0.03,
    jitterDeg: 0.05,
  });
  const head = { separator: ',', decimal: '.' as const, timeUnit: 's', units: [], time: undefined };
  const channels = [
    { name: 'crank', samples: s.crank },
    { name: 'cam', samples: s.cam },
  ];
  return { channels, startS: 0, stepS: s.stepS, gaps: [], refused: [], head };
}

/** Edges, clock and comparison against one plain pass; reading a large table against splitting it into lines. */
export function traceBench(): Row[] {
  const capture = large();
  const answer = () => {
    const t = readTrace(capture);
    const p = t.ok ? t.value.cams[0]!.pattern : undefined;
    if (!p) throw new Error('the capture was not read');
    return comparePatterns(p, p);
  };
  const plain = () =>
    capture.channels.map(({ samples }) => {
      let total = 0;
      let i = samples.length;
      while (i-- > 0) total += samples[i]!;
      return total;
    });
  const [mine, pass] = [medianMs(answer, 5), medianMs(plain, 5)];
  const line = '0.123456,2.3456,-1.2345\n';
  const rows = Math.floor(CSV_BYTES / line.length);
  const begin = 'Time (s),Crank (V),Cam (V)\n';
  const table = new Uint8Array(begin.length + rows * line.length);
  const encoder = new TextEncoder();
  table.set(encoder.encode(begin));
  for (let i = 0, at = begin.length; i < rows; i++, at += line.length)
    table.set(encoder.encode(`${(i * 1e-5).toFixed(6).padStart(8, '0').slice(0, 8)},2.3456,-1.2345\n`), at);
  const piece = 1 << 20;
  const read = () => {
    const reader = new CaptureReader();
    for (let i = 0; i < table.length; i += piece) reader.push(table.subarray(i, i + piece));
    const out = reader.finish();
    if (!out.ok) throw new Error(out.error.code);
    return out;
  };
  const split = () => new TextDecoder().decode(table).split('\n').length;
  const [reading, splitting] = [medianMs(read, 3), medianMs(split, 3)];
  return [
    {
      name: `Edges, clock and comparison, 2 × ${(capture.channels[0]!.samples.length / 1e6).toFixed(1)} million samples`,
      value: `${mine.toFixed(0)} ms`,
      target: '< 2×',
      baseline: `summing the same arrays: ${pass.toFixed(0)} ms`,
      ratio: `${(mine / pass).toFixed(1)}×`,
    },
    {
      name: `A table of ${(table.length / 1e6).toFixed(0)} MB read`,
      value: `${reading.toFixed(0)} ms`,
      target: '< 1.3×',
      baseline: `splitting it into lines: ${splitting.toFixed(0)} ms`,
      ratio: `${(reading / splitting).toFixed(1)}×`,
    },
  ];
}
