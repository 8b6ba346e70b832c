import type { KeyboardEvent } from 'react';

const KEY_STEPS: Readonly<Record<string, number>> = {
  ArrowLeft: -1,
  ArrowDown: -1,
  ArrowRight: 1,
  ArrowUp: 1,
  PageDown: -50,
  PageUp: 50,
};

/** How far a key moves a mark of the ruler, tenths of a percent; ten times as far with Shift. Null for any other key. */
export function stepOfKey(event: KeyboardEvent): number | null {
  const step = KEY_STEPS[event.key];
  return step === undefined ? null : step * (event.shiftKey ? 10 : 1);
}
