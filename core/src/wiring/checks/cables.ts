/** Checks of cables: what is lost on the way, counted over every cable that the current goes through. */
import { thinnestCableMm2, workCableDrop } from '../../electrics/cable.ts';
import { formatNumber } from '../../quantity/format.ts';
import { type Circuit, type Spot, hasRole, isType } from '../circuit.ts';
import { type Check } from '../finding.ts';
import { inMa, inV, isWired } from '../look.ts';
import { remembered } from '../../quantity/remembered.ts';
import { endKey, type Cable, type Wire } from '../netlist.ts';
import type { Device } from '../solve/law.ts';
import { groundOf, most, solvedOf, type Solved } from '../solve/solved.ts';
import type { Solution } from '../solve/solve.ts';
import { isLoad } from '../supplyLoad.ts';

/** Of its voltage a module or pump may lose so much in cables, an analog probe so much. */
const MOST_LOST = { module: 0.05, analog: 0.01 } as const;

/** By cable the wires of it that carry something. */
const carriersOf = remembered((circuit: Circuit): ReadonlyMap<string, readonly Device[]> => {
  const { mesh } = solvedOf(circuit);
  const found = new Map<string, Device[]>();
  for (const { id, cableId, from, to } of circuit.netlist.wires) {
    const device = cableId === null ? null : mesh.wireDevice(id);
    if (cableId === null || !device || !carries(circuit, from, to)) continue;
    found.set(cableId, [...(found.get(cableId) ?? []), device]);
  }
  return found;
});

const lostIn = (circuit: Circuit, at: Solution, cable: Cable): number =>
  (carriersOf(circuit).get(cable.id) ?? []).reduce(
    (sum, device) => sum + Math.abs(at.across(device.a, device.b)),
    0,
  );

/** By terminal the wires that end there, with their other ends. */
const wiresByEnd = remembered((circuit: Circuit) => {
  const found = new Map<string, { readonly wire: Wire; readonly other: string }[]>();
  const add = (key: string, wire: Wire, other: string) => {
    const held = found.get(key);
    if (held) held.push({ wire, other });
    else found.set(key, [{ wire, other }]);
  };
  for (const wire of circuit.netlist.wires) {
    const [from, to] = [endKey(wire.from), endKey(wire.to)];
    add(from, wire, to);
    add(to, wire, from);
  }
  return found;
});

/** Wires of supplies, grounds and loads; a signal's wire loses nothing that counts. */
function carries(circuit: Circuit, ...ends: readonly { part: string; terminal: string }[]): boolean {
  return ends.some((end) =>
    circuit
      .netOf(end)
      .spots.some(
        (spot) =>
          spot.end.part === end.part &&
          spot.end.terminal === end.terminal &&
          (isLoad(spot) || isType(spot, 'ground')),
      ),
  );
}

type Fed = { readonly spot: Spot; readonly back: Spot | null };

/** What is fed over a cable: parts with a supply of their own, and loads. */
const fedParts = (circuit: Circuit): Fed[] =>
  [...circuit.parts.values()].flatMap((placed): Fed[] =>
    placed.spots.flatMap((spot): Fed[] => {
      if (!isWired(circuit, spot)) return [];
      if (isType(spot, 'supply in')) return [{ spot, back: groundOf(placed) }];
      if (isType(spot, 'load') && spot.terminal.side === 'plus')
        return [
          {
            spot,
            back: placed.spots.find((one) => isType(one, 'load') && one.terminal.side === 'minus') ?? null,
          },
        ];
      return [];
    }),
  );

/** The cables that a part's current goes through on its own: those at its terminals, and those further up that feed them. */
function cablesTo(circuit: Circuit, { spot, back }: Fed): Cable[] {
  const found = new Set<Cable>();
  // On a board's ground hang the cables of all its parts; those are none that feed it.
  const ends = back && !hasRole(spot.placed, 'board') ? [spot, back] : [spot];
  for (const { end } of ends)
    for (const { wire } of wiresByEnd(circuit).get(endKey(end)) ?? []) {
      const cable = wire.cableId === null ? undefined : circuit.cables.get(wire.cableId);
      if (cable) found.add(cable);
    }
  return [...found];
}

/** "the cable to P3", where a cable is called as its part is; else "cable Supply to Roof board". */
const cableName = (label: string, part: string): string =>
  label === part ? `the cable to ${part}` : `cable ${label} to ${part}`;

