import { useQuery, useQueryClient } from '@tanstack/react-query';
import { gateway } from '../../../../links/gatewayClient.ts';

const LOOK_EVERY_MS = 3000;

/** How a garden stands at the gateway, looked at every few seconds while it is on the screen. */
export function useStanding(gardenId: string) {
  const client = useQueryClient();
  const queryKey = ['gateway', gardenId];
  const asked = useQuery({
    queryKey,
    queryFn: () => gateway.standing(gardenId),
    refetchInterval: LOOK_EVERY_MS,
    staleTime: 0,
    gcTime: 0,
  });
  return { asked: asked.data ?? null, lookAgain: () => client.invalidateQueries({ queryKey }) };
}
