import { useQuery, useQueryClient } from '@tanstack/react-query';
import { gateway } from '../../../../../links/gatewayClient.ts';

const LOOK_EVERY_MS = 3000;
const queryKey = ['gateway telling'];

/** How the gateway tells alerts while no page is open, looked at every few seconds while it is on the screen. */
export function useTelling() {
  const client = useQueryClient();
  const asked = useQuery({
    queryKey,
    queryFn: () => gateway.telling(),
    // A page that comes from no gateway asks once.
    refetchInterval: ({ state }) => (state.data?.ok === false ? false : LOOK_EVERY_MS),
    staleTime: 0,
    gcTime: 0,
  });
  return { asked: asked.data ?? null, lookAgain: () => client.invalidateQueries({ queryKey }) };
}
