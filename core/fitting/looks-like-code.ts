/** True when a text looks like a code of a filled sheet: the start page asks this of all that is typed, so it stands alone. */
export const looksLikeCode = (text: string): boolean =>
  /^\s*HS[12][\s-]*[0-9A-Z][0-9A-Z\s-]{10,}$/i.test(text);
