/** Where a plain key belongs to what has the focus: boxes, tiles, lists with letters of their own, and what lies over the page. */
const OWNERS =
  'input, textarea, [role=listbox], [role=option], [role=group], [role=radio], .cdk-overlay-container';

/**
 * True when a plain key may mean something of the page: no modifier, not taken yet, and nothing in focus has keys of its own.
 * @param own part of the page whose own controls let it through
 */
export function isFreeKey(e: KeyboardEvent, own?: HTMLElement): boolean {
  if (e.ctrlKey || e.metaKey || e.altKey || e.defaultPrevented) return false;
  const target = e.target instanceof HTMLElement ? e.target : document.body;
  return target.closest(OWNERS) === null || own?.contains(target) === true;
}

/** True where keys are letters of a text. */
export const isBox = (t: EventTarget | null): boolean =>
  t instanceof HTMLTextAreaElement || (t instanceof HTMLInputElement && t.type !== 'radio');
