import type { TextSpan } from '@core/intake/proposal';
import type { MessageRow } from './message-store';

/** A piece of the message; with a letter where a fact was read from it; `untaken` where it tells something that nothing takes. */
export type MessagePiece = { text: string; letter: string; left: boolean; untaken?: true };

/** Cuts a message where facts were read; where two readings share a place the first one marks it. */
export function messagePieces(
  message: string,
  rows: readonly Pick<MessageRow, 'letter' | 'take' | 'proposal'>[],
  untaken: readonly TextSpan[] = [],
): MessagePiece[] {
  const read = rows.flatMap((r) =>
    r.proposal.spans.map((s) => ({
      ...s,
      letter: r.letter || '·',
      left: r.take === 'leave',
      untaken: false,
    })),
  );
  const spans = [...read, ...untaken.map((s) => ({ ...s, letter: '', left: false, untaken: true }))].sort(
    (a, b) => a.from - b.from || b.to - a.to,
  );
  const out: MessagePiece[] = [];
  let at = 0;
  for (const s of spans) {
    if (s.from < at) continue;
    if (s.from > at) out.push({ text: message.slice(at, s.from), letter: '', left: false });
    out.push({
      text: message.slice(s.from, s.to),
      letter: s.letter,
      left: s.left,
      ...(s.untaken ? { untaken: true as const } : {}),
    });
    at = s.to;
  }
  if (at < message.length) out.push({ text: message.slice(at), letter: '', left: false });
  return out;
}
