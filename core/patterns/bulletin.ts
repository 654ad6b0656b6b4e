import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { contentDigest } from '@core/facts/digest';
import type { Return } from './population';
import { type ComparedRates, compareRates } from './rates';

/** What a house tells everybody about one step of fitting a kit, or takes back again. Entries are only added. */
const BulletinSchema = z.strictObject({
  kit: z.string().min(1).max(40),
  /** Step of the kit's sheet, and the installation fault that it is about; "" for none. */
  step: z.string().min(1).max(60),
  code: z.string().max(20),
  does: z.enum(['issue', 'withdraw']),
  /** From 1 for each kit and step. */
  version: z.number().int().positive(),
  /** What to do otherwise, or why it is taken back. */
  text: z.string().trim().min(1).max(1200),
  at: z.iso.datetime({ offset: true }),
  by: z.string().max(120),
  /** SHA-256 over all else of it, canonical JSON. */
  digest: z.string().regex(/^[0-9a-f]{64}$/),
});
export type Bulletin = Readonly<z.infer<typeof BulletinSchema>>;
export const BulletinsSchema = z.array(BulletinSchema);

const placeOf = (b: Pick<Bulletin, 'kit' | 'step'>): string => `${b.kit.trim().toUpperCase()}\t${b.step}`;
const digestOf = (b: Omit<Bulletin, 'digest'>): string =>
  contentDigest(Object.fromEntries(Object.entries(b).filter(([k]) => k !== 'digest')));

/** The next entry about a kit's step, sealed with its digest. */
export function writeBulletin(
  before: readonly Bulletin[],
  said: Pick<Bulletin, 'kit' | 'step' | 'code' | 'does' | 'text' | 'at' | 'by'>,
): Bulletin {
  const version = Math.max(0, ...before.filter((b) => placeOf(b) === placeOf(said)).map((b) => b.version));
  const entry = { ...said, text: said.text.trim(), version: version + (said.does === 'issue' ? 1 : 0) };
  return { ...entry, digest: digestOf(entry) };
}

/** True while nothing of it was changed since it was issued. */
export const isUnchanged = (b: Bulletin): boolean => digestOf(b) === b.digest;

/** Bulletins that stand: of each kit's step the last entry, where that issues one; the newest first. */
export function standingBulletins(all: readonly Bulletin[]): Bulletin[] {
  const last = new Map<string, Bulletin>();
  for (const b of [...all].sort((a, b) => (a.at < b.at ? -1 : 1))) last.set(placeOf(b), b);
  return [...last.values()].filter((b) => b.does === 'issue').sort((a, b) => (a.at < b.at ? 1 : -1));
}

/** What stands about a kit. */
export const bulletinsOf = (all: readonly Bulletin[], kit: string | undefined): Bulletin[] =>
  kit ? standingBulletins(all).filter((b) => b.kit.trim().toUpperCase() === kit.trim().toUpperCase()) : [];

type Counts = { faults: number; of: number };
/** How often the fault was found on returns of the kit that were fitted before its first bulletin, and since. */
export type BulletinEffect = {
  before: Counts;
  after: Counts;
  /** Since by before; none while nothing was fitted since. */
  compared: ComparedRates | undefined;
};

/**
 * What a bulletin did: the share of the kit's returns with that fault at that step by the day they were fitted, before and since
 * the first issue, compared exactly. Returns without a day of fitting are left out.
 */
export function bulletinEffect(
  all: readonly Bulletin[],
  { kit, step, code }: Pick<Bulletin, 'kit' | 'step' | 'code'>,
  returns: readonly Return[],
): BulletinEffect | undefined {
  const first = all
    .filter((b) => b.does === 'issue' && placeOf(b) === placeOf({ kit, step }))
    .map((b) => b.at.slice(0, 10))
    .sort()[0];
  if (first === undefined) return undefined;
  const mine = returns.filter(
    (r) => r.kit.trim().toUpperCase() === kit.trim().toUpperCase() && r.fitted !== '',
  );
  const count = (list: readonly Return[]): Counts => ({
    faults: list.filter((r) => r.faults.some((f) => f.step === step && (code === '' || f.code === code)))
      .length,
    of: list.length,
  });
  const before = count(mine.filter((r) => r.fitted < first));
  const after = count(mine.filter((r) => r.fitted >= first));
  return {
    before,
    after,
    compared:
      before.of > 0 && after.of > 0
        ? compareRates(
            { returns: after.faults, exposure: after.of },
            { returns: before.faults, exposure: before.of },
          )
        : undefined,
  };
}
