import { useState } from 'react';
import { z } from '@plain-trowel/core/quantity/schema';

const ticksSchema = z.record(z.string().max(200), z.number());
type Ticks = Readonly<Record<string, number>>;

function readTicks(key: string): Ticks {
  try {
    return ticksSchema.catch({}).parse(JSON.parse(localStorage.getItem(key) ?? '{}'));
  } catch {
    return {};
  }
}

/** What was ticked, by the id of the step and when, ms since 1970; kept in this browser under a key, so that the bench may be left and come back to. */
export function useKeptTicks(key: string) {
  const [ticks, setTicks] = useState<Ticks>(() => readTicks(key));
  const keep = (next: Ticks) => {
    setTicks(next);
    try {
      localStorage.setItem(key, JSON.stringify(next));
    } catch {
      // A browser that keeps nothing still shows them until the page is closed.
    }
  };
  return {
    ticks,
    set: (id: string, atMs: number | null) => {
      const { [id]: _before, ...others } = ticks;
      keep(atMs === null ? others : { ...others, [id]: atMs });
    },
    clear: () => keep({}),
  };
}
