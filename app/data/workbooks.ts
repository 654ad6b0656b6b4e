import { resultOf } from '../threads/worker-client';
import { deskThread } from './desk-job';

/** Tables as a workbook, a sheet each, written in a thread; why not, where it was not. Rows: heading first; days as "2026-03-12". */
export async function workbookOf(
  sheets: readonly { sheet: string; rows: readonly (readonly (string | number)[])[] }[],
): Promise<{ blob: Blob } | { failed: string }> {
  const thread = deskThread();
  const made = await resultOf(
    thread.job(
      'workbook',
      sheets.map((s) => ({ sheet: s.sheet, rows: s.rows.map((r) => [...r]) })),
    ),
  );
  thread.dispose();
  return made.ok ? { blob: made.value } : { failed: made.error.detail };
}
