/** Random gardens: mixes of parts added in random order; after each "Wire what is open" either there is no fault, or nothing changed and the reason is told. */
import { checkWiring } from '../../core/src/wiring/checks/all.ts';
import { readCircuit } from '../../core/src/wiring/circuit.ts';
import { addPart } from '../../core/src/wiring/edit.ts';
import { EMPTY_NETLIST, type Netlist } from '../../core/src/wiring/netlist.ts';
import { planWiring } from '../../core/src/wiring/planWiring.ts';
import { catalogue } from './sketchpad.ts';
import { randomOf } from './sound.ts';

const SETTING = { radioOn: true, tapWater: false } as const;
const HABITS = { lengthM: 2 } as const;

const faultsOf = (netlist: Netlist): string[] =>
  checkWiring(readCircuit(netlist, catalogue), SETTING)
    .findings.filter(({ severity }) => severity === 'danger' || severity === 'fault')
    .map((one) => one.says);

type Gardens = {
  readonly gardens: number;
  readonly presses: number;
  readonly wired: number;
  readonly kept: number;
  /** Presses that broke the promise, as seed and fault. */
  readonly broken: readonly string[];
  /** Reasons by how often they were told. */
  readonly reasons: ReadonlyMap<string, number>;
};

/** What four of five gardens have: a board, and what feeds it. */
const KITS = [
  ['board-wifi-two-groups', 'supply-usb'],
  ['board-8bit-six', 'supply-usb'],
  ['board-33-three', 'supply-12v', 'regulator-5v'],
  ['board-wifi-two-groups', 'battery-12v', 'fuse', 'regulator-5v'],
  ['board-wifi-two-groups', 'battery-12v', 'fuse', 'regulator-5v', 'solar-panel'],
  ['board-8bit-eight', 'battery-lithium', 'fuse', 'regulator-up'],
  ['board-32bit-seven', 'battery-aa', 'regulator-up'],
] as const;

/** Any parts of the catalogue, wild on purpose, in any order. */
function mixOf(entries: readonly string[], random: () => number): string[] {
  const any = () => entries[Math.floor(random() * entries.length)] ?? 'resistor';
  const kit = random() < 0.8 ? (KITS[Math.floor(random() * KITS.length)] ?? []) : [];
  const mix = [...kit, ...Array.from({ length: 1 + Math.floor(random() * 6) }, any)];
  return mix
    .map((entryId) => ({ entryId, at: random() }))
    .sort((one, other) => one.at - other.at)
    .map((one) => one.entryId);
}

export function randomGardens(gardens: number): Gardens {
  const entries = [...catalogue.values()].map((entry) => entry.id);
  let presses = 0;
  let wired = 0;
  let kept = 0;
  const broken: string[] = [];
  const reasons = new Map<string, number>();
  for (let seed = 1; seed <= gardens; seed += 1) {
    const random = randomOf(seed * 31 + 7);
    let netlist: Netlist = EMPTY_NETLIST;
    const wanted = mixOf(entries, random);
    for (const [count, entryId] of wanted.entries()) {
      netlist = addPart(netlist, catalogue, { entryId }).netlist;
      // Not after every part: people press when a few lie there.
      if (random() < 0.6 && count + 1 < wanted.length) continue;
      const plan = planWiring(netlist, catalogue, SETTING, HABITS);
      presses += 1;
      if (plan.netlist === netlist) {
        kept += 1;
        if (plan.changes.length > 0 && plan.refused.length === 0)
          broken.push(`${seed}: kept without a reason`);
        for (const says of plan.refused) {
          const kind = says.replace(/\d+(\.\d+)?/g, '#');
          reasons.set(kind, (reasons.get(kind) ?? 0) + 1);
        }
      } else {
        wired += 1;
        const [fault] = faultsOf(plan.netlist);
        if (fault !== undefined) broken.push(`${seed}: ${fault}`);
      }
      netlist = plan.netlist;
    }
  }
  return { gardens, presses, wired, kept, broken, reasons };
}

export function benchRandomGardens(gardens = 2000): void {
  const began = performance.now();
  const found = randomGardens(gardens);
  console.log(
    `Random gardens: ${found.gardens} mixes, "Wire what is open" pressed ${found.presses} times in ${((performance.now() - began) / 1000).toFixed(0)} s`,
  );
  console.log(
    `  wired without a fault ${found.wired}, nothing changed and the reason told ${found.kept}, otherwise ${found.broken.length} (asked: 0)`,
  );
  for (const one of found.broken.slice(0, 5)) console.log(`  ${one}`);
  const often = [...found.reasons].sort((one, other) => other[1] - one[1]).slice(0, 12);
  for (const [says, times] of often) console.log(`  ${times} times: ${says}`);
}
