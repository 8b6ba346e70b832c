/** How long to wait for another tab that is just being closed, ms. */
const PATIENCE_MS = 1500;

/** A garden's link belongs to one tab at a time: two would record two worlds into one log, and fight over a port. */
export function holdLink(gardenId: string): {
  readonly held: Promise<boolean>;
  readonly release: () => void;
} {
  let release: () => void = () => undefined;
  const released = new Promise<void>((resolve) => {
    release = resolve;
  });
  const held = new Promise<boolean>((resolve) => {
    // Without locks nobody can tell; the page says so and goes on, for refusing would leave no tab that works.
    if (!('locks' in navigator)) {
      resolve(true);
      return;
    }
    navigator.locks
      .request(`plain-trowel-link-${gardenId}`, { signal: AbortSignal.timeout(PATIENCE_MS) }, () => {
        resolve(true);
        return released;
      })
      // Not given in time: another tab holds it.
      .catch(() => resolve(false));
  });
  return { held, release: () => release() };
}
