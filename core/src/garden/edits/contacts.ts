/** Permit contacts and grow lights of a plot. New ones are at rest until a person lets them decide. */
import { NO_CONDITIONS } from '../document/migrations.ts';
import { NOTHING_CHOSEN } from '../document/waterSchema.ts';
import { syncWiring } from './plan.ts';
import { makeId } from '../document/ids.ts';
import { plotParts } from '../bind/plotParts.ts';
import type { Contact, ContactRule } from '../document/contactSchema.ts';
import type { Garden } from '../document/schema.ts';

const RULES: { readonly [Kind in ContactRule['kind']]: Extract<ContactRule, { kind: Kind }> } = {
  // A dead board keeps the valve shut.
  permit: { kind: 'permit', atRest: 'forbids' },
  light: {
    kind: 'light',
    from: { by: 'clock', minute: 6 * 60 },
    to: { by: 'clock', minute: 20 * 60 },
    cell: null,
  },
};

/** A permit may stand as long as the soil is dry; no plant wants light all day and night. */
const LIMITS = {
  permit: { mostOnMin: null, dayMaxMin: null },
  light: { mostOnMin: 16 * 60, dayMaxMin: 16 * 60 },
} as const;

const NAMES = { permit: 'permit contact', light: 'grow light' } as const;

/** On the board that reads the plot's probe, else the garden's first; the same garden where there is no board yet. */
export function addContact(
  garden: Garden,
  plotId: string,
  kind: ContactRule['kind'],
  random: () => number,
): Garden {
  const parts = plotParts(garden, plotId);
  const boardId = parts?.channel?.boardId ?? garden.boards[0]?.id;
  if (!parts || boardId === undefined) return garden;
  const contact: Contact = {
    id: makeId('contact', new Set(garden.contacts.map((one) => one.id)), random),
    name: `${parts.plot.name.slice(0, 44)} ${NAMES[kind]}`,
    boardId,
    plotId,
    automatic: false,
    rule: RULES[kind],
    conditions: NO_CONDITIONS,
    around: NOTHING_CHOSEN,
    ...LIMITS[kind],
    leastOffMin: 10,
    staleAfterS: Math.max(60, 3 * garden.logEveryS),
  };
  return { ...garden, contacts: [...garden.contacts, contact] };
}

export const setContact = (garden: Garden, contactId: string, change: Partial<Omit<Contact, 'id'>>): Garden =>
  syncWiring({
    ...garden,
    contacts: garden.contacts.map((one) => (one.id === contactId ? { ...one, ...change } : one)),
  });

export const removeContact = (garden: Garden, contactId: string): Garden =>
  syncWiring({ ...garden, contacts: garden.contacts.filter((one) => one.id !== contactId) });
