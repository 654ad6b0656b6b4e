/** Lets a browser answer between the parts of a long test: a page that is held for many seconds counts as gone. */
export const breathe = (): Promise<void> => new Promise((done) => setTimeout(done));
