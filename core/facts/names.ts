import { nth } from '@core/quantity/must';

const words = (s: string) =>
  s
    .toLowerCase()
    .split(/[\s,–-]+/)
    .filter(Boolean);

/** True when what was typed is the initials of a name, or every word of it begins a word of the name. @example isCalled('right upper', 'ru') // true */
export function isCalled(name: string, typed: string): boolean {
  const [own, said] = [words(name), words(typed)];
  if (own.length === 0 || said.length === 0) return false;
  const initials = own.map((w) => w[0]).join('');
  if (said.length === 1 && nth(said, 0).length > 1 && initials.startsWith(nth(said, 0))) return true;
  return said.every((t) => own.some((w) => w.startsWith(t)));
}
