/** What each part of a wiring can stand for: pumps for water lines, relays for contacts, lamps for the plots that they speak for. */
import { catalogueWith } from '../../catalogue/catalogue.ts';
import type { Entry } from '../../catalogue/schema.ts';
import type { Quantity } from '../../quantity/quantities.ts';
import type { Netlist, Part, Standing } from '../../wiring/netlist.ts';
import type { Channel, Garden } from '../document/schema.ts';

/** By role; every other part serves the circuit alone. */
const LISTS: Readonly<Partial<Record<Entry['role'], Standing>>> = {
  board: 'boards',
  probe: 'probes',
  thermometer: 'probes',
  'humidity probe': 'probes',
  pump: 'waterLines',
  valve: 'waterLines',
  servo: 'waterLines',
  'latching valve': 'waterLines',
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

/** What a board measures by itself, and the role of the part that gives it. */
const MEASURED_BY: Partial<Readonly<Record<Quantity, Entry['role']>>> = {
  'battery voltage': 'battery monitor',
  light: 'light sensor',
  'air temperature': 'thermometer',
};

/** The only part of a board that can be what a channel without a probe measures. */
export function partOfBoard(
  garden: Garden,
  wiring: Netlist,
  { boardId, quantity }: Channel,
): Part | undefined {
  const role = MEASURED_BY[quantity];
  const board = wiring.parts.find(({ stands }) => stands?.list === 'boards' && stands.id === boardId);
  const catalogue = catalogueWith(garden.catalogue);
  const parts = wiring.parts.filter(
    (part) =>
      part.boardId === board?.id && part.stands === null && catalogue.get(part.entryId)?.role === role,
  );
  return board && role && parts.length === 1 ? parts[0] : undefined;
}
