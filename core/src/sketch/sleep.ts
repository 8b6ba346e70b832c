/** Whether a board's program sleeps between its readings: where the plan wants it to, and nothing needs it awake. */
import { byId } from '../quantity/byId.ts';
import type { Garden } from '../garden/document/schema.ts';
import { everyOf } from './inputs.ts';
import type { BoardPlan, SketchProblem, SketchSleep } from './plan.ts';

/** To sleep and to wake take some seconds: for less than that, s, it is not worth the while. */
const SHORTEST_S = 60;
/** Awake at least, s: two readings, and a second for whatever is measured in the one before. */
const LEAST_AWAKE_S = 4;

/** Until its program runs; until the network was joined, the answer was there and two seconds had passed, s: rules of thumb, no board was measured. */
const START_S = 2;
const NETWORK_S = 8;

type Parts = Pick<
  BoardPlan,
  'network' | 'inputs' | 'powers' | 'bus' | 'lines' | 'contacts' | 'lamps' | 'displays'
>;

/** How it sleeps, or why it does not although it is to. */
export function sleepOf(
  garden: Garden,
  name: string,
  parts: Parts,
): { readonly sleep: SketchSleep | null; readonly leftOut: readonly SketchProblem[] } {
  if (!garden.plan.supply.sleeps) return { sleep: null, leftOut: [] };
  const holds = heldBy(parts);
  if (holds.length > 0) {
    const what = `${name} (${holds.join(', ')})`;
    return { sleep: null, leftOut: [{ kind: 'awake-holds', what, sheet: 'plan/parts' }] };
  }
  const everyS = Math.min(
    garden.plan.supply.everyS,
    ...parts.inputs.flatMap(({ channelId }) => {
      const channel = byId(garden.channels, channelId);
      return channel ? [everyOf(garden, channel)] : [];
    }),
  );
  if (everyS < SHORTEST_S)
    return { sleep: null, leftOut: [{ kind: 'awake-short', what: name, sheet: 'plan/parts' }] };
  const least = awakeS(parts);
  const usualS = START_S + Math.max(least, parts.network ? NETWORK_S : 0);
  return { sleep: { everyS, awakeS: least, usualS }, leftOut: [] };
}

/** What would be dark, shut or let go while it sleeps. */
const heldBy = ({ lines, contacts, lamps, displays }: Parts): readonly string[] => [
  ...contacts.map(({ name }) => name),
  ...[...lamps, ...displays].map(({ name }) => name),
  ...lines.filter(({ output }) => output.pulses).map(({ name }) => name),
];

/** Until everything has been read: probes that are fed only for that, and those on the bus, one a second. */
const awakeS = ({ powers, bus }: Parts): number =>
  Math.max(LEAST_AWAKE_S, ...powers.map(({ waitS }) => waitS + 2), (bus?.probes.length ?? 0) + 3);
