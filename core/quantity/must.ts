/**
 * What the code around has made sure of, said in one place: a bug throws here, and where it happened, instead of going on with
 * nothing. What may be missing in sound use is asked with `?.`, `??` or `if`.
 */
export function must<T>(value: T | undefined): T {
  if (value === undefined) throw new Error('nothing where something has to be');
  return value;
}

/** The same of what says null where there is nothing: elements of a page, groups of a pattern. */
export function found<T>(value: T | null | undefined): T {
  if (value === undefined || value === null) throw new Error('nothing found where something has to be');
  return value;
}

/** The entry of a list at an index that lies within it. */
export function nth<T>(list: ArrayLike<T>, i: number): T {
  const value = list[i];
  if (value === undefined) throw new RangeError(`no entry ${i} among ${list.length}`);
  return value;
}

/**
 * The same of numbers, for the inner loops of solvers: one function a kind of list, so that each stays as quick as the bare index
 * (measured: one for all kinds made the reading of captures three times as slow).
 */
export function num(list: readonly number[], i: number): number {
  return list[i] ?? outside(list, i);
}
export function byteAt(list: Uint8Array, i: number): number {
  return list[i] ?? outside(list, i);
}
export function pixelAt(list: Uint8ClampedArray, i: number): number {
  return list[i] ?? outside(list, i);
}
export function shortAt(list: Uint16Array, i: number): number {
  return list[i] ?? outside(list, i);
}
export function intAt(list: Int32Array, i: number): number {
  return list[i] ?? outside(list, i);
}
export function floatAt(list: Float32Array, i: number): number {
  return list[i] ?? outside(list, i);
}
export function doubleAt(list: Float64Array, i: number): number {
  return list[i] ?? outside(list, i);
}

function outside(list: ArrayLike<number>, i: number): never {
  throw new RangeError(`no number ${i} among ${list.length}`);
}
