import { useMemo } from 'react';
import { catalogueOf, changePlan, setWiring, settingOf } from '@plain-trowel/core/garden/edits/plan';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import type { Plan } from '@plain-trowel/core/plan/schema';
import type { Catalogue } from '@plain-trowel/core/catalogue/catalogue';
import { checkWiring, type Verdict } from '@plain-trowel/core/wiring/checks/all';
import { readCircuit, type Circuit } from '@plain-trowel/core/wiring/circuit';
import type { Setting } from '@plain-trowel/core/wiring/finding';
import { isSameCircuit, type Netlist } from '@plain-trowel/core/wiring/netlist';
import { useGarden } from '../../data/gardenContext.ts';

type Checked = {
  readonly circuit: Circuit;
  readonly catalogue: Catalogue;
  readonly setting: Setting;
  readonly verdict: Verdict;
};
let last: Checked | null = null;

/** The verdict over a wiring; where only a part was moved in the picture, the one that stands. */
function verdictOf(circuit: Circuit, catalogue: Catalogue, setting: Setting): Verdict {
  if (
    last?.catalogue !== catalogue ||
    JSON.stringify(last.setting) !== JSON.stringify(setting) ||
    !isSameCircuit(last.circuit.netlist, circuit.netlist)
  )
    last = { circuit, catalogue, setting, verdict: checkWiring(circuit, setting) };
  return last.verdict;
}

/** The garden's plan with all that is worked out from it, and the ways to change it. */
export function usePlan() {
  const { garden, commit } = useGarden();
  const catalogue = useMemo(() => catalogueOf(garden), [garden]);
  const circuit = useMemo(() => readCircuit(garden.wiring, catalogue), [garden.wiring, catalogue]);
  const setting = useMemo(() => settingOf(garden), [garden]);
  const verdict = useMemo(() => verdictOf(circuit, catalogue, setting), [circuit, catalogue, setting]);
  return {
    garden,
    plan: garden.plan,
    wiring: garden.wiring,
    catalogue,
    circuit,
    setting,
    verdict,
    change: (label: string, change: (garden: Garden) => Garden, toast?: string) =>
      commit(label, (present) => ({ garden: change(present) }), toast),
    changePlan: (label: string, change: (plan: Plan) => Partial<Plan>) =>
      commit(label, (present) => ({ garden: changePlan(present, change(present.plan)) })),
    changeWiring: (label: string, change: (wiring: Netlist) => Netlist, toast?: string) =>
      commit(label, (present) => ({ garden: setWiring(present, change(present.wiring)) }), toast),
  };
}
