/** Finds voltages and currents of a circuit in a situation: nodal equations, solved again until every device agrees with its mode. */
import { lineOf, nextMode, START, type Device, type Line, type Mode, type Sense } from './law.ts';
import { remembered } from '../../quantity/remembered.ts';
import { SymmetricSystem } from './matrix.ts';
import type { Situation } from './situation.ts';

/** A circuit ready to be solved: its nodes, which of them hang together at all, and what stands between them. */
export type Mesh = {
  readonly nodes: number;
  /** For each node the circuit it is in; one that nothing joins to another has its own zero. */
  readonly islandOf: readonly number[];
  /** For each circuit the node that counts as zero. */
  readonly zeroOf: readonly number[];
  readonly devices: readonly Device[];
};

export type Solution = {
  readonly situation: Situation;
  /** False: no state was found in which everything agrees; nothing may be concluded. */
  readonly settled: boolean;
  /** What goes on changing where it does not settle. */
  readonly chattering: readonly Device[];
  /** Voltage from one node to another, V; NaN between circuits that nothing joins. */
  readonly across: (one: number, other: number) => number;
  /** Current from a device's first end to its second, A. */
  readonly ampsOf: (device: Device) => number;
  readonly modeOf: (device: Device) => string;
  readonly modes: readonly Mode[];
  /** Whether nothing but leakage holds a node. */
  readonly floats: (node: number) => boolean;
};

/** What leaks from every node, S: 100 MΩ, far above what is built in on purpose. */
const LEAK_S = 1e-8;
/** Where it leaks to when floating nodes are looked for, V. */
const LEAK_V = 10;
/** A node that follows the leak by more than this floats, V: what holds it has more than five megohms, as a converter’s own input has. */
const FOLLOWS_V = 0.5;
const ZERO_S = 1e3;
const MOST_ROUNDS = 200;
/** From here on one device changes its mode at a time, so that two cannot chase one another for ever. */
const ONE_BY_ONE = 40;

/** @param near a solution to begin from; what feeds itself must not be found by it, so that the first of a wiring begins with everything off */
export function solve(mesh: Mesh, situation: Situation, near: Solution | null = null): Solution {
  const { devices, islandOf } = mesh;
  const index = indexOf(mesh);
  const changing = changingOf(mesh);
  let modes: readonly Mode[] = near?.modes ?? devices.map(({ law }) => ({ name: START[law.kind], value: 0 }));
  const lines = devices.map((device, at) => lineOf(device, modes[at] as Mode, situation));
  let volts = equations(mesh, lines, 0);
  let settled = false;
  let chattering: Device[] = [];
  const across = (one: number, other: number) =>
    one === other ? 0 : islandOf[one] === islandOf[other] ? (volts[one] ?? 0) - (volts[other] ?? 0) : NaN;
  const flows = (at: number, v: number) => {
    const line = lines[at];
    return line ? line.siemens * v + line.amps : 0;
  };
  const ampsOf = (device: Device) => flows(index.get(device) ?? -1, across(device.a, device.b));
  const sense: Sense = { across, ampsOf, situation };
  for (let round = 0; round < MOST_ROUNDS; round += 1) {
    const next = modes.slice();
    settled = true;
    chattering = [];
    for (const at of changing) {
      const device = devices[at] as Device;
      const mode = modes[at] as Mode;
      const v = across(device.a, device.b);
      const found = nextMode(device, mode, v, flows(at, v), sense);
      if (found.name === mode.name && isNear(found.value, mode.value)) continue;
      next[at] = found;
      settled = false;
      chattering.push(device);
      if (round >= ONE_BY_ONE && found.name !== mode.name) break;
    }
    if (settled) break;
    for (const at of changing)
      if (next[at] !== modes[at]) lines[at] = lineOf(devices[at] as Device, next[at] as Mode, situation);
    modes = next;
    volts = equations(mesh, lines, 0);
  }
  let leaning: Float64Array | null = null;
  return {
    situation,
    settled,
    chattering,
    across,
    ampsOf,
    modes,
    modeOf: (device) => modes[index.get(device) ?? -1]?.name ?? '',
    floats: (node) => {
      leaning ??= equations(mesh, lines, LEAK_V);
      return Math.abs((leaning[node] ?? 0) - (volts[node] ?? 0)) > FOLLOWS_V;
    },
  };
}

/** Devices that can be in more than one mode: a wire or resistor has one law for ever. */
const changingOf = remembered(({ devices }: Mesh) =>
  devices.flatMap(({ law }, at) => (law.kind === 'resistor' ? [] : [at])),
);

const indexOf = remembered(({ devices }: Mesh) => new Map(devices.map((device, at) => [device, at])));

const isNear = (one: number, other: number): boolean =>
  Math.abs(one - other) <= 1e-5 + 1e-4 * Math.abs(other);

/** The equations of a mesh, their pattern worked out once. */
const systemOf = remembered(
  ({ nodes, devices }: Mesh) =>
    new SymmetricSystem(
      nodes,
      devices.map(({ a, b }) => [a, b] as const),
    ),
);

function equations(mesh: Mesh, lines: readonly Line[], leakV: number): Float64Array {
  const system = systemOf(mesh);
  const right = new Float64Array(mesh.nodes).fill(LEAK_S * leakV);
  system.clear(LEAK_S);
  for (const zero of mesh.zeroOf) system.addDiagonal(zero, ZERO_S);
  for (let at = 0; at < mesh.devices.length; at += 1) {
    const { a, b } = mesh.devices[at] as Device;
    if (a === b) continue;
    const { siemens, amps } = lines[at] as Line;
    system.addBetween(at, a, b, siemens);
    right[a] = (right[a] ?? 0) - amps;
    right[b] = (right[b] ?? 0) + amps;
  }
  return system.solve(right) ?? right.fill(0);
}
