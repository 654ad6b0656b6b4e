import { compensate } from '@core/drive/compensate';
import { fitCentres } from '@core/drive/fit-centres';
import { moveBanks } from '@core/drive/move';
import { estimateBanks } from '@core/drive/stack-height';
import { extensionRemainder } from '@core/drive/wear';
import { circlesOf, solvePath } from '@core/drive/path';
import type { Layout, Wheel } from '@core/drive/layout';
import { tensionerSettings } from '@core/drive/tensioner';
import { demoPack } from '../demo/catalogue';
import { compare, type Row } from './measure';

/** The first demo layout with toothed wheels added round the cam, so that `n` wheels are solved. */
function withWheels(n: number): Layout {
  const layout = demoPack().layouts[0]!;
  const wheels: Wheel[] = [...layout.wheels];
  const cam = wheels.findIndex((w) => w.id === 'cam');
  const extra: Wheel[] = [];
  for (let k = 0; wheels.length + extra.length < n; k++) {
    extra.push({
      id: `w${k}`,
      name: `Wheel ${k}`,
      role: 'idler',
      x: 90 + 35 * k,
      y: 345 - 18 * k,
      outsideMm: 8,
      side: 1,
      rimMm: 0,
    });
  }
  wheels.splice(cam + 1, 0, ...extra);
  const bare = { ...layout, wheels };
  const path = solvePath(circlesOf(bare), -1);
  if (!path.ok) throw new Error(`bench layout of ${n} wheels: ${JSON.stringify(path.error)}`);
  return { ...bare, count: Math.round(path.value.lengthMm / layout.pitchMm) };
}

/** Second method as the baseline: the same length from 2,000 chords an arc. */
function chords(layout: Layout): number {
  const circles = circlesOf(layout);
  const path = solvePath(circles, -1);
  if (!path.ok) return NaN;
  let length = 0;
  path.value.wraps.forEach((wrap, i) => {
    const { r } = circles[i]!;
    for (let k = 0; k < 2000; k++) {
      const [a, b] = [(wrap * k) / 2000, (wrap * (k + 1)) / 2000];
      length += Math.hypot(r * (Math.cos(b) - Math.cos(a)), r * (Math.sin(b) - Math.sin(a)));
    }
  });
  return length;
}

/** Nine wheels and a belt of 150 teeth, as a layout file: the cam is raised until such a belt fits. */
export function benchLayoutFile(): string {
  const nine = withWheels(9);
  const raised = (by: number) => ({
    ...nine,
    id: 'bench',
    count: 150,
    wheels: nine.wheels.map((w) => (w.y > 200 ? { ...w, y: w.y + by } : w)),
  });
  for (let by = 0; by < 400; by += 0.25) {
    const layout = raised(by);
    const settings = tensionerSettings(layout);
    if (settings.ok && settings.value.found.some((s) => s.inWindow))
      return JSON.stringify({ format: 'hollow-sprocket-layout', formatVersion: 1, layout });
  }
  throw new Error('no drive of nine wheels and 150 teeth');
}

export function driveBench(): Row[] {
  const eight = withWheels(8);
  const nine = withWheels(9);
  const pack = demoPack();
  const opposed = pack.layouts.find((l) => l.id === 'fletcher-a')!;
  const chain = pack.layouts.find((l) => l.id === 'stoat-a')!;
  const changed = moveBanks(opposed, { left: 0.5, right: 0.5 });
  const seen = [6, 5, 3, 2].map((wheel, i) => ({ wheel, teeth: -0.05 * (i + 1), u: 0.05 }));
  const centres = nine.wheels.slice(0, 6).map((w) => ({ x: w.x, y: w.y }));
  const distances = centres.flatMap((p, a) =>
    centres.slice(a + 1).map((q, k) => ({ a, b: a + 1 + k, mm: Math.hypot(p.x - q.x, p.y - q.y), u: 0.3 })),
  );
  return [
    compare(
      'Path of 8 wheels, all checks',
      () => solvePath(circlesOf(eight), -1),
      'polyline of 2,000 chords an arc',
      () => chords(eight),
      '< 1 ms',
    ),
    compare(
      'All tensioner settings, 8 wheels',
      () => tensionerSettings(eight),
      'polyline of 2,000 chords an arc',
      () => chords(eight),
      '< 1 ms',
    ),
    compare(
      'Path of 9 wheels, all checks',
      () => solvePath(circlesOf(nine), -1),
      'polyline of 2,000 chords an arc',
      () => chords(nine),
      '< 0.05 ms',
    ),
    compare(
      'All tensioner settings, 9 wheels',
      () => tensionerSettings(nine),
      'polyline of 2,000 chords an arc',
      () => chords(nine),
      '< 0.5 ms',
    ),
    compare(
      'Machined heights from four marks',
      () => estimateBanks(opposed, seen),
      'polyline of 2,000 chords an arc',
      () => chords(nine),
      '< 20 ms',
    ),
    compare(
      'Both idlers for machined heads',
      () => compensate(opposed, changed),
      'polyline of 2,000 chords an arc',
      () => chords(nine),
      '< 20 ms',
    ),
    compare(
      'Guide wear from extension and elongation',
      () => extensionRemainder(chain, { value: 20, u: 0.2 }, { value: 0.002, u: 0.0002 }),
      'polyline of 2,000 chords an arc',
      () => chords(nine),
      '< 20 ms',
    ),
    compare(
      'Centres of 6 wheels from 15 distances',
      () =>
        fitCentres(
          centres.map((p) => ({ x: p.x + 3, y: p.y - 4 })),
          distances,
        ),
      'polyline of 2,000 chords an arc',
      () => chords(nine),
      '< 20 ms',
    ),
  ];
}
