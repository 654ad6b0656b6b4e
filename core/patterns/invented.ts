import { randomFrom } from '@core/quantity/random';
import { monthOf, monthPart, type Return, type SoldRow } from './population';

/** What is planted in an invented population: a bad lot, a workshop that sets warm, a step that is got wrong by many. */
export type Planted = {
  lot?: { kit: number; lot: number; times: number };
  shop?: { shop: number; code: string; step: string; share: number };
  step?: { kit: number; code: string; step: string; share: number };
};
export type Invented = {
  sold: SoldRow[];
  returns: Return[];
  lots: string[];
  shops: string[];
  kits: string[];
};
export type InventedSize = {
  kits: number;
  lots: number;
  months: number;
  /** Units of a lot, and share of them that come back within a year at the usual rate. */
  perLot: number;
  yearly: number;
  shops: number;
};
/** The day on which the shipped one stands: the same on every desk and at any time. */
export const INVENTED_DAY = '2026-12-01';
export const THREE_YEARS: InventedSize = {
  kits: 30,
  lots: 2000,
  months: 36,
  perLot: 400,
  yearly: 0.012,
  shops: 160,
};
/** What the shipped story has in it. */
export const STORIES: Planted = {
  lot: { kit: 11, lot: 8, times: 3 },
  shop: { shop: 42, code: 'SET-HOT', step: 'tension', share: 0.55 },
  step: { kit: 4, code: 'REL-NONE', step: 'release', share: 0.3 },
};

const MARKETS = ['north', 'south', 'islands'];
const USUAL = [
  ['SET-HOT', 'tension'],
  ['REL-NONE', 'release'],
  ['CLN-SEAT', 'clean'],
  ['TRQ-LOW', 'bolt'],
] as const;
const USUAL_SHARE = 0.03;
/** Lives wear out a little: shape of the usual one. */
const SHAPE = 1.4;
/** A lot goes to the shops over so many months. */
const SOLD_OVER = 3;

const pad = (n: number, digits: number): string => String(n).padStart(digits, '0');
const monthText = (m: number): string => `${Math.floor(m / 12)}-${pad((m % 12) + 1, 2)}`;

/** A stand-in for what a supplier sold and what came back of it: seeded, every name invented. */
export function inventPopulation(
  seed: number,
  today: string,
  size: InventedSize = THREE_YEARS,
  planted: Planted = STORIES,
): Invented {
  const random = randomFrom(seed);
  const now = monthOf(today);
  const until = now + monthPart(today);
  const kits = Array.from({ length: size.kits }, (_, i) => `MF-P${pad(i + 1, 3)}`);
  const shops = Array.from({ length: size.shops }, (_, i) => `Workshop ${pad(i + 1, 3)}`);
  const scale = 12 / (-Math.log(1 - size.yearly)) ** (1 / SHAPE);
  const each = Math.ceil(size.lots / size.kits);
  const out: Invented = { sold: [], returns: [], lots: [], shops, kits };
  for (let l = 0; l < size.lots; l++) {
    const kit = Math.floor(l / each);
    const lot = `L${pad(l + 1, 4)}`;
    out.lots.push(lot);
    const within = l % each;
    const first = now - size.months + Math.floor((within * (size.months - 2)) / each);
    const bad = planted.lot?.kit === kit && planted.lot.lot === within ? planted.lot.times : 1;
    for (let k = 0; k < SOLD_OVER; k++) {
      const month = first + k;
      const sold = Math.round(size.perLot / SOLD_OVER);
      if (month > now) continue;
      out.sold.push({
        kit: kits[kit] ?? '',
        lot,
        month: monthText(month),
        market: MARKETS[Math.floor(random() * MARKETS.length)] ?? '',
        sold,
      });
      for (let u = 0; u < sold; u++) {
        // A threefold hazard is the usual life with its scale shortened to the shape's root of three.
        const life = (scale / bad ** (1 / SHAPE)) * (-Math.log(1 - random())) ** (1 / SHAPE);
        const fitted = month + 1;
        if (fitted + life >= until) continue;
        out.returns.push(returnOf(out, kit, lot, fitted, life, random, planted));
      }
    }
  }
  return out;
}

function returnOf(
  out: Invented,
  kit: number,
  lot: string,
  fitted: number,
  life: number,
  random: () => number,
  planted: Planted,
): Return {
  const n = out.returns.length + 1;
  const shop = Math.floor(random() * out.shops.length);
  const faults: { code: string; step: string }[] = [];
  const add = (code: string, step: string, share: number) => {
    if (random() < share && !faults.some((f) => f.code === code)) faults.push({ code, step });
  };
  if (planted.shop?.shop === shop) add(planted.shop.code, planted.shop.step, planted.shop.share);
  if (planted.step?.kit === kit) add(planted.step.code, planted.step.step, planted.step.share);
  for (const [code, step] of USUAL) add(code, step, USUAL_SHARE);
  const day = pad(1 + Math.floor(random() * 28), 2);
  return {
    id: `invented-${n}`,
    tag: `P${n}`,
    kit: out.kits[kit] ?? '',
    lot,
    shop: out.shops[shop] ?? '',
    fitted: `${monthText(fitted)}-${day}`,
    failed: `${monthText(Math.floor(fitted + life))}-${day}`,
    km: Math.round(life * 1300),
    cause: faults[0] ? 'fitting' : 'part',
    faults,
    cost: Math.round(20_000 + 60_000 * random()),
  };
}
