import { useMemo } from 'react';
import { catalogueOf, changePlan, setWiring, settingOf } from '@plain-trowel/core/garden/edits/plan';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import type { Plan } from '@plain-trowel/core/plan/schema';
import { readCircuit } from '@plain-trowel/core/wiring/circuit';
import type { Netlist } from '@plain-trowel/core/wiring/netlist';
import { useGarden } from '../../data/gardenContext.ts';
import type { Ground } from '../../workers/wiring.worker.ts';

/** The garden's plan with all that is worked out from it, and the ways to change it. */
export function usePlan() {
  const { garden, commit } = useGarden();
  const catalogue = useMemo(() => catalogueOf(garden), [garden]);
  const circuit = useMemo(() => readCircuit(garden.wiring, catalogue), [garden.wiring, catalogue]);
  const setting = useMemo(() => settingOf(garden), [garden]);
  const ground = useMemo((): Ground => ({ own: garden.catalogue, setting }), [garden.catalogue, setting]);
  return {
    garden,
    plan: garden.plan,
    wiring: garden.wiring,
    catalogue,
    circuit,
    setting,
    /** What the worker needs besides the wiring to judge it. */
    ground,
    change: (label: string, change: (garden: Garden) => Garden, toast?: string) =>
      commit(label, (present) => ({ garden: change(present) }), toast),
    changePlan: (label: string, change: (plan: Plan) => Partial<Plan>) =>
      commit(label, (present) => ({ garden: changePlan(present, change(present.plan)) })),
    changeWiring: (label: string, change: (wiring: Netlist) => Netlist, toast?: string) =>
      commit(label, (present) => ({ garden: setWiring(present, change(present.wiring)) }), toast),
  };
}
