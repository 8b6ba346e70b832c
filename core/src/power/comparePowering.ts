/** Always powered against powered only to be read: what each school costs in probe life and in battery life. */
import type { Catalogue } from '../catalogue/catalogue.ts';
import type { SupplyHabits } from './habits.ts';
import { fact, hasRole, readCircuit, type Placed } from '../wiring/circuit.ts';
import { changePart } from '../wiring/edit.ts';
import type { Netlist } from '../wiring/netlist.ts';
import { CHEMISTRIES, workAverage, workBatteryDays } from './battery.ts';
import { supplyBudget } from './budget.ts';
import { poweredShare, workProbeLife } from './probeLife.ts';
import type { Worked } from '../quantity/worked.ts';

export type PoweringWay = {
  readonly perReading: boolean;
  readonly averageMa: number;
  readonly battery: Worked;
};
export type ProbeLives = {
  readonly entryId: string;
  readonly name: string;
  readonly always: Worked;
  readonly perReading: Worked;
};

/** Average current and battery life with all probes always powered, and with all powered only to be read. */
export function comparePowering(netlist: Netlist, catalogue: Catalogue, habits: SupplyHabits): PoweringWay[] {
  return [false, true].map((perReading) => {
    const probes = netlist.parts.filter((part) => catalogue.get(part.entryId)?.role === 'probe');
    const set = probes.reduce((next, part) => changePart(next, part.id, { perReading }), netlist);
    const { uses } = supplyBudget(readCircuit(set, catalogue), habits);
    const averageMa = workAverage(uses).value;
    return { perReading, averageMa, battery: batteryDays(averageMa, habits) };
  });
}

export const batteryDays = (averageMa: number, habits: SupplyHabits): Worked =>
  workBatteryDays({ averageMa, ...habits, perCFrac: CHEMISTRIES[habits.chemistry].perCFrac });

/** Lives of each kind of probe in the wiring; kinds whose lives are not known are left out. */
export function probeLives(probes: readonly Placed[], everyS: number): ProbeLives[] {
  const kinds = new Map(probes.filter((one) => hasRole(one, 'probe')).map((one) => [one.entry.id, one]));
  return [...kinds.values()].flatMap((placed) => {
    const poweredYears = fact(placed, 'poweredYears');
    const idleYears = fact(placed, 'idleYears');
    if (poweredYears === null || idleYears === null) return [];
    const share = poweredShare({
      warmUpS: fact(placed, 'warmUpS') ?? 0,
      measureS: fact(placed, 'measureS') ?? 0,
      everyS,
    });
    return [
      {
        entryId: placed.entry.id,
        name: placed.entry.name,
        always: workProbeLife({ share: 1, poweredYears, idleYears }),
        perReading: workProbeLife({ share, poweredYears, idleYears }),
      },
    ];
  });
}
