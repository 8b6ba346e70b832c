/** What of a garden a part of its wiring can be: a pump a water line, a relay a contact, a lamp one that speaks for a plot. */
import type { Entry } from '../../catalogue/schema.ts';
import type { Standing } from '../../wiring/netlist.ts';
import type { Garden } from '../document/schema.ts';

/** By role; every other part serves the circuit alone. */
const LISTS: Readonly<Partial<Record<Entry['role'], Standing>>> = {
  board: 'boards',
  probe: 'probes',
  thermometer: 'probes',
  'humidity probe': 'probes',
  pump: 'waterLines',
  valve: 'waterLines',
  servo: 'waterLines',
  relay: 'contacts',
  'mains plug': 'contacts',
  LED: 'plots',
  lamp: 'plots',
  buzzer: 'plots',
  display: 'plots',
};

export type StandingChoice = { readonly id: string; readonly name: string };

/** The list that a part of this role may stand in, and who is in it; null: such a part is nobody. */
export function standingOf(
  garden: Garden,
  role: Entry['role'],
): { readonly list: Standing; readonly choices: readonly StandingChoice[] } | null {
  const list = LISTS[role];
  if (!list) return null;
  const choices = garden[list].map((one) => ({ id: one.id, name: 'label' in one ? one.label : one.name }));
  return { list, choices };
}
