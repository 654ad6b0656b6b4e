import { nth } from '@core/quantity/must';
import { WORDS } from './words';

const NAMED = new RegExp(
  `\\b(?:(?<kind>${WORDS.fleet.join('|')})\\s+(?:no\\.?\\s*)?|No\\.\\s?)(\\d{1,3}|[A-D])\\b(?!\\s*(?:km|mm|h\\b|hours))`,
  'gi',
);

/** What a fleet calls one of its vehicles, as it stands in a text; `kind` is missing where only a number is told. */
export type FleetName = { id: string; kind?: string; from: number; name: string };

/** Vehicles called by a kind and a number or a letter, or by a number alone: "bus 14", "van B", "No. 3". */
export const fleetNamed = (text: string): FleetName[] =>
  [...text.matchAll(NAMED)].map((m) => {
    const kind = m.groups?.['kind']?.toLowerCase();
    return {
      id: nth(m, 2).toUpperCase(),
      from: m.index,
      name: m[0],
      ...(kind === undefined ? {} : { kind }),
    };
  });
