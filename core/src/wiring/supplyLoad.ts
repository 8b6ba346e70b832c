/** What hangs on a supply, and how much it takes. */
import { type Circuit, type Net, type Placed, type Spot, hasRole, isType, spotsOf } from './circuit.ts';
import { allSpots, drawMa, isWired } from './look.ts';

export const isLoad = (spot: Spot) =>
  spot.terminal.type === 'supply in' ||
  spot.terminal.type === 'load' ||
  (spot.terminal.type === 'loop' && spot.terminal.side === 'plus');

/**
 * Everything that hangs on a supply output, mA: parts on its nets, and for a board or regulator among them what it hands on as well.
 * Null when a current is not known; `missing` names the parts.
 */
export function loadOfSupply(
  circuit: Circuit,
  source: Spot,
  seen: ReadonlySet<Placed> = new Set(),
): { ma: number; missing: readonly string[] } {
  let ma = 0;
  const missing: string[] = [];
  const counted = new Set<Placed>();
  const add = (more: { ma: number; missing: readonly string[] }, factor = 1) => {
    ma += more.ma * factor;
    missing.push(...more.missing);
  };
  for (const net of fedNets(circuit, source))
    for (const spot of net.spots) {
      const { placed } = spot;
      if (!isLoad(spot) || counted.has(placed) || seen.has(placed) || placed === source.placed) continue;
      // A pump's minus sits at the supply's voltage too, through the motor; the part counts once.
      counted.add(placed);
      const own = drawMa(placed);
      if (own === null) missing.push(placed.part.label);
      else ma += own;
      for (const out of spotsOf(placed))
        if (isType(out, 'supply out')) {
          // A step-down regulator takes less current at its higher input; nine tenths of the power arrive.
          const inV = circuit.netOf(spot.end).level?.volts ?? null;
          const factor =
            hasRole(placed, 'regulator') && inV !== null && out.terminal.volts !== null
              ? out.terminal.volts / inV / 0.9
              : 1;
          add(loadOfSupply(circuit, out, new Set([...seen, source.placed, placed])), factor);
        }
    }
  return { ma, missing };
}

/** The nets a supply output feeds: its own, and those behind fuses and closed contacts. */
export function fedNets(circuit: Circuit, source: Spot): Net[] {
  return circuit.nets.filter((net) => {
    const from = net.level?.from;
    return from?.placed === source.placed && from.terminal.id === source.terminal.id;
  });
}

export const wiredSources = (circuit: Circuit): Spot[] =>
  allSpots(circuit).filter((spot) => spot.terminal.type === 'supply out' && isWired(circuit, spot));
