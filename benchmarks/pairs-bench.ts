import { readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import * as z from 'zod';
import { compareTraces } from '@core/trace/compare';
import { readPair } from '@core/trace/pairs.fixture';
import { CaptureReader } from '@core/trace/read-capture';
import { readTrace, type Trace } from '@core/trace/trace';
import { readWheel } from '@core/trace/wheel';
import type { Row } from './measure';

/** What a folder of pairs says of each: its two files, the wheel, and how far the cam stands off; advance is positive. */
const PairSchema = z.object({
  id: z.string(),
  crank_wheel: z.string(),
  crank_sensor: z.string(),
  cam_sensor: z.string(),
  visible_offset_crank_deg: z.number(),
  identifiable_modulo_crank_deg: z.number(),
  tooth_deg: z.number(),
  test_file: z.string(),
  good_file: z.string(),
});
type Pair = z.infer<typeof PairSchema>;

/** As near as a reading has to come, degrees. */
const NEAR = 0.25;

type Outcome = { kind: 'refused'; code: string } | { kind: 'read'; off: number; half: number; wheel: string };

/** Every file of a folder by its name, wherever it lies. */
function filesIn(dir: string, found = new Map<string, string>()): Map<string, string> {
  for (const name of readdirSync(dir)) {
    const path = join(dir, name);
    if (statSync(path).isDirectory()) filesIn(path, found);
    else found.set(name, path);
  }
  return found;
}

function read(path: string, wheel: string | undefined): Trace | string {
  const reader = new CaptureReader();
  reader.push(readFileSync(path));
  const capture = reader.finish();
  if (!capture.ok) return capture.error.code;
  const named = wheel === undefined ? undefined : readWheel(wheel);
  const trace = readTrace(capture.value, named?.ok ? named.value : undefined);
  if (!trace.ok)
    return 'error' in trace.error ? `${trace.error.code} ${trace.error.error.code}` : trace.error.code;
  return trace.value;
}

const wrapped = (d: number, period: number) => ((((d + period / 2) % period) + period) % period) - period / 2;

function outcomeOf(pair: Pair, files: Map<string, string>, told: boolean): Outcome {
  const [test, good] = [pair.test_file, pair.good_file].map((f) =>
    read(files.get(f) ?? f, told ? pair.crank_wheel : undefined),
  ) as [Trace | string, Trace | string];
  if (typeof test === 'string') return { kind: 'refused', code: test };
  if (typeof good === 'string') return { kind: 'refused', code: good };
  const shift = compareTraces(test, 0, good, 0);
  if (!shift.ok) return { kind: 'refused', code: shift.error.code };
  // Late is positive here, advance in the folder.
  const off = wrapped(shift.value.deg + pair.visible_offset_crank_deg, pair.identifiable_modulo_crank_deg);
  return {
    kind: 'read',
    off,
    half: (shift.value.high - shift.value.low) / 2,
    wheel: test.clock.wheel.notation,
  };
}

const GENERATED = 2000;
/** Pairs of stand-ins, told their wheel: how near they are read, and how often the interval holds. */
export function generatedPairs(): Row[] {
  const all = Array.from({ length: GENERATED }, (_, k) => readPair(k, true));
  const groups = [
    ['all', all] as const,
    ...groupsOf(all, (p) => p.sensors),
    ...groupsOf(all, (p) => p.wheel),
  ];
  return groups.map(([name, some]): Row => {
    const read = some.flatMap((p) => (p.read ? [p] : []));
    const rms = (of: (p: (typeof read)[number]) => number) =>
      Math.sqrt(read.reduce((t, p) => t + of(p) ** 2, 0) / read.length);
    const held = read.filter((p) => Math.abs(p.off) <= p.half).length / read.length;
    return {
      name: `Pairs of stand-ins: ${name}`,
      value: `${some.length - read.length} of ${some.length} refused`,
      target: '93 to 97 %',
      baseline: `rms ${rms((p) => p.off).toFixed(3)}°, ${rms((p) => p.off / (p.half / 2)).toFixed(2)} of the stated uncertainty, ${read.filter((p) => p.falseTooth).length} false teeth`,
      ratio: `${(100 * held).toFixed(1)} %`,
    };
  });
}

function groupsOf<T>(all: readonly T[], key: (x: T) => string): [string, T[]][] {
  const groups = new Map<string, T[]>();
  for (const x of all) groups.set(key(x), [...(groups.get(key(x)) ?? []), x]);
  return [...groups];
}

/** Reads every pair of a folder, told its wheel and told nothing, and prints what is not within bounds. */
export function pairsBench(dir: string): Row[] {
  const files = filesIn(dir);
  const truth = files.get('truth.json');
  if (truth === undefined) throw new Error(`${dir} has no truth.json`);
  const pairs = z.array(PairSchema).parse(JSON.parse(readFileSync(truth, 'utf8')));
  return [true, false].flatMap((told): Row[] => {
    const all = pairs.map((pair) => ({ pair, out: outcomeOf(pair, files, told) }));
    const near = ({ out }: (typeof all)[number]) => out.kind === 'read' && Math.abs(out.off) <= NEAR;
    for (const { pair, out } of all.filter((x) => !near(x)))
      console.log(
        `${told ? 'told' : 'not told'} ${pair.id} ${pair.crank_wheel} ${pair.crank_sensor}/${pair.cam_sensor}: ${
          out.kind === 'read' ? `off ${out.off.toFixed(3)} ± ${out.half.toFixed(3)}, ${out.wheel}` : out.code
        }`,
      );
    const readOnes = all.flatMap(({ pair, out }) => (out.kind === 'read' ? [{ pair, out }] : []));
    const falseTeeth = readOnes.filter(({ pair, out }) => Math.abs(out.off) > pair.tooth_deg / 2).length;
    const covered = readOnes.filter(({ out }) => Math.abs(out.off) <= out.half).length;
    const offs = readOnes.map(({ out }) => Math.abs(out.off)).sort((a, b) => a - b);
    return [
      {
        name: told ? 'Pairs read, told the wheel' : 'Pairs read, told nothing',
        value: `${all.filter(near).length} of ${all.length}`,
        target: `within ${NEAR}°`,
        baseline: `median off ${(offs[offs.length >> 1] ?? NaN).toFixed(3)}°, refused ${all.length - readOnes.length}`,
        ratio: `${falseTeeth} false teeth, interval holds ${covered} of ${readOnes.length}`,
      },
    ];
  });
}
