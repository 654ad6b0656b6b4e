import { type ParseError, parse } from 'jsonc-parser';
import { type Result, err, ok } from './result';

/** Where a text stops being JSON, counted from 1, and what the engine says of it. */
export type JsonFault = { line: number; column: number; detail: string };

/** Deeper than this nothing of ours goes; deeper files overflow whatever walks them. */
export const DEEPEST = 60;

/** Where a text opens more lists and objects within each other than are read; undefined where it does not. Linear, without recursion. */
function tooDeep(text: string): number | undefined {
  let [depth, inText] = [0, false];
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i);
    if (inText) {
      if (c === 0x5c) i++;
      else if (c === 0x22) inText = false;
    } else if (c === 0x22) inText = true;
    else if (c === 0x5b || c === 0x7b) {
      if (++depth > DEEPEST) return i;
    } else if (c === 0x5d || c === 0x7d) depth--;
  }
  return undefined;
}

/** Reads JSON. The engine's own message does not always tell where it went wrong; a tolerant reader finds the place. */
export function parseJson(text: string): Result<unknown, JsonFault> {
  const deep = tooDeep(text);
  if (deep !== undefined)
    return err({
      ...placeOf(text, deep),
      detail: `lists and objects lie more than ${DEEPEST} deep in each other`,
    });
  try {
    return ok(JSON.parse(text));
  } catch (e) {
    const errors: ParseError[] = [];
    parse(text, errors, { disallowComments: true, allowTrailingComma: false, allowEmptyContent: false });
    return err({
      ...placeOf(text, errors[0]?.offset ?? text.length),
      detail: e instanceof Error ? e.message : String(e),
    });
  }
}

function placeOf(text: string, at: number): { line: number; column: number } {
  const before = text.slice(0, at);
  return { line: before.split('\n').length, column: before.length - before.lastIndexOf('\n') };
}
