/** Changes to a garden's plan, wiring and own catalogue. What stands in both places, such as a probe's label or pin, is kept in step here. */
import { byId } from '../../quantity/byId.ts';
import { catalogueWith, type Catalogue } from '../../catalogue/catalogue.ts';
import type { Entry } from '../../catalogue/schema.ts';
import type { Plan } from '../../plan/schema.ts';
import { hasRole, isType, readCircuit, spotsOf, type Circuit } from '../../wiring/circuit.ts';
import type { Setting } from '../../wiring/finding.ts';
import { others } from '../../wiring/look.ts';
import type { Netlist, Part } from '../../wiring/netlist.ts';
import { partOfBoard } from '../bind/standing.ts';
import type { Garden, Placement } from '../document/schema.ts';

export const catalogueOf = (garden: Garden): Catalogue => catalogueWith(garden.catalogue);

/** What the checks must know of the garden: from the answers and the link that was chosen. */
export function settingOf({ plan }: Garden): Setting {
  const { wifi, wants, water } = plan.answers;
  const link = plan.choices.link?.candidate ?? null;
  const radioOn =
    link !== null
      ? link === 'link-http' || link === 'link-mqtt'
      : wifi === 'none' || wants === 'lamp'
        ? false
        : wifi === null
          ? null
          : true;
  return {
    radioOn,
    tapWater: water === null ? null : water === 'tap' || water === 'timer',
    frost: frostOf(plan),
  };
}

const OUTDOORS = new Set(['balcony', 'bed', 'lawn']);

/** Out of doors it freezes where the coldest usual day is near zero; indoors it does not. */
function frostOf({ answers, supply }: Plan): boolean | null {
  if (answers.place === null) return null;
  return OUTDOORS.has(answers.place) && supply.temperatureC <= 3;
}

export const changePlan = (garden: Garden, change: Partial<Plan>): Garden => ({
  ...garden,
  plan: { ...garden.plan, ...change },
});

/** Puts a wiring in place, and writes where each probe is connected into its channel: "P34". */
export function setWiring(garden: Garden, wiring: Netlist): Garden {
  const circuit = readCircuit(wiring, catalogueOf(garden));
  return {
    ...garden,
    wiring,
    channels: garden.channels.map((channel) => {
      const part =
        channel.probeId === null
          ? partOfBoard(garden, wiring, channel)
          : wiring.parts.find((one) => one.stands?.list === 'probes' && one.stands.id === channel.probeId);
      const pin = part && pinOf(circuit, part);
      return pin === null || pin === undefined || pin === channel.pin ? channel : { ...channel, pin };
    }),
  };
}

/** The board's input that reads a part, through dividers and resistors; null when none does. */
function pinOf(circuit: Circuit, part: Part): string | null {
  const placed = circuit.parts.get(part.id);
  if (!placed) return null;
  const seen = new Set([placed]);
  let edge = [...spotsOf(placed)].filter((spot) => !['supply in', 'ground'].includes(spot.terminal.type));
  for (let hop = 0; hop < 4 && edge.length > 0; hop += 1) {
    const next = edge.flatMap((spot) => others(circuit, spot)).filter((spot) => !seen.has(spot.placed));
    const pin = next.find((spot) => isType(spot, 'pin') || isType(spot, 'analog in'));
    // The channel names its board already; a converter between is named as well.
    if (pin)
      return hasRole(pin.placed, 'board')
        ? pin.terminal.name
        : `${pin.placed.part.label} ${pin.terminal.name}`;
    for (const spot of next) seen.add(spot.placed);
    edge = next.flatMap((spot) =>
      spotsOf(spot.placed).filter(
        (one) => one.terminal.type === 'lead' && one.terminal.id !== spot.terminal.id,
      ),
    );
  }
  return null;
}

/** Brings the wiring in step with the garden: labels and tags follow, and parts whose probe or board is gone stand for nothing any more. */
export function syncWiring(garden: Garden): Garden {
  if (garden.wiring.parts.every((part) => part.stands === null)) return garden;
  return {
    ...garden,
    wiring: { ...garden.wiring, parts: garden.wiring.parts.map((part) => inStep(garden, part)) },
  };
}

function inStep(garden: Garden, part: Part): Part {
  if (!part.stands) return part;
  const { list, id } = part.stands;
  const thing = byId<{ readonly id: string }>(garden[list], id);
  if (!thing) return { ...part, stands: null };
  // A plot may have more than one lamp; each keeps its own name.
  if (list === 'plots') return part;
  if ('colour' in thing) {
    const { label, colour } = thing as Garden['probes'][number];
    return { ...part, label, colour };
  }
  return { ...part, label: (thing as { readonly id: string; readonly name: string }).name };
}

/** Says what in the garden this part is; null: nothing. A thing has one part, but a plot may have several lamps. */
export function standFor(garden: Garden, partId: string, stands: Part['stands']): Garden {
  const isSame = (one: Part) =>
    stands !== null &&
    stands.list !== 'plots' &&
    one.stands?.list === stands.list &&
    one.stands.id === stands.id;
  const parts = garden.wiring.parts.map((part): Part =>
    part.id === partId ? { ...part, stands } : isSame(part) ? { ...part, stands: null } : part,
  );
  return syncWiring(setWiring(garden, { ...garden.wiring, parts }));
}

/** The part that stands for a probe of the garden. */
export const partOfProbe = (garden: Garden, probeId: string): Part | null =>
  garden.wiring.parts.find((part) => part.stands?.list === 'probes' && part.stands.id === probeId) ?? null;

export const setPlacement = (
  garden: Garden,
  probeId: string,
  change: Partial<Placement> & { depthCm?: number },
): Garden => ({
  ...garden,
  probes: garden.probes.map((probe) => {
    if (probe.id !== probeId) return probe;
    const { depthCm = probe.depthCm, ...placement } = change;
    return { ...probe, depthCm, placement: { ...probe.placement, ...placement } };
  }),
});

/** Adds an own entry or puts a changed one in the place of the one with its id. */
export const setEntry = (garden: Garden, entry: Entry): Garden => ({
  ...garden,
  catalogue: [...garden.catalogue.filter((one) => one.id !== entry.id), entry],
});

/** Removes an own entry; a built-in one that it stood for is back. */
export const removeEntry = (garden: Garden, entryId: string): Garden => ({
  ...garden,
  catalogue: garden.catalogue.filter((one) => one.id !== entryId),
});

/** Entries of a file that differ from the built-in ones, added to the own ones; those with the same id are replaced. */
export function importEntries(garden: Garden, entries: readonly Entry[]): Garden {
  const builtIn = catalogueWith([]);
  const own = entries.filter((entry) => JSON.stringify(builtIn.get(entry.id)) !== JSON.stringify(entry));
  return own.reduce(setEntry, garden);
}
