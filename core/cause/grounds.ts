import { nth } from '@core/quantity/must';
import * as z from 'zod';
import '@core/quantity/plain-schemas';
import type { CauseData } from './cause-data';
import grounds from './data/grounds.json';
import { type KnowledgeNumber, numbersOf } from './numbers';

/** What a number stands on. */
const GROUND_KINDS = ['reasoning', 'computed', 'house'] as const;
const GroundSchema = z.strictObject({
  /** Places that it holds of; * stands for any one part, and for its end. */
  places: z.array(z.string()).min(1),
  /** Only numbers of causes of these families. */
  families: z.array(z.string()).optional(),
  ground: z.enum(GROUND_KINDS),
  note: z.string().min(20),
});
export type Ground = Readonly<z.infer<typeof GroundSchema>>;

/** What the numbers that ship stand on; the first that holds of a number is its ground. */
const GROUNDS: readonly Ground[] = z.array(GroundSchema).parse(grounds);

const matches = (pattern: string, place: string): boolean => {
  const [want, have] = [pattern.split('/'), place.split('/')];
  return (
    want.length === have.length &&
    want.every((w, i) => (w.endsWith('*') ? nth(have, i).startsWith(w.slice(0, -1)) : w === have[i]))
  );
};

/** The ground of a number that ships. */
export function groundOf(data: CauseData, { place, entry }: KnowledgeNumber): Ground | undefined {
  const family = place.startsWith('causes/') ? data.causes.find((c) => c.key === entry)?.family : undefined;
  return GROUNDS.find(
    (g) =>
      g.places.some((p) => matches(p, place)) &&
      (g.families === undefined || (family !== undefined && g.families.includes(family))),
  );
}

/** Numbers without a ground, and grounds that hold of no number: there are none in what ships. */
export function lintGrounds(data: CauseData): { without: string[]; idle: string[] } {
  const used = new Set<Ground>();
  const without = [...numbersOf(data).values()].flatMap((n) => {
    const ground = groundOf(data, n);
    if (ground) used.add(ground);
    return ground ? [] : [n.place];
  });
  return { without, idle: GROUNDS.filter((g) => !used.has(g)).map((g) => g.note) };
}
