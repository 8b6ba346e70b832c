/** Which supply would suit a part, for remedies. */
import { type Circuit, type Spot, isType } from '../../circuit.ts';
import type { Remedy } from '../../finding.ts';
import { allSpots, feederOf, isTransformer, nameOf, partsWith } from '../../look.ts';
import { groundOf } from '../../solve/solved.ts';

/** A supply that suits an unwired terminal: the first output in range, or a ground. */
export function supplyToSuggest(circuit: Circuit, spot: Spot): Spot | null {
  if (isType(spot, 'ground')) {
    const board = spot.placed.part.boardId === null ? null : circuit.parts.get(spot.placed.part.boardId);
    const at = board ?? partsWith(circuit, 'board', 'supply', 'battery').find((one) => one !== spot.placed);
    return at ? groundOf(at) : null;
  }
  return isType(spot, 'supply in') ? (suiting(circuit, spot)[0] ?? null) : null;
}

/** Outputs whose voltage a supply input is made for, its own board's first; never one that it feeds itself, nor a transformer's. */
function suiting(circuit: Circuit, spot: Spot): Spot[] {
  if (!isType(spot, 'supply in')) return [];
  const { minV, maxV } = spot.terminal;
  return allSpots(circuit)
    .filter(
      (out) =>
        isType(out, 'supply out') &&
        out.placed !== spot.placed &&
        !isTransformer(out.placed) &&
        out.terminal.volts !== null &&
        out.terminal.volts >= (minV ?? Infinity) - 0.05 &&
        out.terminal.volts <= (maxV ?? -Infinity) + 0.05 &&
        !feedsInto(circuit, spot, out),
    )
    .sort(
      (one, other) =>
        Number(other.placed.part.id === spot.placed.part.boardId) -
        Number(one.placed.part.id === spot.placed.part.boardId),
    );
}

/** Whether `out` lives on what the part of `spot` gives: fed from there it would feed itself. */
export function feedsInto(circuit: Circuit, spot: Spot, out: Spot): boolean {
  const seen = new Set<unknown>();
  const lives = (placed: Spot['placed']): boolean => {
    if (placed === spot.placed) return true;
    if (seen.has(placed)) return false;
    seen.add(placed);
    return placed.spots.some((inlet) => {
      if (!isType(inlet, 'supply in')) return false;
      const from = circuit.netOf(inlet.end).level?.from;
      return from !== undefined && from.placed !== placed && lives(from.placed);
    });
  };
  return lives(out.placed);
}

export function feedInstead(circuit: Circuit, spot: Spot): Remedy[] {
  const [from] = suiting(circuit, spot).filter((one) => feederOf(circuit.netOf(spot.end))?.end !== one.end);
  return from ? [{ kind: 'feed', label: `Feed it from ${nameOf(from)}`, at: spot.end, from: from.end }] : [];
}
