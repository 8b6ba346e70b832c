import { useQuery } from '@tanstack/react-query';
import type { Standing } from '@plain-trowel/core/protocol/feed';
import { byId } from '@plain-trowel/core/quantity/byId';
import { whenText } from '@plain-trowel/core/telling/plotToday';
import { useGarden } from '../../../data/gardenContext.ts';
import { gateway, type GivenOrder } from '../../../links/gatewayClient.ts';
import { useLive } from '../../../links/liveContext.ts';
import { orderStateText, orderText } from '../../../words/orderText.ts';

const LOOK_EVERY_MS = 3000;
const SHOWN = 6;
const DAY_MS = 86_400_000;

type Given = GivenOrder & { readonly boardId: string };

/** Orders of the last day to boards over the network, and what has become of each. */
export function OrdersNow({ standing }: { standing: Standing | null }) {
  const { garden } = useGarden();
  const live = useLive();
  const boardIds = (standing?.boards ?? []).map(({ boardId }) => boardId);
  const asked = useQuery({
    queryKey: ['gateway', garden.id, 'orders', boardIds],
    queryFn: async (): Promise<readonly Given[]> => {
      const all = await Promise.all(
        boardIds.map(async (boardId) => {
          const orders = await gateway.orders(garden.id, boardId);
          return orders.ok ? orders.value.orders.map((one) => ({ ...one, boardId })) : [];
        }),
      );
      return all.flat();
    },
    enabled: boardIds.length > 0,
    refetchInterval: LOOK_EVERY_MS,
    gcTime: 0,
  });
  const nowMs = standing?.nowMs ?? 0;
  // What only asks a board how it stands is no order.
  const orders = (asked.data ?? [])
    .filter(({ text, madeMs }) => !/^(limits|all|\?)$/.test(text) && nowMs - madeMs < DAY_MS)
    .sort((a, b) => b.madeMs - a.madeMs)
    .slice(0, SHOWN);
  if (orders.length === 0) return null;
  const lineName = (boardId: string, number: number): string | null => {
    const board = live.source?.boardAt(boardId);
    return garden.waterLines.find(({ id }) => board?.numberOf(id) === number)?.name ?? null;
  };
  return (
    <section aria-label="Orders" className="mt-4">
      <h2 className="text-[13px] font-semibold text-soft">Orders of the last day, over the network</h2>
      <ul className="text-[14px]">
        {orders.map((order) => (
          <li key={order.id} className="flex flex-wrap gap-x-4 border-b border-rule py-1.5">
            <span className="num text-soft">{whenText(order.madeMs, nowMs, garden.timeZone)}</span>
            <span className="font-semibold">
              {byId(garden.boards, order.boardId)?.name ?? order.boardId}:{' '}
              {orderText(order.text, (number) => lineName(order.boardId, number))}
            </span>
            <span className={order.state === 'refused' || order.state === 'expired' ? 'text-handle' : ''}>
              {orderStateText(order)}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
