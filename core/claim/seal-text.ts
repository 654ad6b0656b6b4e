/** What the square code on an issued paper says: which issue of which case, and its digest. */
export type SealOnPaper = { case: string; issue: number; digest: string };

const HEAD = 'hollow-sprocket:issue';

/** "hollow-sprocket:issue:<case>:<issue>:<digest>"; colons and per cents of a case's id are escaped. */
export const sealText = (s: SealOnPaper): string =>
  [HEAD, encodeURIComponent(s.case), String(s.issue), s.digest].join(':');

/** The issue that a code names; undefined where the text is none of ours. */
export function readSealText(text: string): SealOnPaper | undefined {
  const m = /^hollow-sprocket:issue:([^:\s]{1,400}):([1-9]\d{0,5}):([0-9a-f]{64})$/.exec(text.trim());
  if (!m) return undefined;
  const [, id = '', issue = '', digest = ''] = m;
  try {
    return { case: decodeURIComponent(id), issue: Number(issue), digest };
  } catch {
    return undefined;
  }
}
