import { nth } from '@core/quantity/must';
import { fleetNamed } from './fleet';
import { GRAMMAR } from './grammar';
import { groupBy } from './phrases';
import type { Proposal } from './proposal';
import type { VehicleMention } from './read-vehicles';
import { tokenAt, type Speech } from './said';
import type { Token } from './text';

/** Which of several vehicles or claims a place of a message speaks of, from 1; 0: of all of them; undefined: there is but one. */
export type CaseSplit = { count: number; at: (from: number) => number | undefined; names: readonly string[] };

type Label = { id: string; from: number; name?: string };

const ONE: CaseSplit = { count: 1, at: () => undefined, names: [] };
const COLOURS = /\b(red|blue|white|green|silver|grey|yellow)\b(?=\s*(?::|one\b))/gi;
const ITEM = /^\s*(?:[-–·•*]|\d{1,2}[.)])\s+/;
/** What speaks of each of them. */
const ALL = /^(?:both|all|each|same)$/;

/** Splits a message that tells of several vehicles or claims by what names them: numbers, claims, colours, a list. */
export function casesOf(
  said: Speech,
  vehicles: readonly VehicleMention[],
  claims: readonly Proposal[],
): CaseSplit {
  const labels = labelsOf(said, vehicles, claims);
  const ids = [...new Set(labels.map((l) => l.id))];
  const told = countTold(said);
  if (ids.length === 1 && told > 1 && Number(ids[0]) <= told)
    return scoped(said, labels, (id) => Number(id), told, []);
  if (ids.length < 2) return ONE;
  return scoped(
    said,
    labels,
    (id) => ids.indexOf(id) + 1,
    ids.length,
    ids.map((id) => labels.find((l) => l.id === id)?.name ?? id),
  );
}

function labelsOf(said: Speech, vehicles: readonly VehicleMention[], claims: readonly Proposal[]): Label[] {
  const distinct = new Map(
    claims.flatMap((p) => (typeof p.value === 'string' ? [[p.value, nth(p.spans, 0).from] as const] : [])),
  );
  if (distinct.size > 1) return [...distinct].map(([id, from]) => ({ id, from }));
  const body = bodyText(said);
  const fleet = fleetNamed(body);
  if (new Set(fleet.map((l) => l.id)).size > 1 || (fleet.length > 0 && countTold(said) > 1))
    return [...fleet, ...bare(said, fleet)].sort((a, b) => a.from - b.from);
  const colours = [...body.matchAll(COLOURS)].map((m) => ({ id: nth(m, 1).toLowerCase(), from: m.index }));
  if (new Set(colours.map((l) => l.id)).size > 1) return colours.sort((a, b) => a.from - b.from);
  const items = listItems(said, vehicles);
  return items.length > 1 ? items : counted(said);
}

/** Fleet numbers said alone once they are known: "4 has", "on 3". */
const bare = (said: Speech, fleet: readonly Label[]): Label[] => {
  const ids = new Set(fleet.map((l) => l.id));
  return said.tokens.flatMap((t, i) => {
    if (!ids.has(t.text)) return [];
    const before = said.tokens[i - 1];
    const own = before?.clause !== t.clause || /^(on|and|for|of)$/.test(before.low);
    const unit = said.figureAt.get(i)?.unit;
    return own && unit === undefined ? [{ id: t.text, from: t.from }] : [];
  });
};

/** Items of a list that name a vehicle each. */
function listItems(said: Speech, vehicles: readonly VehicleMention[]): Label[] {
  let from = 0;
  const out: Label[] = [];
  for (const line of said.text.split('\n')) {
    const [at, to] = [from, from + line.length];
    from = to + 1;
    if (ITEM.test(line) && vehicles.some((v) => inside(said, v, at, to)))
      out.push({ id: String(out.length + 1), from: at });
  }
  return out;
}
const inside = (said: Speech, v: VehicleMention, from: number, to: number): boolean => {
  const at = nth(said.tokens, v.at).from;
  return at >= from && at < to;
};

/** "21 quiet, 22 quiet, 23 rattles": clauses that begin with numbers one after the other. */
function counted(said: Speech): Label[] {
  let at = 0;
  const begun = groupBy(said.tokens, 'clause').flatMap((c) => {
    const first = nth(c, 0);
    const here = at;
    at += c.length;
    const unit = said.figureAt.get(here)?.unit;
    return /^\d{1,3}$/.test(first.text) && unit === undefined && c.length > 1 && !/^\d/.test(nth(c, 1).text)
      ? [{ id: first.text, from: first.from }]
      : [];
  });
  const ids = [...new Set(begun.map((b) => Number(b.id)))];
  return ids.length > 2 && ids.every((n, i) => i === 0 || n === nth(ids, i - 1) + 1) ? begun : [];
}

const bodyText = (said: Speech): string => {
  const last = said.tokens.at(-1)?.to ?? 0;
  return said.text.slice(0, last);
};

/** "All four Carrier Decks": how many there are. */
function countTold(said: Speech): number {
  const at = said.tokens.findIndex(
    (t, i) => t.low === 'all' && GRAMMAR.numbers[said.tokens[i + 1]?.low ?? ''] !== undefined,
  );
  return at < 0 ? 0 : (GRAMMAR.numbers[said.tokens[at + 1]?.low ?? ''] ?? 0);
}

/** A clause speaks of what it names, else of what was named last in its paragraph; what is said of all is of all. */
function scoped(
  said: Speech,
  labels: readonly Label[],
  no: (id: string) => number,
  count: number,
  names: readonly string[],
): CaseSplit {
  const lineStart = labels.every(
    (l) =>
      /(?:^|\n)\W*\S{0,10}\W*$/.test(said.text.slice(Math.max(0, l.from - 14), l.from)) &&
      labels.length === names.length,
  );
  const byClause = new Map<number, { from: number; of: number | undefined }[]>();
  let current: number | undefined;
  let paragraph = 0;
  for (const clause of groupBy(said.tokens, 'clause')) {
    const [first, last] = [nth(clause, 0), nth(clause, clause.length - 1)];
    const own = labels.filter((l) => l.from < last.to && l.from >= first.from - (lineStart ? 3 : 0));
    const here = said.text.slice(0, first.from).split('\n').length;
    if (here !== paragraph) {
      paragraph = here;
      current = undefined;
    }
    const list: { from: number; of: number | undefined }[] = [];
    if (clause.some((t: Token) => ALL.test(t.low)) && own.length === 0) {
      list.push({ from: first.from, of: undefined });
      current = undefined;
    } else if (own.length === 0) list.push({ from: first.from, of: current });
    else
      own.forEach((l, i) => {
        current = no(l.id);
        list.push({ from: i === 0 ? first.from : l.from, of: current });
      });
    byClause.set(first.clause, list);
  }
  return {
    count,
    names,
    at: (from) => {
      const token = said.tokens[tokenAt(said, from)];
      const list = token === undefined ? undefined : byClause.get(token.clause);
      return list?.filter((x) => x.from <= from).at(-1)?.of ?? list?.[0]?.of ?? 0;
    },
  };
}
