import * as z from 'zod';
import '@core/quantity/plain-schemas';
import data from './data/step-things.json';

/** What a hand takes hold of: a part, what holds it, what is in it, what it sits on. */
const ThingSchema = z.strictObject({
  id: z.string(),
  name: z.string(),
  /** One on the engine, one in each stage, or one at each wheel that a block is laid at. */
  scope: z.enum(['engine', 'stage', 'wheel']),
  /** `link`: connected or not; `aid`: not there as found; `seal`: always new; `seat`: looked at, cleaned, filled, measured. */
  kind: z.enum(['part', 'fastener', 'fluid', 'link', 'aid', 'seal', 'seat']),
  /** What has to be off before it is reached; "loop*": of every stage. */
  behind: z.array(z.string()).optional(),
  /** What lies in the rows in front of its own has to be off as well. */
  depth: z.boolean().optional(),
  /** What a drive must have for it to be there; "a|b": one of them. */
  needs: z.array(z.string()).optional(),
  /** A seal that does not come off with a part: the old one is taken out by itself. */
  pressedIn: z.boolean().optional(),
  /** What it sits on, where dirt would tell. */
  seat: z.string().optional(),
  /** What holds it on. */
  fastener: z.string().optional(),
  /** What carries the engine while it is off. */
  rests: z.string().optional(),
  /** What runs out when it comes off. */
  drains: z.string().optional(),
  /** How many there are where a step gives no number: one for each fixed roller, each cam on a phaser, each other cam. */
  count: z.enum(['rollers', 'cams', 'phasers']).optional(),
});
export type StepThing = Readonly<z.infer<typeof ThingSchema>>;

const THINGS: readonly StepThing[] = z.array(ThingSchema).parse(data);
const BY_ID: ReadonlyMap<string, StepThing> = new Map(THINGS.map((t) => [t.id, t]));
export const thingOf = (id: string): StepThing | undefined => BY_ID.get(id);
/** What a fastener holds on. */
export const heldBy = (fastener: string): string[] =>
  THINGS.filter((t) => t.fastener === fastener).map((t) => t.id);
/** Things on the engine of which a drive must have what they need. */
export const isThere = (t: StepThing, has: ReadonlySet<string>): boolean =>
  (t.needs ?? []).every((n) => n.split('|').some((x) => has.has(x)));

/** What a step does to a thing. */
const ACTS = [
  'disconnected',
  'connected',
  'drained',
  'filled',
  'levelled',
  'loosened',
  'tightened',
  'removed',
  'fitted',
  'cleaned',
  'looked',
  'measured',
  'sealed',
  'cured',
  'primed',
  /** Of a tensioner: pinned back, let go, set to its mark. */
  'pinned',
  'released',
  'set',
] as const;
const LOCKS = ['stop', 'crank', 'cams'] as const;
/** To its mark in running direction; whole working cycles and back to it; to where no valve reaches a piston; back to the mark the short way. */
const CRANK_TO = ['mark', 'turns', 'clear', 'return'] as const;

const Thing = z.enum(THINGS.map((t) => t.id) as [string, ...string[]]);
/**
 * One effect of a step: [act, thing]; [act, thing, "all"] at every stage; of a tensioner how it is pinned or let go;
 * [locked, cams, shafts] by the shafts themselves or by their sprockets; [turned, crank, where to].
 */
export const EffectSchema = z.union([
  z.tuple([z.enum(ACTS), Thing]),
  z.tuple([z.enum(ACTS), Thing, z.literal('all')]),
  z.tuple([z.literal('pinned'), z.literal('tensioner'), z.enum(['pressed', 'ratchet', 'screwed', 'new'])]),
  z.tuple([z.literal('released'), z.literal('tensioner'), z.enum(['pin', 'screw', 'press'])]),
  z.tuple([z.enum(['locked', 'unlocked']), z.enum(LOCKS)]),
  z.tuple([z.literal('locked'), z.literal('cams'), z.enum(['shafts', 'sprockets'])]),
  z.tuple([z.literal('turned'), z.literal('crank'), z.enum(CRANK_TO)]),
  z.tuple([z.literal('turned'), z.literal('cams')]),
  /** Turned by the starter without running; and run. */
  z.tuple([z.enum(['cranked', 'started']), z.literal('engine')]),
]);
export type Effect = z.infer<typeof EffectSchema>;
