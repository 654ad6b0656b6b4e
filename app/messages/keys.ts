/** A place of the program that has keys of its own. */
export type PlaceOfKeys = 'start' | 'case' | 'drive' | 'catalogue';

/** The keys of a place beside those of the commands. */
export const PLACE_KEYS: Record<PlaceOfKeys, readonly { key: string; does: string }[]> = {
  start: [
    { key: 'Enter', does: 'On the line to begin: open what is marked, else a new case with what was typed' },
  ],
  case: [
    { key: 'Enter', does: 'In a field: file it, and on to what is still lacking' },
    { key: 'A letter', does: 'On tiles: press the one with that letter; the same again takes it back' },
    { key: '← →', does: 'On tiles: walk; Space presses' },
    { key: 'F2', does: 'In a field: how it is known, the next way' },
    { key: 'Esc', does: 'In a field: leave it as it was' },
    {
      key: 'A letter',
      does: 'On what was understood of a message: take or leave that line; with Shift: change it',
    },
    { key: 'Enter', does: 'On what was understood of a message: file what is taken' },
    { key: 't', does: 'On a call: they were told the answer; y copies it, p and e save it' },
    { key: 'l', does: 'On a call: look at the first of the earlier cases' },
    { key: 'A letter', does: 'On a belt or chain unrolled: mark this tooth or link so; arrows walk' },
    { key: 'Page ↑ ↓', does: 'On the bench: another thing in hand; + adds another of its kind' },
    { key: 'Shift+Enter', does: 'On a look at a part: pass it over as not examined, and on to the next' },
    { key: '↑ ↓', does: 'On the looks at a part, or the steps of a fitting: walk' },
    { key: 'Alt+↑ ↓', does: 'On a step: try it earlier or later; what that would break is told' },
    { key: 'd n o', does: 'On a step: done, not done, done otherwise; the same again takes it back' },
    { key: 'p w r', does: 'At Fit: the sheet as PDF, for the fitter’s phone; one came back' },
    { key: 'Tab', does: 'On the fact line: take the name that is marked' },
  ],
  drive: [
    { key: 'Ctrl+Z', does: 'Take the last turn of a knob back' },
    { key: '← →', does: 'On a slider: one step' },
    { key: '+ −', does: 'On the drawing: closer, further' },
  ],
  catalogue: [
    { key: 'Backspace', does: 'On the page of an engine: back to where you came from' },
    { key: '↑ ↓', does: 'In the table: row by row' },
  ],
};

/** Place that an address belongs to. */
export function placeOf(url: string): PlaceOfKeys {
  if (/^\/(case\/[^/]+\/)?drive\b/.test(url)) return 'drive';
  if (url.startsWith('/case/')) return 'case';
  return url.startsWith('/catalogue') ? 'catalogue' : 'start';
}