export const CABLE_CHECKS: readonly Check[] = [
  {
    id: 'cable-drop',
    title: 'No cable loses more than its part bears',
    why: 'A thin long cable starves a pump and shifts an analog reading by the voltage it loses; a feeder loses for all that hangs on it.',
    run: (circuit, report) => {
      const solved = solvedOf(circuit);
      const steady = solved.all.filter(({ situation }) =>
        ['idle', 'one on', 'many on'].includes(situation.kind),
      );
      for (const fed of fedParts(circuit)) {
        const { spot } = fed;
        const cables = cablesTo(circuit, fed);
        if (cables.length === 0) continue;
        const unmeasured = cables.find((cable) => cable.lengthM === null || cable.areaMm2 === null);
        const isUnknown = solved.mesh.missing.some(
          ({ placed, key }) => placed === spot.placed && (key === 'activeMa' || key === 'ratedV'),
        );
        const volts = circuit.netOf(spot.end).level?.volts ?? null;
        if (unmeasured || isUnknown || (volts === null && circuit.netOf(spot.end).level)) {
          const [cable] = cables;
          report.unknown(
            `What ${cableName((unmeasured ?? cable)?.label ?? '', spot.placed.part.label)} loses is not known: ${unmeasured?.lengthM === null ? 'its length' : unmeasured ? 'its cross-section' : 'a voltage or current'} is missing.`,
            [spot],
          );
          continue;
        }
        if (volts === null) continue;
        const isAnalog = spot.placed.entry.terminals.some((one) => one.type === 'analog out');
        const mostV = (isAnalog ? MOST_LOST.analog : MOST_LOST.module) * volts;
        const way = wiresOnTheWay(circuit, fed);
        const lost = most(isAnalog ? [solved.idle] : steady, lostOnTheWay(circuit, solved, fed, way));
        if (!lost || lost.value <= mostV) {
          report.fine();
          continue;
        }
        const onWay = onTheWay(circuit, fed, way);
        const worst = onWay
          .map((cable) => ({ cable, lostV: lostIn(circuit, lost.at, cable) }))
          .sort((one, other) => other.lostV - one.lostV)[0];
        const cable = worst?.cable ?? cables[0];
        if (!cable || cable.lengthM === null || cable.areaMm2 === null) continue;
        const currentMa = amps(circuit, solved, lost.at, cable) * 1000;
        const drop = workCableDrop({ lengthM: cable.lengthM, currentMa, areaMm2: cable.areaMm2 });
        const areaMm2 = thinnestCableMm2({ lengthM: cable.lengthM, currentMa, mostDropV: mostV * 0.9 });
        const others = lost.value > 1.1 * (worst?.lostV ?? lost.value) ? ' with those before it' : '';
        report.find(
          'caution',
          `Cable ${cable.label} (${formatNumber(cable.lengthM, 1)} m, ${formatNumber(cable.areaMm2, 2)} mm²)${others} loses ${formatNumber(lost.value, 2)} V of ${inV(volts)} at ${inMa(currentMa)}, and ${spot.placed.part.label} hangs on it; ${isAnalog ? 'one percent is the most for an analog probe' : 'five percent is the most for a pump or module'}.`,
          [spot],
          {
            worked: drop,
            remedies:
              areaMm2 === null || areaMm2 <= cable.areaMm2
                ? []
                : [{ kind: 'set-area', label: `Take ${areaMm2} mm²`, cable: cable.id, areaMm2 }],
          },
        );
      }
    },
  },
];

const amps = (circuit: Circuit, solved: Solved, at: Solution, cable: Cable): number =>
  Math.max(
    0,
    ...circuit.netlist.wires.flatMap((wire) => {
      const device = wire.cableId === cable.id ? solved.mesh.wireDevice(wire.id) : null;
      return device ? [Math.abs(at.ampsOf(device))] : [];
    }),
  );

/** Wires of cables between a part and the supply its voltage comes from, out and back: the way of least resistance through wires alone. */
function wiresOnTheWay(circuit: Circuit, { spot, back }: Fed) {
  const from = circuit.netOf(spot.end).level?.from;
  const minus = from && groundOf(from.placed);
  const path = (start: Spot, goal: Spot | null | undefined) => {
    if (!goal) return [];
    const via = new Map<string, { wireId: string; from: string } | null>([[endKey(start.end), null]]);
    const queue = [endKey(start.end)];
    for (let at = queue.shift(); at !== undefined && !via.has(endKey(goal.end)); at = queue.shift())
      for (const { wire, other } of wiresByEnd(circuit).get(at) ?? []) {
        if (via.has(other)) continue;
        via.set(other, { wireId: wire.id, from: at });
        queue.push(other);
      }
    const ids: string[] = [];
    for (let step = via.get(endKey(goal.end)); step; step = via.get(step.from)) ids.push(step.wireId);
    return ids;
  };
  return new Set([...path(spot, from), ...(back ? path(back, minus) : [])]);
}

/** What is lost between a part and its supply, as a function of a solution. */
function lostOnTheWay(circuit: Circuit, solved: Solved, fed: Fed, way: ReadonlySet<string>) {
  const devices = [...way].flatMap((id) => solved.mesh.wireDevice(id) ?? []);
  const own = cablesTo(circuit, fed);
  return (at: Solution): number => {
    const sum = devices.reduce((all, device) => all + Math.abs(at.across(device.a, device.b)), 0);
    // Where the way leads through a fuse or a switch, the cable at the part itself still counts.
    return Math.max(sum, ...own.map((cable) => lostIn(circuit, at, cable)));
  };
}

function onTheWay(circuit: Circuit, fed: Fed, ids: ReadonlySet<string>): Cable[] {
  const found = new Set(cablesTo(circuit, fed));
  for (const wire of circuit.netlist.wires) {
    const cable = ids.has(wire.id) && wire.cableId !== null ? circuit.cables.get(wire.cableId) : undefined;
    if (cable) found.add(cable);
  }
  return [...found];
}
