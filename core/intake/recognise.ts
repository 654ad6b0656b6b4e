/** What something that came in is, by its name and how it begins. */
export type IncomingKind =
  | 'case'
  | 'sheet'
  | 'desk'
  | 'catalogue'
  | 'zip'
  | 'picture'
  | 'capture'
  | 'paper'
  | 'mail'
  | 'workbook'
  | 'text'
  | 'unknown';

export type Coming = {
  name: string;
  type: string;
  /** First signs of the content, as text. */ begins: string;
};

const PICTURE = /\.(jpe?g|png|gif|webp|heic|bmp|svg)$/i;
const PAPER = /\.(pdf|docx?|odt|xls|ods)$/i;
const WORKBOOK = /\.xlsx$/i;
const TABLES = /^\ufeff?"?(code|number|id|engine|variant|kit|part|key)"?[,;\t]/i;

/** Recognises a file; nothing is read of it yet. A zip may be a bundle or tables of a catalogue: who opens it tells. */
export function recognise({ name, type, begins }: Coming): IncomingKind {
  if (type.startsWith('image/') || PICTURE.test(name)) return 'picture';
  // A workbook and other papers are zips within; what they are called tells.
  if (WORKBOOK.test(name)) return 'workbook';
  if (PAPER.test(name)) return 'paper';
  if (/\.zip$/i.test(name) || begins.startsWith('PK\u0003\u0004')) return 'zip';
  if (begins.startsWith('%PDF')) return 'paper';
  if (/^\s*\{/.test(begins)) {
    if (/"format"\s*:\s*"hollow-sprocket-catalogue"/.test(begins)) return 'catalogue';
    if (/"format"\s*:\s*"hollow-sprocket-sheet"/.test(begins)) return 'sheet';
    if (/"format"\s*:\s*"hollow-sprocket-desk"/.test(begins)) return 'desk';
    return 'case';
  }
  if (/\.(eml|mbox)$/i.test(name) || /^From \S+.*\d{4}\s*$/m.test(begins.split('\n', 1)[0] ?? ''))
    return 'mail';
  if (/^(From|Received|MIME-Version|Return-Path):/im.test(begins.slice(0, 200))) return 'mail';
  if (/\.(csv|tsv|txt|dat)$/i.test(name) || type.startsWith('text/')) {
    if (isCapture(begins)) return 'capture';
    if (/\.csv$/i.test(name) && TABLES.test(begins)) return 'catalogue';
    return 'text';
  }
  return /^[\t\n\r\u0020-\u007e\u00a0-\uffff]*$/.test(begins) && begins !== '' ? 'text' : 'unknown';
}

/** Many lines of nothing but numbers, behind a few of headings: a recording. */
function isCapture(begins: string): boolean {
  const lines = begins.split(/\r?\n/).slice(0, -1).filter(Boolean);
  const numbers = lines.filter((l) => /^[-+\d.,;\t eE]+$/.test(l) && /[,;\t]/.test(l));
  return numbers.length >= 8 && numbers.length >= lines.length - 8;
}
