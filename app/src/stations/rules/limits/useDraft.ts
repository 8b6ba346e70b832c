import { useEffect, useRef, useState } from 'react';
import { useGarden } from '../../../data/gardenContext.ts';
import type { GardenChange } from '../../../data/gardenContext.ts';

const SETTLE_MS = 600;

/** Something on the ruler while it is being moved; saved as one step once it rests. Arrow keys come in bursts; one burst is one step to undo. */
export function useDraft<Value>(
  kept: Value,
  label: string,
  isSame: (a: Value, b: Value) => boolean,
  changeTo: (value: Value) => GardenChange,
): {
  readonly draft: Value;
  readonly move: (next: (now: Value) => Value) => void;
  readonly settle: () => void;
} {
  const { commit } = useGarden();
  const [moved, setMoved] = useState<Value | null>(null);
  const pending = useRef<{ value: Value } | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);

  const save = () => {
    if (timer.current) clearTimeout(timer.current);
    timer.current = null;
    const held = pending.current;
    pending.current = null;
    if (!held) return;
    if (isSame(held.value, kept)) setMoved(null);
    else void commit(label, changeTo(held.value)).then(() => setMoved(null));
  };
  const saveLatest = useRef(save);
  useEffect(() => {
    saveLatest.current = save;
  });
  // On unmount, save a pending drag.
  useEffect(() => () => saveLatest.current(), []);

  const move = (next: (now: Value) => Value) => {
    const value = next(pending.current?.value ?? kept);
    pending.current = { value };
    setMoved(value);
  };
  const settle = () => {
    if (!pending.current) return;
    if (timer.current) clearTimeout(timer.current);
    timer.current = setTimeout(() => saveLatest.current(), SETTLE_MS);
  };
  return { draft: moved ?? kept, move, settle };
}
