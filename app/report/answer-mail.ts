import { createMimeMessage } from 'mimetext/browser';
import { fileNameText, headerText } from '@core/quantity/header-text';
import { type AnswerHead, headLine } from './answer-document';

/** Stands in for an address: the sender's own mail program asks for the real one. */
const NOBODY = 'recipient@example.invalid';

/** An answer as a message file (RFC 5322, MIME) to be opened in a mail program and sent from there, with the drawing attached. */
export function answerMail(h: AnswerHead, text: string, svg: string | undefined, at: string): string {
  const mail = createMimeMessage();
  mail.setSender({ name: headerText(h.by), addr: 'desk@example.invalid' });
  mail.setRecipient({ name: headerText(h.to) || 'Caller', addr: NOBODY });
  mail.setSubject(
    headerText(
      `Case ${h.tag}${h.engine ? `, ${h.engine}` : ''}: ${(text.split('\n')[0] ?? '').slice(0, 120)}`,
    ),
  );
  mail.setHeader('Date', new Date(at).toUTCString());
  // Opened as a draft, not as something that came in.
  mail.setHeader('X-Unsent', '1');
  mail.addMessage({ contentType: 'text/plain', data: `${text}\n\n${headLine(h)}\n` });
  if (svg !== undefined)
    mail.addAttachment({
      filename: fileNameText(`drawing-${h.tag}.svg`),
      contentType: 'image/svg+xml',
      data: base64(svg),
    });
  return mail.asRaw();
}

function base64(text: string): string {
  let bytes = '';
  for (const b of new TextEncoder().encode(text)) bytes += String.fromCharCode(b);
  return btoa(bytes);
}
