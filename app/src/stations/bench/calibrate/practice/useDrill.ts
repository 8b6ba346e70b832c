import { useEffect, useState, useSyncExternalStore } from 'react';
import { DrillSession, type DrillShown } from './drillSession.ts';

const TICK_MS = 250;

/** The practice bench running in the page, so many times as fast as the clock. */
export function useDrill(speed: number): DrillShown & { readonly session: DrillSession } {
  const [session] = useState(() => new DrillSession());
  const shown = useSyncExternalStore(session.subscribe, session.getSnapshot);
  useEffect(() => {
    const timer = setInterval(() => session.tick(speed), TICK_MS);
    return () => clearInterval(timer);
  }, [session, speed]);
  return { ...shown, session };
}
