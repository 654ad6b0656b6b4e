/** The first letter large. */
export const capital = (s: string): string => s.charAt(0).toUpperCase() + s.slice(1);
