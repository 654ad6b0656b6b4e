import type { Content } from 'pdfmake/interfaces';
import type { Answers } from '@core/answer/answers';
import { balanceWords, OBLIGATION } from '../messages/pieces';
import { wayBackWords, brokenWords, oddWords, rulesOn, shownWords } from '../messages/fitting';

/** What was told or came back of the fitting: faults with their steps, order, figures, what nobody confirmed. */
export function fittingPart(a: Answers, heading: (text: string) => Content): Content[] {
  const { fitted, sheet } = a;
  if (!fitted || !sheet) return [];
  const told = new Set(fitted.faults.map((f) => `${f.step} ${f.other ?? ''}`));
  const lines = [
    ...fitted.faults.map((f) => shownWords(f, sheet)),
    ...fitted.broken
      .filter((b) => b.how === 'reversed' && !told.has(`${b.gate.after} ${b.gate.before}`))
      .map((b) => brokenWords(b, sheet)),
    ...fitted.odd.map((o) => oddWords(o, sheet)),
    ...wayBackWords(fitted, sheet),
  ];
  const numbers = sheet.steps.filter((s) => fitted.unconfirmed.includes(s.id)).map((s) => s.number);
  const rules = rulesOn(sheet, a.policy);
  return [
    heading('The fitting, as it was told'),
    {
      text: `${fitted.said.size} of ${sheet.steps.length} steps of “${sheet.name}” were told. ${
        lines.length === 0 ? 'Nothing in them speaks of a fault.' : ''
      }`,
    },
    ...(lines.length > 0 ? [{ ul: lines }] : []),
    ...(numbers.length > 0
      ? [{ text: `Not confirmed, and so evidence of nothing: steps ${numbers.join(', ')}.` }]
      : []),
    ...(rules.length > 0 ? [{ text: `Policy of the sheet: ${rules.join(' ')}` }] : []),
  ];
}

/** Pieces accounted for by mass, and what a missing one obliges the workshop to. */
export function piecesPart(a: Answers, heading: (text: string) => Content): Content[] {
  if (a.balances.length === 0) return [];
  return [
    heading('Material accounted for'),
    { ul: a.balances.map(balanceWords) },
    ...(a.balances.some((b) => b.verdict === 'missing') ? [{ text: OBLIGATION, bold: true }] : []),
  ];
}
