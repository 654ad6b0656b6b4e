import { nth } from '@core/quantity/must';

/** What a procedure's text may name between braces; each is written from the layout (core/fitting/values.ts). */
const PLACEHOLDERS = [
  'drive',
  'stage',
  'driver',
  'runs',
  'marked',
  'offsets',
  'cams',
  'part',
  'route',
  'tight',
  'rollers',
  'idlers',
  'flanged',
  'unflanged',
  'pump',
  'arm',
  'rail',
  'twins',
  'count',
  'units',
  'between',
  'tooth',
  'key',
  'carrier',
  'reading',
  'nominal',
  'window',
  'collapsed',
  'safe',
  'turns',
  'tolerance',
  /** Cams on phasers, and the others. */
  'phased',
  'plain',
  /** What a shaft that turns alone does on this engine. */
  'meets',
  /** The crank by itself to where no valve reaches a piston, and back. */
  'clear',
  'return',
  /** Marks that do not come back after the turns by hand, and when they do. */
  'later',
  /** What slack on the tight side does. */
  'slack',
  /** Hand of the tensioner, windows of the ring: what the parts of the design have. */
  'hand',
  'windows',
  /** A slow press for reuse, as the house has it. */
  'press',
] as const;
export type Placeholder = (typeof PLACEHOLDERS)[number];
const NAMED = /\{(\w+)\}/g;

/** True when something stands between braces. */
export const fillable = (text: string): boolean => /\{\w+\}/.test(text);

/** Names between braces in a text that no layout, and none of these parameters, can fill. */
export const unknownPlaceholders = (text: string, params: readonly string[] = []): string[] =>
  [...text.matchAll(NAMED)]
    .map((m) => nth(m, 1))
    .filter((name) => !PLACEHOLDERS.some((p) => p === name) && !params.includes(name));

/** A text with its names filled in; one that there is nothing for keeps its braces, where a person sees it. */
export const fillPlaceholders = (text: string, values: Readonly<Partial<Record<string, string>>>): string =>
  text.replace(
    NAMED,
    (whole, name: string) => (Object.hasOwn(values, name) ? values[name] : undefined) ?? whole,
  );
