/**
 * The way of a part's current, from the plus of what feeds it through the part and back to the minus of the same source: at each node on goes what carries the
 * most.
 */
import type { Worked } from '../quantity/worked.ts';
import { remembered } from '../quantity/remembered.ts';
import type { Circuit, Placed } from './circuit.ts';
import type { Device } from './solve/law.ts';
import type { Solution } from './solve/solve.ts';
import { Whole } from './solve/whole.ts';
import { workAcross, workAmps } from './solve/working.ts';

export type CurrentWay = {
  /** The situation, for a sentence: "with Roof board P18 on". */
  readonly when: string;
  /** Through the part, mA. */
  readonly current: Worked;
  /** Across the part, V. */
  readonly voltage: Worked;
  /** Wires on the way, out and back, each with all that it carries, mA: nearer to the source that of other parts as well. */
  readonly wires: readonly { readonly id: string; readonly ma: number }[];
  /** Parts on the way, from the source to itself again. */
  readonly parts: readonly string[];
};

const wholeOf = remembered((circuit: Circuit) => new Whole(circuit));

/** What of a part carries its current; the first that it has. */
const MAIN = ['itself', 'loop', 'collector', 'channel', 'contact', 'upper', 'line 1'];
/** Less than this is no current to be shown, A. */
const LEAST_A = 1e-5;
const MOST_STEPS = 80;

function mainDevice(whole: Whole, placed: Placed): Device | null {
  const own = whole.mesh.devicesOf(placed.part.id);
  return (
    MAIN.map((name) => own.find((one) => one.name === name)).find((one) => one) ??
    own.find(({ name }) => name.startsWith('feed')) ??
    null
  );
}

/** The situations in which a part carries a current, each that differs by a twentieth from those before it; none for a part that never does. */
export function waysOf(circuit: Circuit, placed: Placed): CurrentWay[] {
  const whole = wholeOf(circuit);
  const device = mainDevice(whole, placed);
  if (!device) return [];
  const shown: number[] = [];
  return whole.situations.all.flatMap((situation): CurrentWay[] => {
    const at = whole.of(situation);
    const amps = at.ampsOf(device);
    if (Math.abs(amps) < LEAST_A || shown.some((one) => Math.abs(one - amps) < 0.05 * Math.abs(amps)))
      return [];
    shown.push(amps);
    return wayAt(whole, placed, device, at);
  });
}

function wayAt(whole: Whole, placed: Placed, device: Device, at: Solution): CurrentWay[] {
  const amps = at.ampsOf(device);
  const [enters, leaves] = amps >= 0 ? [device.a, device.b] : [device.b, device.a];
  // A source gives its current at its plus: from there on is the way round.
  const isSource = device.law.kind === 'source' && amps < 0;
  const back = isSource ? [] : follow(whole, at, device, enters, 'against', null);
  const source = isSource ? device : (back.find((one) => one.law.kind === 'source') ?? null);
  const on = follow(whole, at, device, isSource ? device.a : leaves, 'along', source);
  const way = [...back.reverse(), device, ...on];
  const label = (id: string | null) =>
    id === null ? null : (whole.circuit.parts.get(id)?.part.label ?? null);
  const parts = way.flatMap((one) => label(one.partId) ?? []);
  const { worked: current } = workAmps(
    at,
    [{ device, name: 'through it' }],
    `Current of ${placed.part.label}`,
  );
  if (!current) return [];
  return [
    {
      when: at.situation.when,
      current,
      voltage: workAcross(whole.mesh, at, [device.a, device.b], `Voltage across ${placed.part.label}`),
      wires: way.flatMap((one) =>
        one.partId === null ? [{ id: one.name, ma: Math.abs(at.ampsOf(one)) * 1000 }] : [],
      ),
      parts: parts.filter((one, index) => one !== parts[index - 1]),
    },
  ];
}

/** Devices from a node on, with the current or against it, as far as a source. */
function follow(
  whole: Whole,
  at: Solution,
  from: Device,
  start: number,
  direction: 'along' | 'against',
  /** Where the way ends as soon as it is reached: the source it began at. */
  goal: Device | null,
): Device[] {
  const found: Device[] = [];
  const seen = new Set<Device>([from]);
  let node = start;
  for (let count = 0; count < MOST_STEPS; count += 1) {
    if (goal && count > 0 && goal !== from && [goal.a, goal.b].includes(node)) return [...found, goal];
    let best: { device: Device; carries: number } | null = null;
    for (const device of whole.touching(node)) {
      if (seen.has(device) || device.a === device.b) continue;
      // Positive where it carries current away from the node.
      const away = (device.a === node ? 1 : -1) * at.ampsOf(device);
      const carries = direction === 'along' ? away : -away;
      if (carries > (best?.carries ?? LEAST_A / 10)) best = { device, carries };
    }
    if (!best) return found;
    const { device } = best;
    found.push(device);
    seen.add(device);
    if (device.law.kind === 'source') return found;
    node = device.a === node ? device.b : device.a;
  }
  return found;
}
