import type { usePlan } from '../usePlan.ts';

export function PaperView(_: { plan: ReturnType<typeof usePlan> }) {
  return null;
}
