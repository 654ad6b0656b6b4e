/** A name inside a sentence: its first letter small, unless it is a sign or code of its own ("M8 thread", "TDC"). */
export const lower = (s: string): string =>
  /^[A-Z][a-z]/.test(s) ? s.charAt(0).toLowerCase() + s.slice(1) : s;
