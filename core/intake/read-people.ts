import { nth } from '@core/quantity/must';
import { GRAMMAR } from './grammar';
import { headOf, writerOf } from './mail-head';
import type { Proposal, TextSpan } from './proposal';
import type { Speech } from './said';
import { WORDS } from './words';

const W = "\\p{Lu}[\\p{L}'’.-]*";
const SMALL = '(?:of|the|and|at|&|in|de|von|van)';
const TITLE = '(?:Mr|Mrs|Ms|Miss|Dr|Sir)\\.?';
const NAME = `(?:${TITLE} )?${W}(?: ${W}){0,2}`;
const FIRM_WORD = WORDS.places.map((p) => nth(p, 0).toUpperCase() + p.slice(1)).join('|');
const PLACE = `(?:(?:${W}|${SMALL}) ){0,5}(?:${FIRM_WORD})\\b(?: ${W})*`;
const LOW_FIRM = WORDS.places.join('|');
const re = (body: string, flags = 'u') => new RegExp(body, flags);

/** Ways in which somebody says who they are; the groups `n` and `p` are name and workshop. */
const FORMS = [
  re(
    `(?:it['’]s|this is|here is|[Mm]e again,?|speaking is|introduce myself:?|my name is)\\s+(?<n>${NAME})(?:\\s+(?:from|of|at)(?: the)?\\s+|,\\s+)(?<p>${PLACE})`,
  ),
  re(`(?:introduce myself:?|my name is)\\s+(?<n>${NAME})`),
  re(`^\\s*(?:\\d{1,2}[.:]\\d{2}\\s+)?(?<p>${PLACE}),\\s+(?<n>${NAME})[.,]`),
  re(`^\\s*(?<n>${W}(?: ${W})?)\\s+(?:@|at|from|of)\\s+(?:the )?(?<p>${PLACE})`),
  re(`^\\s*(?<n>${NAME}),\\s+(?<p>${PLACE})[.,]`),
  re(`^\\s*(?<n>${TITLE} ${W}(?: ${W})?)[,.]`),
  re(`^\\s*(?<n>Counter \\d+),\\s+(?<p>${W}(?: ${W})*)[.,]`),
  re(
    `(?:this is|its|it['’]s)\\s+(?<n>\\p{Ll}{2,12})\\s+(?:from|of|at)\\s+(?:the )?(?<p>(?:\\p{Ll}+ ){1,3}(?:${LOW_FIRM}))\\b`,
  ),
  re(`(?<n>${NAME})\\s+(?:here,?|from(?: the)?|of)\\s+(?<p>${PLACE})`),
  re(`(?<n>${NAME}),\\s+(?<p>${PLACE})(?=[.,\\s]*$)`),
  re(`(?<p>${PLACE}),\\s+(?<n>${NAME})(?=[.,\\s]*$)`),
  re(`(?:ringing|calling|phoning|writing)\\s+(?:for|from)\\s+(?:the )?(?<p>${PLACE})`),
  re(`(?:[Aa]pplicant:?|[Ww]orkshop:|from)\\s+(?<p>${PLACE})`),
];
const END = re(
  `(?:(?:^|[.!?\\n]\\s*|[—–-]\\s*)(?:(?:[Ww]ith|[Mm]any|[Kk]ind|[Bb]est|[Cc]ordial|[Ww]arm)\\s+)*(?:${GRAMMAR.closings.map((c) => `[${nth(c, 0)}${nth(c, 0).toUpperCase()}]${c.slice(1)}`).join('|')})\\b[ ,!.–—-]*(?:(?:${GRAMMAR.closings.join('|')})\\b[ ,!.–—-]*)*|\\s[—–]\\s+)(?<who>(?:${W}|${SMALL}|[\\p{Ll}]+)(?:[ ,]+(?:${W}|${SMALL}|[\\p{Ll}]+)){0,8})[.!\\s]*$`,
);
/** Words of an occupation and of an end, which are no name. */
const ROLES =
  /\b(?:master mechanic|mechanic|bursar|service desk|spares in-charge|workshop manager|technical (?:desk|service)|claims?|warranty office|that['’]s the workshop.*)\b/giu;
const ENDS = re(
  `^(?:(?:with|many|kind|best|cordial|warm|and|very|a|million|i|remain|sir|or|madam|again|so|much|collegial|good|night|evening|for|your|patience|in|advance|yours)\\b[ ,]*|(?:${GRAMMAR.closings.join('|')})\\b[ ,!.–—-]*)+`,
  'iu',
);

/** A line up to its closing word. */
const CLOSED = re(`^.*\\b(?:${GRAMMAR.closings.join('|')})\\b[ ,!.–—-]*(?=$|\\p{Lu}|\\p{Ll}{3,}$)`, 'iu');

/** The caller by name and workshop, as they call themselves; a shop where a kit was bought is not the caller. */
export function readPeople({ text, signature }: Speech): Proposal[] {
  const out: Proposal[] = [];
  const bought = re(`bought[^.]*?\\bfrom(?: the)?\\s+(?<p>${PLACE})`).exec(text);
  const shop = bought?.groups?.['p'];
  if (bought && shop !== undefined) out.push(person('kit.bought', shop, spanAt(text, shop)));
  const from = headOf(text)?.from;
  const who =
    signed(signature, text) ??
    ended(text) ??
    introduced(text, shop) ??
    (from === undefined ? undefined : writerOf(from));
  if (who !== undefined && who !== shop)
    out.push(person('call.who', who, spanAt(text, nth(who.split(','), 0))));
  return out;
}

/** Name and firm of a signature: its lines without the closing words, occupations and figures. */
function signed(signature: string, text: string): string | undefined {
  // Of several signatures the first writer's counts: what was forwarded has its own.
  const lines = signature
    .split('\n')
    .map((l) =>
      l
        .replace(CLOSED, '')
        .replace(ENDS, '')
        .replace(ROLES, '')
        .replace(/^[\s,.·–—-]+|[\s,.·–—-]+$/g, '')
        .replace(/\(.*\)/, '')
        .trim(),
    )
    .filter((l) => l !== '' && !/\d/.test(l) && re(`^${W}`).test(l));
  const [first, second] = lines;
  if (first === undefined) return undefined;
  const firm =
    second !== undefined && second.split(/\s+/).length < 8 && !/[.?!]/.test(second) ? second : undefined;
  // A first name alone may have been told with the firm at the beginning.
  if (firm === undefined && !first.includes(' ')) {
    const told = re(
      `(?:this is|it['’]s|here is)\\s+${first}\\s+(?:from|of|at)\\s+(?<p>${W}(?: ${W}|\\s${SMALL})*)`,
    ).exec(text)?.groups?.['p'];
    if (told !== undefined) return `${first}, ${told}`;
  }
  if (/^[A-Z]\. /.test(first) && firm === undefined) {
    const long = re(`(?:introduce myself:?|my name is)\\s+(?<n>${NAME})`).exec(text)?.groups?.['n'];
    if (long !== undefined) return long;
  }
  return firm === undefined ? first : `${first}, ${firm}`;
}

/** "Greetings, Bogumil, Workshop Three Storks" behind the last sentence. */
function ended(text: string): string | undefined {
  const who = END.exec(text.trimEnd())?.groups?.['who']?.replace(ROLES, '').trim();
  if (who === undefined || /\d/.test(who)) return undefined;
  const clean = who.replace(/\s+(?:at|from|of)\s+(?:the )?/, ', ').replace(/[\s,.]+$/, '');
  const capital = re(`^${W}`).test(clean);
  if (!capital && !re(`(?:${LOW_FIRM}|st)$`).test(clean.toLowerCase())) return undefined;
  return clean === '' || clean.length < 3 ? undefined : clean;
}

function introduced(text: string, shop: string | undefined): string | undefined {
  for (const form of FORMS) {
    const m = form.exec(text);
    const [n, p] = [m?.groups?.['n'], m?.groups?.['p']];
    if (!m || (p !== undefined && p === shop)) continue;
    if (n !== undefined && re(`^(?:${WORDS.notNames.join('|')})\\b`, 'iu').test(n)) continue;
    return [n, p].filter((x) => x !== undefined).join(', ');
  }
  return undefined;
}

function spanAt(text: string, name: string): TextSpan {
  const at = Math.max(0, text.lastIndexOf(name));
  return { from: at, to: Math.min(text.length, at + name.length) };
}

const person = (key: string, value: string, span: TextSpan): Proposal => ({
  key,
  value,
  how: 'reported',
  sure: 'likely',
  spans: [span],
});
