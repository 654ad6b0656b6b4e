type Policies = {
  createPolicy(name: string, rules: { createScriptURL(url: string): string }): unknown;
};

/**
 * The page's policy takes no script from a text. The one thing that threads of our own need is the address of their file:
 * this lets addresses of this very server pass, and nothing else; HTML and script from text stay forbidden.
 */
export function trustOwnScripts(): void {
  const { trustedTypes } = window as unknown as { trustedTypes?: Policies };
  trustedTypes?.createPolicy('default', {
    createScriptURL(url) {
      if (new URL(url, location.href).origin !== location.origin)
        throw new TypeError(`${url} is no script of this program`);
      return url;
    },
  });
}
