import { CAUSES } from '@core/cause/cause-data';
import { catalogueOf } from '@core/catalogue/find-records';
import { SHIPPED_POLICY } from '@core/policy/policy';
import { registryFor, worldOf } from '@core/answer/world';
import { drawCase } from '@core/practice/draw-case';
import { scorePaths } from '@core/practice/path-score';
import { drawVirtual } from '@core/practice/draw-return';
import { drivesOf, kindsOfDrive } from '@core/practice/drives';
import { scoreDesk, type DeskFigures } from '@core/practice/score';
import { demoPack } from '../demo/catalogue';
import type { Row } from './measure';

const RETURNS = 2000;
const SEED = 1;

const share = (k: number, n: number): string => (n === 0 ? 'none' : `${((100 * k) / n).toFixed(0)} %`);
const show = (name: string, s: DeskFigures): void => {
  console.log(
    `${name}: leader right ${share(s.right, s.decidable)}, its family ${share(s.family, s.decidable)} of ${s.decidable} decidable; Brier ${s.brier.toFixed(2)}; no cause told in ${share(s.told, s.hidden)} of ${s.hidden} hidden`,
  );
  const stated = s.stated.map((b, i) => `${i}0: ${share(b.right, b.n)} of ${b.n}`);
  console.log(`  right by what was stated, tenths: ${stated.join(', ')}`);
  const families = Object.entries(s.families).map(([f, x]) => `${f} ${share(x.right, x.n)}`);
  console.log(`  by family: ${families.join(', ')}`);
};

/** The desk's own score on returns whose truth was drawn apart from its numbers; then what one return costs. */
export function practiceBench(): Row[] {
  const drives = drivesOf(CAUSES, kindsOfDrive(catalogueOf(demoPack())));
  const began = performance.now();
  for (const [name, complete] of [
    ['complete boxes', 1],
    ['half of the looks', 0.5],
  ] as const)
    show(name, scoreDesk(drives, SHIPPED_POLICY, { returns: RETURNS, complete, seed: SEED }));
  const judged = performance.now() - began;
  for (const { id } of drives) {
    const one = scoreDesk(
      drives.filter((d) => d.id === id),
      SHIPPED_POLICY,
      { returns: 200, complete: 1, seed: SEED },
    );
    console.log(`  ${id}: ${share(one.right, one.decidable)} of ${one.decidable}`);
  }
  const cat = catalogueOf(demoPack());
  const world = worldOf(cat);
  const worked = performance.now();
  const paths = scorePaths(world, { returns: 60, seed: SEED });
  console.log(
    `  whole returns by the desk's own advice: ${paths.minutes} min to a verdict (the middle of ${paths.returns}), right ${share(paths.right, paths.returns)}; one worked in ${((performance.now() - worked) / paths.returns).toFixed(0)} ms`,
  );
  const within = { cat, registry: registryFor(world), causes: CAUSES, policy: SHIPPED_POLICY };
  const whole = performance.now();
  for (let s = 1; s <= 200; s++) drawCase(within, s);
  console.log(`  one whole return drawn: ${((performance.now() - whole) / 200).toFixed(1)} ms`);
  console.log('');
  let seed = 0;
  const started = performance.now();
  while (seed < RETURNS) drawVirtual(drives, ++seed, 1);
  const drawn = (performance.now() - started) / RETURNS;
  return [
    {
      name: `${RETURNS} virtual returns judged`,
      value: `${(judged / 2000).toFixed(1)} s`,
      target: '60 s',
      baseline: 'drawing them',
      ratio: `${(judged / 2 / (drawn * RETURNS)).toPrecision(2)}×`,
    },
    {
      name: 'one return drawn',
      value: `${drawn.toFixed(2)} ms`,
      target: '20 ms',
      baseline: 'judging it',
      ratio: `${(drawn / (judged / 2 / RETURNS)).toPrecision(2)}×`,
    },
  ];
}
