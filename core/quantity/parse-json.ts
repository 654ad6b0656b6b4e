import { type ParseError, parse } from 'jsonc-parser';
import { type Result, err, ok } from './result';

/** Where a text stops being JSON, counted from 1, and what the engine says of it. */
export type JsonFault = { line: number; column: number; detail: string };

/** Reads JSON. The engine's own message does not always tell where it went wrong; a tolerant reader finds the place. */
export function parseJson(text: string): Result<unknown, JsonFault> {
  try {
    return ok(JSON.parse(text));
  } catch (e) {
    const errors: ParseError[] = [];
    parse(text, errors, { disallowComments: true, allowTrailingComma: false, allowEmptyContent: false });
    const before = text.slice(0, errors[0]?.offset ?? text.length);
    return err({
      line: before.split('\n').length,
      column: before.length - before.lastIndexOf('\n'),
      detail: e instanceof Error ? e.message : String(e),
    });
  }
}
