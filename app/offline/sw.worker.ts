/// <reference lib="webworker" />
import { keepShared, SHARE_PATH } from './shared-in';

/**
 * The worker that stands between the page and the network: Angular's own serves the program from this machine; before it,
 * what other programs share is taken in, and what only a server can answer goes to the server.
 */
declare const self: ServiceWorkerGlobalScope;
const ANGULARS = './ngsw-worker.js';
/** Streams and shelves: a copy of an answer is no answer. */
const SERVERS_OWN = /^\/(instruments|captures|shelf|health)(\/|$)/;

type Policies = {
  createPolicy(
    name: string,
    rules: { createScriptURL(url: string): string },
  ): { createScriptURL(url: string): string };
};
const { trustedTypes } = self as unknown as { trustedTypes?: Policies };
const scripts = trustedTypes?.createPolicy('angular', {
  createScriptURL(url) {
    if (url !== ANGULARS) throw new TypeError(`${url} is no script of this program`);
    return url;
  },
});

self.addEventListener('fetch', (e) => {
  const url = new URL(e.request.url);
  if (url.origin !== self.location.origin) return;
  if (SERVERS_OWN.test(url.pathname)) {
    e.stopImmediatePropagation();
    return;
  }
  if (e.request.method === 'POST' && url.pathname === SHARE_PATH) {
    e.stopImmediatePropagation();
    e.respondWith(keepShared(e.request).then(() => Response.redirect(`/?${SHARE_PATH.slice(1)}`, 303)));
  }
});
importScripts(scripts?.createScriptURL(ANGULARS) ?? ANGULARS);
