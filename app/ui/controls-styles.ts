let coming: Promise<void> | undefined;

/**
 * Fetches the stylesheet of the library's larger controls, once. Resolves when it is in force; also when it cannot be
 * fetched, so that the controls then show plainly instead of not at all.
 */
export function controlsStyles(): Promise<void> {
  coming ??= new Promise((done) => {
    const link = document.createElement('link');
    link.id = 'app-controls';
    link.rel = 'stylesheet';
    link.href = `controls-${document.documentElement.dataset['theme'] ?? 'light'}.css`;
    link.onload = () => done();
    link.onerror = () => {
      link.remove();
      coming = undefined;
      done();
    };
    document.getElementById('app-theme')?.after(link);
    if (!link.isConnected) done();
  });
  return coming;
}

/** What a part of the program shows itself with: its code and the controls' stylesheet together. */
export async function styled<T>(part: () => Promise<T>): Promise<T> {
  const [loaded] = await Promise.all([part(), controlsStyles()]);
  return loaded;
}
