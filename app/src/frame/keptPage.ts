/** Whether the browser keeps this page, so that it opens without the gateway; and whether a newer one waits. */

/** `not`: it does not, or not yet. `newer`: one waits until every tab of the page is closed. */
type KeptPage = 'not' | 'kept' | 'newer';

let state: KeptPage = 'not';
const listeners = new Set<() => void>();

function become(next: KeptPage): void {
  state = next;
  for (const tell of listeners) tell();
}

export const keptPage = {
  subscribe: (tell: () => void) => {
    listeners.add(tell);
    return () => listeners.delete(tell);
  },
  getSnapshot: () => state,
};

function watch(registration: ServiceWorkerRegistration): void {
  const look = (): void => {
    if (registration.waiting) become('newer');
    else if (registration.active) become('kept');
  };
  look();
  registration.addEventListener('updatefound', () => {
    registration.installing?.addEventListener('statechange', look);
  });
}

/** Browsers do it over HTTPS and on the gateway's own machine alone; elsewhere there is nothing to ask. */
export function keepPage(): void {
  if (!import.meta.env.PROD || !('serviceWorker' in navigator)) return;
  navigator.serviceWorker
    .register('/sw.js', { updateViaCache: 'none' })
    .then(watch)
    // Without room, or forbidden by the person: the page works as before, with the gateway.
    .catch(() => undefined);
}
