import type { TDocumentDefinitions } from 'pdfmake/interfaces';
import { download } from './download';
import { pdfBlob } from './make-pdf';

/** Hands the document to the browser as a file. */
export const downloadPdf = async (doc: TDocumentDefinitions, name: string): Promise<void> =>
  download(name, await pdfBlob(doc));
