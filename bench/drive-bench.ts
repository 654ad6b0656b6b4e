import { circlesOf, solvePath } from '@core/drive/path';
import type { Layout, Wheel } from '@core/drive/layout';
import { tensionerSettings } from '@core/drive/tensioner';
import { demoPack } from '../demo/catalogue';
import { compare, type Row } from './measure';

/** The first demo layout with toothed wheels added round the cam, so that `n` wheels are solved. */
export function withWheels(n: number): Layout {
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

export function driveBench(): Row[] {
  const eight = withWheels(8);
  const nine = withWheels(9);
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
  ];
}
