import { useEffect, useRef, useState } from 'react';
import { refusals } from './refusals.ts';

/** A change is on disk or refused well within this time, ms. */
const ANSWER_MS = 5000;

/**
 * Keeps what is typed when it is asked for, or, where it does not fit yet to a neighbour whose own change is still on its way to the disk, as soon as it fits.
 * @param isSound whether `typed` may be kept now
 */
export function useKeeping(typed: string | null, isSound: boolean, keep: () => void): () => void {
  const asked = useRef<string | null>(null);
  useEffect(() => {
    if (asked.current === null) return;
    if (asked.current !== typed) asked.current = null;
    else if (isSound) {
      asked.current = null;
      keep();
    }
  });
  return () => {
    if (isSound) keep();
    else asked.current = typed;
  };
}

/**
 * What is being typed into a field, until it is handed over; null while the kept value stands. A change that is refused, or that the disk did not take,
 * comes back as it was typed: nothing typed is lost.
 */
export function useTyped(): {
  readonly typed: string | null;
  readonly type: (text: string) => void;
  /** Puts the kept value back. */
  readonly drop: () => void;
  /** Hands the text over: the field shows the kept value from now on. */
  readonly handOver: () => void;
} {
  const [typed, setTyped] = useState<string | null>(null);
  const handed = useRef<{ readonly text: string; readonly atMs: number } | null>(null);
  useEffect(
    () =>
      refusals.subscribe(() => {
        const last = handed.current;
        handed.current = null;
        if (last && performance.now() - last.atMs < ANSWER_MS) setTyped((now) => now ?? last.text);
      }),
    [],
  );
  return {
    typed,
    type: (text) => {
      handed.current = null;
      setTyped(text);
    },
    drop: () => {
      handed.current = null;
      setTyped(null);
    },
    handOver: () => {
      handed.current = typed === null ? null : { text: typed, atMs: performance.now() };
      setTyped(null);
    },
  };
}
