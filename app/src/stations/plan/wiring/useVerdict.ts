import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import type { Verdict } from '@plain-trowel/core/wiring/checks/all';
import type { Finding } from '@plain-trowel/core/wiring/finding';
import type { Netlist } from '@plain-trowel/core/wiring/netlist';
import { askWiring } from '../../../workers/wiring.ts';
import type { usePlan } from '../usePlan.ts';

/** A verdict that is worked out away from the page. */
export type Checked = {
  /** Over the wiring as it is; null while it is worked out, and where that failed. */
  readonly verdict: Verdict | null;
  /** The latest that was worked out, of a wiring that may have changed since: for a list that must not jump. */
  readonly latest: Verdict | null;
  readonly failed: boolean;
};

/** What the checks know of a wiring: all of it but where its parts lie in the picture. */
const circuitKey = ({ parts, wires, cables }: Netlist): string =>
  JSON.stringify([parts.map((part) => ({ ...part, at: null })), wires, cables]);

const OF_A_WIRING = {
  staleTime: Infinity,
  gcTime: 60_000,
  // Results of a worker are compared by nobody.
  structuralSharing: false,
} as const;

/** The verdict over the plan's wiring. */
export function useVerdict({ wiring, ground }: ReturnType<typeof usePlan>): Checked {
  const key = useMemo(() => circuitKey(wiring), [wiring]);
  const { data, isPlaceholderData, isError } = useQuery({
    ...OF_A_WIRING,
    queryKey: ['wiring', 'verdict', key, ground],
    queryFn: () => askWiring((jobs) => jobs.check(wiring, ground)),
    placeholderData: (previous) => previous,
  });
  return {
    verdict: isPlaceholderData || isError ? null : (data ?? null),
    latest: data ?? null,
    failed: isError,
  };
}

/** What a change of the wiring would lead to; null while it is worked out. */
export function useForeseen(
  { wiring, ground }: ReturnType<typeof usePlan>,
  after: Netlist,
): { readonly verdict: Verdict; readonly harm: readonly Finding[] } | null {
  const keys = useMemo(() => [circuitKey(wiring), circuitKey(after)], [wiring, after]);
  const { data } = useQuery({
    ...OF_A_WIRING,
    queryKey: ['wiring', 'foreseen', keys, ground],
    queryFn: () => askWiring((jobs) => jobs.foresee(wiring, after, ground)),
  });
  return data ?? null;
}
