import { type CaseFormat, jsonBlob } from './format';

/** The case alone: its facts and the part of the catalogue that its answers need. */
export const CASE_JSON: CaseFormat = {
  name: 'Case as JSON',
  says: 'The case alone, as an open file',
  write: (view, lent) => {
    const file = lent.file(view);
    return Promise.resolve(file && { name: `case-${view.tag}.json`, content: jsonBlob(file) });
  },
};
