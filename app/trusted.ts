type Policies = {
  createPolicy(
    name: string,
    rules: { createScriptURL(url: string): string; createHTML(html: string): string },
  ): unknown;
};

const ATTRIBUTE =
  '(?: (?:viewBox|focusable|fill|width|height|class|data-icon|aria-hidden|d|fill-rule|opacity)="[^"<>]*")*';
/** A picture made of nothing but outlines: no script, no link, no style and no event can be in it. */
const OUTLINES = new RegExp(`^<svg${ATTRIBUTE}>(?:<path${ATTRIBUTE} ?(?:/>|></path>))*</svg>$`);

/** True for the icons of the library, which it writes as text. */
export const isOutlines = (html: string): boolean => OUTLINES.test(html);

/**
 * The page's policy takes no script from a text. The one thing that threads of our own need is the address of their file:
 * this lets addresses of this very server pass, and pictures of nothing but outlines, which the library's icons are. All other
 * HTML, and any script from text, stay forbidden.
 */
export function trustOwnScripts(): void {
  const { trustedTypes } = window as unknown as { trustedTypes?: Policies };
  trustedTypes?.createPolicy('default', {
    createScriptURL(url) {
      if (new URL(url, location.href).origin !== location.origin)
        throw new TypeError(`${url} is no script of this program`);
      return url;
    },
    createHTML(html) {
      // A chart empties its box before it paints.
      if (html !== '' && !isOutlines(html)) throw new TypeError('no HTML is made from text');
      return html;
    },
  });
}
