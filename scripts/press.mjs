// Presses the built app once, as small as it goes: the server hands that out instead of pressing at each request, quicker and less well.
import { readdir, readFile, stat, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { brotliCompress, constants } from 'node:zlib';

const press = promisify(brotliCompress);
/** Below it the answer's head outweighs what is saved. */
const WORTH = 512;

/** By it a newer program is known: handed out as it is, so that no pressed copy of yesterday can stand for it. */
const LIST = 'ngsw.json';

/** Writes each file of text in `folder` a second time beside itself, pressed: `name.br`. */
export async function pressAll(folder) {
  const names = (await readdir(folder)).filter((n) => /\.(js|css|json|svg)$/.test(n) && n !== LIST);
  await Promise.all(
    names.map(async (name) => {
      const path = join(folder, name);
      if ((await stat(path)).size < WORTH) return;
      const bytes = await readFile(path);
      const { BROTLI_PARAM_SIZE_HINT, BROTLI_PARAM_LGWIN, BROTLI_PARAM_QUALITY } = constants;
      const params = {
        [BROTLI_PARAM_QUALITY]: 11,
        [BROTLI_PARAM_LGWIN]: 24,
        [BROTLI_PARAM_SIZE_HINT]: bytes.length,
      };
      await writeFile(`${path}.br`, await press(bytes, { params }));
    }),
  );
}
