import * as z from 'zod';
import '@core/quantity/plain-schemas';
import type { CauseData } from '@core/cause/cause-data';
import type { Registry } from '@core/facts/observable';
import { type Result, err, ok } from '@core/quantity/result';
import { type Run, RunSchema } from './record';
import { VirtualCaseSchema } from './virtual-case';

/** Most returns and runs that one file brings. */
const MOST = 500;
const FileSchema = z.strictObject({
  format: z.literal('hollow-sprocket-practice'),
  formatVersion: z.literal(1),
  /** Who judged, as that desk calls itself; only beside runs. */
  by: z.string().min(1).max(120),
  returns: z.array(VirtualCaseSchema).max(MOST),
  runs: z.array(RunSchema).max(MOST),
});
export type PracticeFile = Readonly<z.infer<typeof FileSchema>>;
export type PracticeFileError =
  | { code: 'no_json' }
  | { code: 'no_practice_file' }
  | { code: 'newer_version'; version: number }
  | { code: 'wrong'; at: string; why: string }
  | { code: 'unknown_cause'; at: string; cause: string }
  | { code: 'unknown_observable'; at: string; key: string };

export const writePracticeFile = (f: Pick<PracticeFile, 'by' | 'returns' | 'runs'>): string =>
  `${JSON.stringify({ format: 'hollow-sprocket-practice', formatVersion: 1, ...f } satisfies PracticeFile, undefined, 1)}\n`;

/** A file of returns and runs: all of it or nothing, and nothing that this desk does not know. */
export function readPracticeFile(
  text: string,
  { registry, causes }: { registry: Registry; causes: CauseData },
): Result<PracticeFile, PracticeFileError> {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    return err({ code: 'no_json' });
  }
  const head = z
    .looseObject({ format: z.literal('hollow-sprocket-practice'), formatVersion: z.number() })
    .safeParse(json);
  if (!head.success) return err({ code: 'no_practice_file' });
  if (head.data.formatVersion > 1) return err({ code: 'newer_version', version: head.data.formatVersion });
  const file = FileSchema.safeParse(json);
  if (!file.success) {
    const [issue] = file.error.issues;
    return err({ code: 'wrong', at: issue?.path.join('.') ?? '', why: issue?.message ?? '' });
  }
  const known = new Set(causes.causes.map((c) => c.key));
  const all: { at: string; c: Run['case'] }[] = [
    ...file.data.returns.map((c, i) => ({ at: `returns.${i}`, c })),
    ...file.data.runs.map((r, i) => ({ at: `runs.${i}`, c: r.case })),
  ];
  for (const { at, c } of all) {
    if (!known.has(c.cause)) return err({ code: 'unknown_cause', at, cause: c.cause });
    const strange = [...c.opening, ...c.there].find((l) => !registry.has(l.key));
    if (strange) return err({ code: 'unknown_observable', at, key: strange.key });
  }
  return ok(file.data);
}
