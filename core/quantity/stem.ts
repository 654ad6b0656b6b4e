/** Beginning that the words of one family share: plural s, -ed, -ing, a doubled letter and a last e left out. @example stemOf('slipped') // "slip" */
export function stemOf(low: string): string {
  let stem = low;
  if (stem.length > 5 && stem.endsWith('ing')) stem = stem.slice(0, -3);
  else if (stem.length > 4 && stem.endsWith('ed')) stem = stem.slice(0, -2);
  else if (stem.length > 4 && stem.endsWith('ies')) stem = `${stem.slice(0, -3)}y`;
  else if (stem.length > 3 && stem.endsWith('s') && !stem.endsWith('ss')) stem = stem.slice(0, -1);
  if (stem !== low && /([bdgklmnprt])\1$/.test(stem) && stem.length > 3 && !/(ll|ss)$/.test(stem))
    stem = stem.slice(0, -1);
  return stem.length > 4 && stem.endsWith('e') ? stem.slice(0, -1) : stem;
}
