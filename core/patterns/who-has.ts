import { lotKey, type Return, type SoldRow } from './population';

/** Who has units of a lot: the markets that it was sold to, and the workshops that fitted what came back of it. */
export type WhoHas = {
  sold: number;
  markets: { market: string; sold: number; from: string; to: string }[];
  shops: { shop: string; cases: { id: string; tag: string }[] }[];
};

/** Markets by how many went there, the most first; "" for rows that name none. Workshops by their cases. */
export function whoHas(
  sold: readonly SoldRow[],
  returns: readonly Return[],
  kit: string,
  lot: string,
): WhoHas {
  const key = lotKey(kit, lot);
  const markets = new Map<string, WhoHas['markets'][number]>();
  for (const r of sold) {
    if (lotKey(r.kit, r.lot) !== key || r.sold === 0) continue;
    const name = r.market.trim();
    const m = markets.get(name.toLowerCase()) ?? { market: name, sold: 0, from: r.month, to: r.month };
    m.sold += r.sold;
    if (r.month < m.from) m.from = r.month;
    if (r.month > m.to) m.to = r.month;
    markets.set(name.toLowerCase(), m);
  }
  const shops = new Map<string, WhoHas['shops'][number]>();
  for (const r of returns) {
    if (lotKey(r.kit, r.lot) !== key || r.shop === '') continue;
    const s = shops.get(r.shop) ?? { shop: r.shop, cases: [] };
    s.cases.push({ id: r.id, tag: r.tag });
    shops.set(r.shop, s);
  }
  return {
    sold: [...markets.values()].reduce((s, m) => s + m.sold, 0),
    markets: [...markets.values()].sort((a, b) => b.sold - a.sold),
    shops: [...shops.values()].sort((a, b) => b.cases.length - a.cases.length),
  };
}
