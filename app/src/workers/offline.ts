/**
 * The page's service worker: keeps the whole page in the browser, so that it opens without the gateway, with the gardens that lie in this browser. What the
 * gateway knows (/api) is never kept. A newer page is fetched beside the one that is in use, and takes its place once no tab uses the old one any more: nothing
 * is changed under somebody's hands.
 */
import { cleanupOutdatedCaches, createHandlerBoundToURL, precacheAndRoute } from 'workbox-precaching';
import { NavigationRoute, registerRoute } from 'workbox-routing';

/** Put in by the build (`pageFiles.ts`): every file of the page; those whose name does not tell what is in them with a sum. */
declare const __PAGE_FILES__: { readonly url: string; readonly revision: string | null }[];

precacheAndRoute(__PAGE_FILES__);
cleanupOutdatedCaches();
// Every address of the page is one file; what the gateway answers itself is not the page.
registerRoute(
  new NavigationRoute(createHandlerBoundToURL('/index.html'), {
    denylist: [/^\/(api|healthz|metrics)\b/, /\.\w+$/],
  }),
);
