/** The only place where a turning sense becomes a word, seen from the timing side. */
export const senseWord = (s: 'cw' | 'ccw'): string => (s === 'cw' ? 'clockwise' : 'anticlockwise');

/** Finds a turning sense that somebody typed into a text, where it may contradict the layout. */
export const typedSense = (text: string): string | undefined =>
  /\b(?:anti-?|counter-?)?clockwise\b/i.exec(text)?.[0];
