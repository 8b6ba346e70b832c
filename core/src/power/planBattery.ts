/** The battery that stands in the wiring, as the supply budget takes it; what a person typed counts only where none stands there. */
import { fact, type Circuit } from '../wiring/circuit.ts';
import { partsWith } from '../wiring/look.ts';
import { CHEMISTRIES, type Chemistry } from './battery.ts';
import type { SupplyHabits } from './habits.ts';

export type PlanBattery = {
  readonly label: string;
  readonly chemistry: Chemistry;
  readonly capacityMah: number;
  readonly batteryV: number;
};

/** What a battery is made of, told from the words of its entry; the first that fits. */
const WORDS: readonly (readonly [RegExp, Chemistry])[] = [
  [/iron phosphate/i, 'lithium iron phosphate'],
  [/lithium/i, 'lithium cell'],
  [/lead/i, 'lead-acid'],
  [/nickel/i, 'nickel metal hydride'],
  [/alkaline/i, 'alkaline cells'],
];

/** Null where the wiring has no battery, or one whose capacity, voltage or kind is not known. */
export function planBattery(circuit: Circuit): PlanBattery | null {
  const [battery] = partsWith(circuit, 'battery');
  if (!battery) return null;
  const chemistry = WORDS.find(([words]) => words.test(battery.entry.name))?.[1];
  const capacityMah = fact(battery, 'capacityMah');
  const batteryV = fact(battery, 'ratedV');
  return chemistry === undefined || capacityMah === null || batteryV === null
    ? null
    : { label: battery.part.label, chemistry, capacityMah, batteryV };
}

/** The habits with the battery of the wiring; another kind than was typed brings its own usual shares. */
export function habitsOf(circuit: Circuit, typed: SupplyHabits): SupplyHabits {
  const battery = planBattery(circuit);
  if (!battery) return typed;
  const { chemistry, capacityMah, batteryV } = battery;
  const { usableFrac, selfDischargePerMonthFrac } =
    chemistry === typed.chemistry ? typed : CHEMISTRIES[chemistry];
  return { ...typed, chemistry, capacityMah, batteryV, usableFrac, selfDischargePerMonthFrac };
}
