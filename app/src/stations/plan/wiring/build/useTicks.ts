import { useState } from 'react';
import { z } from '@plain-trowel/core/quantity/schema';

const ticksSchema = z.record(z.string().max(200), z.number());
export type Ticks = Readonly<Record<string, number>>;

function readTicks(key: string): Ticks {
  try {
    return ticksSchema.catch({}).parse(JSON.parse(localStorage.getItem(key) ?? '{}'));
  } catch {
    return {};
  }
}

/** What was ticked while building, by step and when, ms since 1970; kept in this browser, so that the bench may be left and come back to. */
export function useTicks(gardenId: string) {
  const key = `plain-trowel built ${gardenId}`;
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
    set: (id: string, isDone: boolean) => {
      const { [id]: _before, ...others } = ticks;
      keep(isDone ? { ...others, [id]: Date.now() } : others);
    },
    clear: () => keep({}),
  };
}
