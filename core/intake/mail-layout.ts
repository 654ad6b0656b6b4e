import { nth } from '@core/quantity/must';
import { GRAMMAR } from './grammar';
import { repeatedFrom } from './mail-head';
import type { TextSpan } from './proposal';

/** A message without what is not its writer's own saying: as long as the text, the rest blanked, so that places stay. */
export type MailLayout = {
  body: string;
  /** Closing, name and firm. */
  signature: string;
  /** Questions of an earlier mail between which the writer answers. */
  asked: readonly TextSpan[];
};

type Line = { text: string; from: number; to: number };

const linesOf = (text: string): Line[] => {
  let from = 0;
  return text.split('\n').map((line) => {
    const at = from;
    from += line.length + 1;
    return { text: line, from: at, to: at + line.length };
  });
};

const QUOTED = /^\s*(?:>|\|)(?:\s|$|>)/;
const WROTE = /^\s*(?:>\s*)?on\b.{0,80}\b(?:wrote|writes)\s*:\s*$/i;
const FORWARDED = /^[-–—\s]*(?:forwarded|original message|begin forwarded|fw)\b.*$/i;
const HEADER = /^\s*(?:from|to|cc|date|sent)\s*:\s+\S/i;
/** Behind a letter's end the letter goes on. */
const GOES_ON = /^\s*(?:p\.?\s?s\.?\b|edit\b|\*edit\*|update\b|>|\||[-–—]{3,})/i;
const CLOSING = new RegExp(`\\b(?:${GRAMMAR.closings.join('|')})\\b`, 'i');
const GREETING =
  /^\s*(?:dear|hello|hi|hey|good (?:day|morning|evening|afternoon)|to the|gentle|respected|morning|boss)\b[^.?!:]{0,60}[,:!]?\s*$/i;
/** Longest closing line, and lines of a signature at most. */
const SHORT_LINE = 64;
const SIGN_LINES = 6;

/** Parts a message: quoted mail, headers and signature are not read for facts; a quoted question gives its subject. */
export function layoutOf(text: string): MailLayout {
  const lines = linesOf(text);
  const cut: TextSpan[] = [];
  const asked: TextSpan[] = [];
  const repeated = repeatedFrom(lines.map((l) => l.text));
  if (repeated !== undefined) cut.push({ from: nth(lines, repeated).from, to: text.length });
  let signature = '';
  for (const m of text.matchAll(/\[quote[^\]]*\][\s\S]*?(?:\[\/quote\]|$)/gi))
    cut.push({ from: m.index, to: m.index + m[0].length });
  const answersBetween = lines.some(
    (l, i) => QUOTED.test(l.text) && l.text.includes('?') && !QUOTED.test(lines[i + 1]?.text ?? '>'),
  );
  lines.forEach((l) => {
    if (WROTE.test(l.text) || HEADER.test(l.text) || FORWARDED.test(l.text)) cut.push(l);
    if (!QUOTED.test(l.text)) return;
    cut.push(l);
    if (answersBetween && l.text.includes('?')) asked.push({ from: l.from, to: l.to });
  });
  for (let i = 0; i < lines.length; i++) {
    const line = lines[i];
    if (!line || !closes(line.text, lines[i + 1])) continue;
    let end = i;
    while (end + 1 < lines.length && end - i < SIGN_LINES && !GOES_ON.test(lines[end + 1]?.text ?? '')) end++;
    const to = lines[end]?.to ?? text.length;
    signature += `${text.slice(line.from, to)}\n`;
    cut.push({ from: line.from, to });
    i = end;
  }
  // A last line of names alone needs no closing words.
  const last = [...lines].reverse().find((l) => l.text.trim() !== '');
  if (last && lines.length > 1 && signature === '' && namesOnly(last.text)) {
    signature = last.text;
    cut.push(last);
  }
  // Dots that lead to a figure part nothing.
  for (const m of text.matchAll(/[ .]{0,2}\.{3,}|(?<=\s)\.{2,}(?=\s)/g))
    cut.push({ from: m.index, to: m.index + m[0].length });
  return { body: blank(text, cut), signature, asked };
}

/** A short line with the words of an end and no more to say, before names or the end. */
function closes(line: string, next: Line | undefined): boolean {
  const words = line
    .replace(/[^\p{L}\s]/gu, ' ')
    .trim()
    .split(/\s+/);
  if (line.trim().length === 0 || !CLOSING.test(line) || GREETING.test(line) || /[?\d:]/.test(line))
    return false;
  const last = words.at(-1) ?? '';
  const ends = next === undefined || next.text.trim() === '' || nameBegins(next.text);
  if (!ends) return false;
  if (CLOSING.test(last) && words.length <= 12) return true;
  if (line.length > SHORT_LINE || words.length > 10) return false;
  return (
    CLOSING.test(words[0] ?? '') || words.length <= 6 || /^(?:with|many|kind|best)$/i.test(words[0] ?? '')
  );
}

const nameBegins = (line: string): boolean =>
  /^\p{Lu}[\p{L}'’.-]*(?:[ ,]|$)/u.test(line) && line.split(/\s+/).length <= 8 && !/[?\d]/.test(line);

/** Words that all begin with a capital, up to small joining ones: a name, a firm. */
function namesOnly(line: string): boolean {
  const words = line
    .replace(/[^\p{L}'’&\s.,-]/gu, '')
    .trim()
    .split(/[\s,]+/)
    .filter(Boolean);
  if (words.length < 2 || words.length > 10 || /[?\d:]/.test(line)) return false;
  return (
    words.every(
      (w) =>
        /^\p{Lu}/u.test(w) ||
        /^(?:of|the|and|at|&|in|de|von|van|county|workshop|warranty|claims|office|bursar|spares|in|charge|in-charge)$/i.test(
          w,
        ),
    ) && !/[!]\s*$/.test(line)
  );
}

/** Blanks spans, keeping line ends and length. */
function blank(text: string, spans: readonly TextSpan[]): string {
  if (spans.length === 0) return text;
  const out = [...Array(text.length).keys()].map((i) => text[i] ?? '');
  for (const s of spans) for (let i = s.from; i < s.to; i++) if (out[i] !== '\n') out[i] = ' ';
  return out.join('');
}
