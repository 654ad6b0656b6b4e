import type { CauseData } from './cause-data';
import { isQuiet } from './model';

/** What is wrong with a body of knowledge, and where: the entry and the part of it. */
export type KnowledgeIssue = { at: string } & (
  | {
      code: 'unknown';
      what: 'mechanism' | 'finding' | 'observable' | 'grade' | 'symptoms' | 'cause' | 'family';
      name: string;
    }
  /** Shares that are parts of one whole add up to so much. */
  | { code: 'adds_up'; to: number }
  | { code: 'twice'; name: string }
  /** Nothing sets it off, or nothing shows it. */
  | { code: 'idle' }
  /** Nothing that can be found tells these causes apart. */
  | { code: 'alike'; other: string }
);

/** Shares nearer than this are not told apart. */
const ALIKE = 0.02;
/** What a finding may show of all mechanisms together, and without any. */
const MOST = { shown: 0.99, off: 0.5 };

/**
 * Everything that is wrong with a body of knowledge: names that do not exist, shares that do not fit together, what never matters, causes that nothing distinguishes.
 * @param observable whether there is an observable of this key, or a finding that is computed under this name
 */
export function lintKnowledge(data: CauseData, observable: (key: string) => boolean): KnowledgeIssue[] {
  return [...lintFindings(data, observable), ...lintMechanisms(data), ...lintCauses(data), ...alike(data)];
}

const total = (shares: Readonly<Record<string, number>>): number =>
  Object.values(shares).reduce((a, b) => a + b, 0);

function twice(kind: string, keys: readonly string[]): KnowledgeIssue[] {
  return keys
    .filter((k, i) => keys.indexOf(k) !== i)
    .map((name) => ({ code: 'twice', at: `${kind} ${name}`, name }));
}

function lintFindings(data: CauseData, observable: (key: string) => boolean): KnowledgeIssue[] {
  const shown = new Set(data.mechanisms.flatMap((m) => Object.keys(m.shows)));
  // what denies a cause, or takes from what others say, matters too
  const used = new Set([
    ...(data.bars ?? []).flatMap(({ by }) => (by === 'abnormal' ? [] : [by.finding])),
    ...(data.screens ?? []).map(({ by }) => by[0]),
  ]);
  return [
    ...twice(
      'finding',
      data.findings.map((f) => f.finding),
    ),
    ...data.findings.flatMap((f): KnowledgeIssue[] => {
      const at = `finding ${f.finding}`;
      const names = [f.finding, ...(f.inputs ?? [])].filter((k) => !observable(k));
      const both = f.sound.filter((g) => g in f.off);
      const bands = f.edges ? (f.grades ?? []) : [];
      const all = [...f.sound, ...Object.keys(f.off)];
      return [
        ...names.map((name): KnowledgeIssue => ({ code: 'unknown', at, what: 'observable', name })),
        ...both.map((name): KnowledgeIssue => ({ code: 'twice', at, name })),
        ...bands.flatMap((name): KnowledgeIssue[] =>
          all.includes(name) ? [] : [{ code: 'unknown', at, what: 'grade', name }],
        ),
        ...(f.edges && f.edges.length !== bands.length + 1
          ? [{ code: 'adds_up' as const, at, to: bands.length }]
          : []),
        ...(total(f.off) > MOST.off ? [{ code: 'adds_up' as const, at, to: total(f.off) }] : []),
        ...(shown.has(f.finding) || used.has(f.finding) ? [] : [{ code: 'idle' as const, at }]),
      ];
    }),
  ];
}

function lintMechanisms(data: CauseData): KnowledgeIssue[] {
  const specs = new Map(data.findings.map((f) => [f.finding, f]));
  const caused = new Set(data.causes.flatMap((c) => Object.keys(c.works)));
  return [
    ...twice(
      'mechanism',
      data.mechanisms.map((m) => m.key),
    ),
    ...data.mechanisms.flatMap((m): KnowledgeIssue[] => {
      const at = `mechanism ${m.key}`;
      return [
        ...(caused.has(m.key) && Object.keys(m.shows).length > 0 ? [] : [{ code: 'idle' as const, at }]),
        ...Object.entries(m.shows).flatMap(([name, grades]): KnowledgeIssue[] => {
          const spec = specs.get(name);
          if (!spec) return [{ code: 'unknown', at, what: 'finding', name }];
          const to = total(grades);
          return [
            ...Object.keys(grades).flatMap((g): KnowledgeIssue[] =>
              g in spec.off ? [] : [{ code: 'unknown', at: `${at}, ${name}`, what: 'grade', name: g }],
            ),
            ...(to > MOST.shown ? [{ code: 'adds_up' as const, at: `${at}, ${name}`, to }] : []),
          ];
        }),
      ];
    }),
  ];
}

