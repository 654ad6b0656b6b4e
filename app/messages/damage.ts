import { counted } from '../language/plural';
import type { DamageMap } from '@core/examination/damage-map';
import { list } from '../language/list';
import { lower } from '../language/lower';

/** What damage at places says of the wheels, in a sentence or two. */
export function damageWords(m: DamageMap): string[] {
  const name = (id: string) => m.wheels.find((w) => w.id === id)?.name ?? id;
  const lowerName = (id: string) => lower(name(id));
  const out: string[] = [];
  const s = m.spacing;
  if (s.verdict === 'too_few')
    out.push(
      `${counted(s.marks, 'mark', 'marks')}: too few to say whether they repeat; it takes ${s.least}.`,
    );
  if (s.verdict === 'none')
    out.push(
      `The ${s.marks} marks repeat with the teeth of no wheel of this drive (chance does as well in ${share(s.p)}).`,
    );
  if (s.verdict === 'wheel') {
    const laps = s.laps === 1 ? 'one lap' : `${s.laps} laps`;
    out.push(
      `${s.hits} of ${s.marks} marks repeat with the ${m.wheels.find((w) => w.id === s.wheel)?.teeth} teeth of the ${lowerName(s.wheel)}, in ${laps} (chance does as well in ${share(s.p)}, all wheels tried).`,
    );
    if (s.alike.length > 0)
      out.push(`By these marks it cannot be told from ${list(s.alike.map((id) => `the ${lowerName(id)}`))}.`);
  }
  for (const r of m.runs)
    out.push(
      r.wheels.length > 0
        ? `${r.teeth} torn in a row from ${r.from} on: as many as lie in the ${list(r.wheels.map(lower), 'or')}; look whether it turns.`
        : `${r.teeth} torn in a row from ${r.from} on: no wheel holds just as many.`,
    );
  return out;
}

const share = (p: number): string =>
  p < 0.002 ? 'fewer than 2 of 1,000 belts' : `${Math.round(p * 1000)} of 1,000 belts`;
