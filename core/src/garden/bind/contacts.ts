/** Contacts of the garden: their settings for the engine, and what in them contradicts itself. */
import { byId } from '../../quantity/byId.ts';
import { boundConditions, sensesOfConditions } from '../../control/conditions/conditions.ts';
import type { ContactConfig, Edge } from '../../control/contacts/contract.ts';
import { found, type Contradiction } from '../../control/programs/contradiction.ts';
import { DAY_S } from '../../control/programs/settings.ts';
import { ambientChoices, ambientOf } from './ambient.ts';
import { limitContradictions } from './limitContradictions.ts';
import { plotParts } from './plotParts.ts';
import type { Contact, SavedEdge } from '../document/contactSchema.ts';
import type { Garden } from '../document/schema.ts';

/** Longer than any day that is counted: no limit. */
const NO_LIMIT_S = 1_000_000;

/** @param sensor place of its probe among the board's sensors; null without one */
export function contactConfig(garden: Garden, contact: Contact, sensor: number | null): ContactConfig {
  const { rule, mostOnMin, dayMaxMin, leastOffMin } = contact;
  const limits = byId(garden.plots, contact.plotId)?.limits ?? { startTenths: 0, stopTenths: 1000 };
  return {
    enabled: contact.automatic,
    contradicts: contactContradictions(garden, contact).length > 0,
    sensor,
    rule:
      rule.kind === 'permit'
        ? { kind: 'permit', ...limits, restPermits: rule.atRest === 'permits' }
        : { kind: 'light', from: edgeOf(rule.from), to: edgeOf(rule.to), cell: cellOf(rule.cell) },
    conditions: boundConditions(contact.conditions),
    guards: {
      mostOnS: mostOnMin === null ? NO_LIMIT_S : mostOnMin * 60,
      leastOffS: leastOffMin * 60,
      dayMaxS: dayMaxMin === null ? NO_LIMIT_S : dayMaxMin * 60,
    },
  };
}

const edgeOf = ({ by, minute }: SavedEdge): Edge => ({ by, s: minute * 60 });

type Cell = Extract<Contact['rule'], { kind: 'light' }>['cell'];
/** Rounded towards dark: less light, not more. */
const cellOf = (cell: Cell): Cell =>
  cell && { darkBelow: Math.floor(cell.darkBelow), brightAbove: Math.floor(cell.brightAbove) };

/** Settings of a contact that contradict each other; while there are any it is at rest. */
export function contactContradictions(garden: Garden, contact: Contact): readonly Contradiction[] {
  return [
    ...(contact.rule.kind === 'permit' ? ofPermit(garden, contact) : ofLight(garden, contact, contact.rule)),
    ...ofHours(contact),
    ...ofSensors(garden, contact),
  ];
}

function ofPermit(garden: Garden, { plotId, staleAfterS }: Contact): readonly Contradiction[] {
  const parts = plotParts(garden, plotId);
  return [
    ...found(!parts?.channel, 'no-probe', 'program', 'probe'),
    ...found(
      staleAfterS < garden.logEveryS,
      'stale-under-logging',
      'stale',
      'logging',
      staleAfterS,
      garden.logEveryS,
    ),
    ...limitContradictions(parts),
  ];
}

function ofLight(
  garden: Garden,
  { mostOnMin, dayMaxMin }: Contact,
  { from, to, cell }: Extract<Contact['rule'], { kind: 'light' }>,
): readonly Contradiction[] {
  const goesBySun = from.by !== 'clock' || to.by !== 'clock';
  const lengthS = goesBySun ? 0 : ((to.minute - from.minute) * 60 + DAY_S) % DAY_S;
  const mostMin = Math.min(mostOnMin ?? Infinity, dayMaxMin ?? Infinity);
  return [
    ...found(from.by === to.by && from.minute === to.minute, 'no-hours', 'hours', 'hours'),
    ...found(
      lengthS > mostMin * 60,
      'hours-over-most',
      'hours',
      (mostOnMin ?? Infinity) <= (dayMaxMin ?? Infinity) ? 'mostOn' : 'dayMost',
      lengthS,
      mostMin * 60,
    ),
    ...found(goesBySun && garden.plan.supply.latitudeDeg === null, 'no-latitude', 'sun', 'sun'),
    ...(cell
      ? found(
          cell.brightAbove <= cell.darkBelow,
          'cell-crossed',
          'cell',
          'cell',
          cell.brightAbove,
          cell.darkBelow,
        )
      : []),
  ];
}

const ofHours = ({ conditions: { hours } }: Contact): Contradiction[] =>
  found(hours !== null && hours.fromMinute === hours.toMinute, 'no-hours', 'hours', 'hours');

/** What its conditions and its light cell go by must be measured. */
function ofSensors(garden: Garden, { boardId, plotId, around, conditions, rule }: Contact): Contradiction[] {
  const place = { boardId, plotId, chosen: around };
  const asked = [
    ...sensesOfConditions(conditions),
    ...(rule.kind === 'light' && rule.cell ? [{ field: 'cell', sense: 'light' } as const] : []),
  ];
  return asked.flatMap(({ field, sense }) => {
    if (ambientOf(garden, place, sense)) return [];
    const near = ambientChoices(garden, place, sense).length;
    return found(true, near > 1 ? 'which-sensor' : 'no-sensor', field, 'sensor', near);
  });
}
