/**
 * The supply budget of a wiring: what its parts take in each state, carried over to the battery's own voltage.
 *
 * Currents stand at the battery. A part behind a step-down regulator takes the regulator's output over its input voltage, at nine tenths
 * efficiency; a linear regulator on a board hands its current on unchanged.
 */
import type { SupplyHabits } from './habits.ts';
import { fact, hasRole, isType, spotsOf, type Circuit, type Placed } from '../wiring/circuit.ts';
import { partsWith, supplySpot } from '../wiring/look.ts';
import { loadsOf } from '../wiring/switched.ts';
import { fillDay, POWER_STATES, type PowerState, type StateUse } from './battery.ts';

const REGULATOR_FRAC = 0.9;
const DAY_S = 86_400;

export type Budget = {
  readonly uses: readonly StateUse[];
  /** States add up to more than a day. */
  readonly overfull: boolean;
  /** Parts whose current is not known; the budget is too low by theirs. */
  readonly missing: readonly string[];
  /** Readings a day. */
  readonly readings: number;
};

/** Share of a part's current that the battery gives, by what stands between. */
function atBattery(
  circuit: Circuit,
  placed: Placed,
  batteryV: number,
  seen: ReadonlySet<Placed> = new Set(),
): number {
  const supply = supplySpot(placed) ?? spotsOf(placed).find((spot) => spot.terminal.type === 'load');
  const from = supply && circuit.netOf(supply.end).level?.from;
  if (!from || seen.has(from.placed)) return 1;
  if (hasRole(from.placed, 'regulator') && isType(from, 'supply out') && from.terminal.volts !== null)
    return from.terminal.volts / batteryV / REGULATOR_FRAC;
  return hasRole(from.placed, 'board')
    ? atBattery(circuit, from.placed, batteryV, new Set([...seen, placed]))
    : 1;
}

/** What the boards' own programs do of the sleep that is wanted. */
export type Programs = {
  /** Parts of boards that stay awake although the boards are to sleep. */
  readonly staysAwake: ReadonlySet<string>;
  /** Awake at each waking, s, the longest of them; the parts' own figures count where they say more. */
  readonly awakeS: number;
};

/** What sleeps, wakes and waters in a wiring. Boards that cannot sleep, and parts that are always powered, count all day. */
export function supplyBudget(
  circuit: Circuit,
  habits: SupplyHabits,
  programs: Programs = { staysAwake: new Set(), awakeS: 0 },
): Budget {
  const missing: string[] = [];
  const sum = (parts: readonly Placed[], currentOf: (placed: Placed) => number | null): number =>
    parts.reduce((total, placed) => {
      const ma = currentOf(placed);
      if (ma === null) missing.push(placed.part.label);
      return total + (ma ?? 0) * atBattery(circuit, placed, habits.batteryV);
    }, 0);
  const boards = partsWith(circuit, 'board');
  const water = partsWith(circuit, 'pump', 'valve');
  const rest = [...circuit.parts.values()].filter(
    (placed) =>
      !hasRole(placed, 'board', 'pump', 'valve', 'supply', 'battery', 'solar', 'fuse') &&
      fact(placed, 'activeMa') !== null,
  );
  const always = rest.filter((placed) => !placed.part.perReading);
  const timed = rest.filter((placed) => placed.part.perReading);
  const readings = DAY_S / habits.everyS;
  const longest = (key: 'wakeS' | 'radioS' | 'warmUpS' | 'measureS', parts: readonly Placed[]) =>
    parts.reduce((most, placed) => Math.max(most, fact(placed, key) ?? 0), 0);
  const measureS = timed.reduce(
    (most, placed) => Math.max(most, (fact(placed, 'warmUpS') ?? 0) + (fact(placed, 'measureS') ?? 0)),
    0,
  );

  const standing = sum(always, (placed) => fact(placed, 'activeMa'));
  const asleep = sum(boards, (placed) =>
    fact(placed, habits.sleeps && !programs.staysAwake.has(placed.part.id) ? 'sleepMa' : 'activeMa'),
  );
  const awake = sum(boards, (placed) => fact(placed, 'activeMa'));
  const onAir = sum(boards, (placed) =>
    Math.max(fact(placed, 'radioMa') ?? 0, fact(placed, 'activeMa') ?? 0),
  );
  // A relay's coil is on while what it switches runs.
  const coils = partsWith(circuit, 'relay').filter((relay) => loadsOf(circuit, relay).length > 0);
  const watering =
    sum(water, (placed) => fact(placed, 'activeMa')) + sum(coils, (placed) => fact(placed, 'peakMa'));
  const measuring = sum(timed, (placed) => fact(placed, 'activeMa'));

  const base = habits.sleeps ? awake + standing : asleep + standing;
  const found: Record<PowerState, { currentMa: number; secondsPerDay: number }> = {
    sleep: { currentMa: asleep + standing, secondsPerDay: 0 },
    wake: {
      currentMa: base,
      secondsPerDay: habits.sleeps ? readings * Math.max(longest('wakeS', boards), programs.awakeS) : 0,
    },
    measure: { currentMa: base + measuring, secondsPerDay: timed.length > 0 ? readings * measureS : 0 },
    radio: { currentMa: onAir + standing, secondsPerDay: readings * longest('radioS', boards) },
    pump: { currentMa: base + watering, secondsPerDay: water.length > 0 ? habits.waterS : 0 },
  };
  const busy = POWER_STATES.filter((state) => state !== 'sleep').map((state): StateUse => ({
    state,
    currentMa: habits[state].currentMa ?? found[state].currentMa,
    secondsPerDay: habits[state].secondsPerDay ?? found[state].secondsPerDay,
  }));
  return {
    ...fillDay(busy, habits.sleep.currentMa ?? found.sleep.currentMa),
    missing: [...new Set(missing)],
    readings,
  };
}
