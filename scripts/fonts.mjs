// The first screen's letters as small files: what it needs of the typeface, cut out of the whole, which follows on need.
import { mkdir, readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { root } from './ensure.mjs';

/** Letters, figures and signs of plain English; every other character fetches the whole face. Kept with `app/styles/fonts.less`. */
const PLAIN = Array.from({ length: 95 }, (_, i) => String.fromCharCode(32 + i)).join('') + ' °±²·×«»–—‘’“”…−';
/** What the desk's styles ask of it. */
const FEATURES = ['kern', 'tnum', 'zero'];

export async function cutFonts() {
  const { default: cut } = await import('subset-font');
  const to = join(root, 'app/styles/cut');
  await mkdir(to, { recursive: true });
  await Promise.all(
    [400, 600].map(async (weight) => {
      const whole = `node_modules/@fontsource/ibm-plex-sans/files/ibm-plex-sans-latin-${weight}-normal.woff2`;
      const part = await cut(await readFile(join(root, whole)), PLAIN, {
        targetFormat: 'woff2',
        keepFeatures: FEATURES,
      });
      await writeFile(join(to, `plain-${weight}.woff2`), part);
    }),
  );
}
