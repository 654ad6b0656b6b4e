/** What all of several say, alike in every part; undefined where they differ, one says nothing, or there is none. */
export function agreed<T>(all: readonly (T | undefined)[]): T | undefined {
  return new Set(all.map((x) => JSON.stringify(x))).size === 1 ? all[0] : undefined;
}