function lintCauses(data: CauseData): KnowledgeIssue[] {
  const known = new Set(data.mechanisms.map((m) => m.key));
  const keys = new Set(data.causes.map((c) => c.key));
  return [
    ...twice(
      'cause',
      data.causes.map((c) => c.key),
    ),
    ...Object.entries(data.symptoms).flatMap(([name, shares]): KnowledgeIssue[] =>
      Math.abs(total(shares) - 1) > 1e-6
        ? [{ code: 'adds_up', at: `symptoms ${name}`, to: total(shares) }]
        : [],
    ),
    ...Object.entries(data.tilts).flatMap(([when, families]) =>
      Object.keys(families).flatMap((name): KnowledgeIssue[] =>
        data.causes.some((c) => c.family === name)
          ? []
          : [{ code: 'unknown', at: `tilts ${when}`, what: 'family', name }],
      ),
    ),
    ...Object.entries(data.sheet.names).flatMap(([fault, names]) =>
      names.flatMap((name): KnowledgeIssue[] =>
        keys.has(name) ? [] : [{ code: 'unknown', at: `sheet ${fault}`, what: 'cause', name }],
      ),
    ),
    ...data.causes.flatMap((c) => lintSeen(data, c)),
    ...data.causes.flatMap((c): KnowledgeIssue[] => {
      const at = `cause ${c.key}`;
      return [
        ...Object.keys(c.works).flatMap((name): KnowledgeIssue[] =>
          known.has(name) ? [] : [{ code: 'unknown', at, what: 'mechanism', name }],
        ),
        // only that there is no fault shows in nothing
        ...(Object.keys(c.works).length > 0 || isQuiet(c) ? [] : [{ code: 'idle' as const, at }]),
        ...(c.symptoms in data.symptoms
          ? []
          : [{ code: 'unknown' as const, at, what: 'symptoms' as const, name: c.symptoms }]),
      ];
    }),
  ];
}

/** What shows a cause itself has to be a grade of a finding. */
function lintSeen({ findings }: CauseData, { key, seen }: CauseData['causes'][number]): KnowledgeIssue[] {
  return Object.entries(seen ?? {}).flatMap(([name, grades]): KnowledgeIssue[] => {
    const spec = findings.find((f) => f.finding === name);
    const at = `cause ${key}, seen`;
    if (!spec) return [{ code: 'unknown', at, what: 'finding', name }];
    return grades.flatMap((g): KnowledgeIssue[] =>
      g in spec.off ? [] : [{ code: 'unknown', at: `${at}, ${name}`, what: 'grade', name: g }],
    );
  });
}

/** Causes that set the same mechanisms off as surely, are noticed alike after as long, and are no fault of their own on the sheet. */
function alike({ causes, sheet }: CauseData): KnowledgeIssue[] {
  const named = new Set(Object.values(sheet.names).flat());
  return causes.flatMap((a, i) =>
    causes.slice(i + 1).flatMap((b): KnowledgeIssue[] => {
      const keys = new Set([...Object.keys(a.works), ...Object.keys(b.works)]);
      const same = [...keys].every((k) => Math.abs((a.works[k] ?? 0) - (b.works[k] ?? 0)) < ALIKE);
      const run = a.symptoms === b.symptoms && a.life.shape === b.life.shape && a.life.scale === b.life.scale;
      const told = a.family !== b.family && keys.size === 0;
      return same && run && !told && !named.has(a.key) && !named.has(b.key)
        ? [{ code: 'alike', at: `cause ${a.key}`, other: b.key }]
        : [];
    }),
  );
}
