import { resultOf } from '../threads/worker-client';
import { deskThread } from './desk-job';

/** A table as a workbook with one sheet, written in a thread; why not, where it was not. @param rows heading first; days as "2026-03-12" */
export async function workbookOf(
  sheet: string,
  rows: readonly (readonly (string | number)[])[],
): Promise<{ blob: Blob } | { failed: string }> {
  const thread = deskThread();
  const made = await resultOf(thread.job('workbook', { sheet, rows: rows.map((r) => [...r]) }));
  thread.dispose();
  return made.ok ? { blob: made.value } : { failed: made.error.detail };
}
