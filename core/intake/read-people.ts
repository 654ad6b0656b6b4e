import { nth } from '@core/quantity/must';
import type { Proposal, TextSpan } from './proposal';
import type { Said } from './said';
import { WORDS } from './words';

const NAME = "[A-Z][\\p{L}'’-]+ [A-Z][\\p{L}'’-]+";
const PLACE = `(?:[A-Z][\\p{L}'’-]+ ){1,3}(?:${WORDS.places.map((p) => nth(p, 0).toUpperCase() + p.slice(1)).join('|')})`;
const re = (body: string) => new RegExp(body, 'u');

/** Ways in which somebody says who they are; the groups `n` and `p` are name and workshop. */
const FORMS = [
  re(
    `(?:it['’]s|this is|here is|[Mm]e again,?|speaking is)\\s+(?<n>${NAME})(?:\\s+(?:from|of|at)(?: the)?\\s+|,\\s+)(?<p>${PLACE})`,
  ),
  re(`(?<n>${NAME})\\s+(?:here,?|from(?: the)?|of)\\s+(?<p>${PLACE})`),
  re(`(?<n>${NAME}),\\s+(?<p>${PLACE})`),
  re(`(?<p>${PLACE}),\\s+(?<n>${NAME})(?=[.,\\s]*$)`),
  re(`(?:regards|faithfully|sincerely|wishes|Greetings),?\\s+(?<n>${NAME})(?=[.\\s]*$)`),
  re(`(?:from|[Aa]pplicant:?|[Ww]orkshop:)\\s+(?<p>${PLACE})`),
];

/** The caller by name and workshop, as they call themselves; a shop where a kit was bought is not the caller. */
export function readPeople({ text }: Said): Proposal[] {
  const out: Proposal[] = [];
  const bought = re(`bought[^.]*?\\bfrom(?: the)?\\s+(?<p>${PLACE})`).exec(text);
  const shop = bought?.groups?.['p'];
  if (bought && shop !== undefined)
    out.push(
      person('kit.bought', shop, {
        from: bought.index + bought[0].length - shop.length,
        to: bought.index + bought[0].length,
      }),
    );
  for (const form of FORMS) {
    const m = form.exec(text);
    const [n, p] = [m?.groups?.['n'], m?.groups?.['p']];
    if (!m || (p !== undefined && p === shop)) continue;
    const who = [n, p].filter((x) => x !== undefined).join(', ');
    const from = m.index + m[0].search(/[A-Z][\p{L}'’-]+ [A-Z]/u);
    out.push(person('call.who', who, { from, to: m.index + m[0].length }));
    break;
  }
  return out;
}

const person = (key: string, value: string, span: TextSpan): Proposal => ({
  key,
  value,
  how: 'reported',
  sure: 'likely',
  spans: [span],
});
