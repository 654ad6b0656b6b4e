import { checkPack } from '@core/catalogue/check-pack';
import { PackSchema } from '@core/catalogue/pack';

/** Why a catalogue of an earlier make cannot answer any more, with the place; undefined when it can. */
export function whyNoPack(pack: unknown): string | undefined {
  const read = PackSchema.safeParse(pack);
  if (!read.success) {
    const [first] = read.error.issues;
    return `it is of an earlier make and lacks what answers need (${(first?.path ?? []).map(String).join(' › ')}); import it again`;
  }
  const [issue] = checkPack(read.data);
  return (
    issue &&
    `it has a fault that is refused today (${issue.table} ${issue.row}, ${issue.column}: ${issue.reason.code}); import it again, mended`
  );
}
