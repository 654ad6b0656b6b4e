import { plural } from '../../language/plural';
import { BUNDLE, bundlePath, filesOf } from '@core/claim/bundle';
import { hashOf } from '../../records/hash';
import { type CaseFormat, jsonBlob } from './format';

/** The case with every file that it points to, and its report when it is sealed, as a zip. */
export const CASE_BUNDLE: CaseFormat = {
  name: 'Bundle',
  says: 'The case with its photographs, captures and issued report, as a zip',
  write: async (view, lent) => {
    const files = filesOf(view.state.log);
    const kept = await Promise.all(files.map((f) => lent.kept(f.hash)));
    const missing = files.filter((_, i) => kept[i] === undefined);
    const report = await lent.report(view);
    const file = lent.file(view, {
      missing: missing.map((m) => m.hash),
      report: report && (await hashOf(report)),
    });
    if (!file) return undefined;
    const { zipSync } = await import('fflate');
    const bytes = async (blob: Blob) => new Uint8Array(await blob.arrayBuffer());
    const entries: Record<string, Uint8Array> = { [BUNDLE.case]: await bytes(jsonBlob(file)) };
    for (const [i, f] of files.entries()) {
      const record = kept[i];
      if (record) entries[bundlePath(f)] = await bytes(record.blob);
    }
    if (report) entries[BUNDLE.report] = report;
    return {
      name: `case-${view.tag}.zip`,
      content: new Blob([zipSync(entries, { level: 6 })], { type: 'application/zip' }),
      ...(missing.length > 0
        ? {
            remark: `${missing.map((m) => m.name).join(', ')} ${plural(missing.length, 'is', 'are')} not in this browser, and so not in the bundle. It says so.`,
          }
        : {}),
    };
  },
};
