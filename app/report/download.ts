import { saveAs } from 'file-saver';

/** Hands a blob to the browser as a file. */
export const download = (name: string, blob: Blob): void => saveAs(blob, name, { autoBom: false });
