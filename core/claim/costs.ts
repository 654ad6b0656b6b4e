import { COST_KINDS, type CostKind } from '@core/catalogue/plan';
import { numberOf, textOf, thingsWith } from '@core/facts/read';
import type { State } from '@core/facts/state';
import type { Cover } from './cover';

/** A line of what a claim asks for. Money in whole minor units; shares of 1. */
export type CostLine = {
  /** Thing that it is, or the sum that it was told as. */
  id: string;
  what: string;
  kind: CostKind;
  quantity: number;
  rate: number;
  /** Share of tax on it. */
  tax: number;
  net: number;
  taxed: number;
  gross: number;
  /** What of it we bear; undefined while nothing is decided. */
  share: number | undefined;
  ours: number | undefined;
};
/** What a claim asks for and who bears it, minor units: sums of rounded lines, so that a reader can add them up himself. */
export type Costs = {
  lines: CostLine[];
  net: number;
  taxed: number;
  gross: number;
  ours: number | undefined;
  theirs: number | undefined;
};

/** Minor units of one unit of money; places of a quantity; parts of a share that are told apart. */
export const MINOR = 100;
const [QUANTITY, SHARE] = [1000, 10_000];

/** Sums that a claim is told by without lines, as a message tells them; tax is in them. */
const TOLD: readonly [string, CostKind][] = [
  ['claim.cost_part', 'part'],
  ['claim.cost_labour', 'labour'],
  ['claim.cost_other', 'other'],
];

/** a · b / by of whole numbers, rounded half up; exact, since no product leaves what a double counts singly. */
export function scaled(a: number, b: number, by: number): number {
  const exact = BigInt(a) * BigInt(b);
  const of = BigInt(by);
  return Number((exact * 2n + of) / (of * 2n));
}

/** Whole parts of a number that people write with so many places. */
const whole = (value: number, parts: number): number => Math.round(value * parts);

/**
 * Lines and totals of a claim. Each line is rounded half up to the minor unit: net of quantity and rate, tax of net, our share of
 * gross; every total is the sum of its lines, and what we do not bear is the rest, so that nothing is lost by rounding. What a
 * line does not say itself follows from the decision within what the plan bears.
 */
export function costsOf(state: State, cover?: Pick<Cover, 'bears' | 'share'>): Costs {
  const usual = usualShare(state, cover);
  const lines = [
    ...TOLD.flatMap(([key, kind]) => {
      const sum = numberOf(state, key);
      return sum === undefined
        ? []
        : [line({ id: key, what: '', kind, quantity: 1, rate: sum, tax: 0 }, usual?.(kind))];
    }),
    ...thingsWith(state, 'cost.rate').map((id) => {
      const kind = kindOf(textOf(state, 'cost.kind', id));
      return line(
        {
          id,
          what: textOf(state, 'cost.what', id) ?? '',
          kind,
          quantity: numberOf(state, 'cost.quantity', id) ?? 1,
          rate: numberOf(state, 'cost.rate', id) ?? 0,
          tax: numberOf(state, 'cost.tax', id) ?? 0,
        },
        usual && (numberOf(state, 'cost.share', id) ?? usual(kind)),
      );
    }),
  ];
  const sum = (of: (l: CostLine) => number) => lines.reduce((s, l) => s + of(l), 0);
  const gross = sum((l) => l.gross);
  const ours = usual === undefined ? undefined : sum((l) => l.ours ?? 0);
  return {
    lines,
    net: sum((l) => l.net),
    taxed: sum((l) => l.taxed),
    gross,
    ours,
    theirs: ours === undefined ? undefined : gross - ours,
  };
}

const kindOf = (key: string | undefined): CostKind => COST_KINDS.find((k) => k === key) ?? 'other';

/**
 * What of a line we bear by the decision; undefined before one was. Accepting bears what the plan does, at its share (at the
 * higher one while the months between are not known); in part: the share that was decided of what the plan bears; goodwill
 * gives its share of everything, since no plan asks for it.
 */
function usualShare(
  state: State,
  cover: Pick<Cover, 'bears' | 'share'> | undefined,
): ((kind: CostKind) => number | undefined) | undefined {
  const within = (share: number | undefined) => (kind: CostKind) =>
    cover === undefined || cover.bears.includes(kind) ? share : 0;
  const decided = numberOf(state, 'claim.share');
  switch (textOf(state, 'claim.decision')) {
    case 'accept':
      return within(cover?.share?.most ?? 1);
    case 'decline':
      return () => 0;
    case 'part':
      return decided === undefined ? undefined : within(decided);
    case 'goodwill':
      return decided === undefined ? undefined : () => decided;
    default:
      return undefined;
  }
}

function line(
  told: Pick<CostLine, 'id' | 'what' | 'kind' | 'quantity' | 'rate' | 'tax'>,
  share: number | undefined,
): CostLine {
  const rate = whole(told.rate, MINOR);
  const net = scaled(whole(told.quantity, QUANTITY), rate, QUANTITY);
  const taxed = scaled(net, whole(told.tax, SHARE), SHARE);
  const gross = net + taxed;
  const ours = share === undefined ? undefined : scaled(gross, whole(share, SHARE), SHARE);
  return { ...told, rate, net, taxed, gross, share, ours };
}
