/**
 * Hands each demand a pin of its own at the least total cost, or names the demands that cannot all be met.
 *
 * Shortest augmenting paths over the graph of demands and pins (the assignment problem). It is exact where backtracking would have to try:
 * when no path to a free pin is left, the demands reached from there want fewer pins than they are (Hall's condition), and that very set
 * is the explanation.
 */
export type Assignment = {
  /** Pin of each demand; null when it got none. */
  readonly pinOf: readonly (number | null)[];
  readonly blocked: readonly { readonly demands: readonly number[]; readonly pins: readonly number[] }[];
};

/** @param cost rows are demands, columns pins; Infinity forbids a pair. Any finite costs. */
export function assign(cost: readonly (readonly number[])[]): Assignment {
  const pins = cost[0]?.length ?? 0;
  const pinOf: (number | null)[] = cost.map(() => null);
  const userOf: (number | null)[] = Array.from({ length: pins }, () => null);
  const blocked: { demands: number[]; pins: number[] }[] = [];
  for (let demand = 0; demand < cost.length; demand += 1) {
    const reached = shortestPaths(cost, userOf, demand);
    let best = -1;
    for (let pin = 0; pin < pins; pin += 1)
      if (
        userOf[pin] === null &&
        (reached.pinCost[pin] ?? Infinity) < (best < 0 ? Infinity : (reached.pinCost[best] ?? Infinity))
      )
        best = pin;
    if (best < 0) {
      const seenPins = reached.pinCost.flatMap((value, pin) => (value < Infinity ? [pin] : []));
      const users = seenPins.flatMap((pin) => (userOf[pin] == null ? [] : [userOf[pin]]));
      blocked.push({ demands: [demand, ...users].sort((one, other) => one - other), pins: seenPins });
      continue;
    }
    for (let pin: number | null = best; pin !== null;) {
      const from: number = reached.via[pin] ?? demand;
      const before: number | null = pinOf[from] ?? null;
      pinOf[from] = pin;
      userOf[pin] = from;
      pin = from === demand ? null : before;
    }
  }
  return { pinOf, blocked };
}

/** Cheapest alternating paths from one demand to every pin; `via` is the demand through which a pin is reached. */
function shortestPaths(
  cost: readonly (readonly number[])[],
  userOf: readonly (number | null)[],
  start: number,
) {
  const pins = userOf.length;
  const pinCost = Array.from({ length: pins }, () => Infinity);
  const via: (number | null)[] = Array.from({ length: pins }, () => null);
  const queue = [{ demand: start, at: 0 }];
  for (let head = 0; head < queue.length; head += 1) {
    const { demand, at } = queue[head] as { demand: number; at: number };
    for (let pin = 0; pin < pins; pin += 1) {
      const step = at + (cost[demand]?.[pin] ?? Infinity);
      if (!(step < (pinCost[pin] ?? Infinity) - 1e-12)) continue;
      pinCost[pin] = step;
      via[pin] = demand;
      const user = userOf[pin] ?? null;
      if (user !== null) queue.push({ demand: user, at: step - (cost[user]?.[pin] ?? 0) });
    }
  }
  return { pinCost, via };
}
