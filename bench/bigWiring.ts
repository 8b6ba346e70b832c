/** A garden with a wiring of 60 parts and about 200 wires: four boards with everything that can hang on them. */
import { catalogueWith } from '../core/src/catalogue/catalogue.ts';
import { emptyGarden } from '../core/src/garden/edits/plots.ts';
import type { Garden } from '../core/src/garden/document/schema.ts';
import { addPart, type NewPart } from '../core/src/wiring/edit.ts';
import { EMPTY_NETLIST, type Netlist } from '../core/src/wiring/netlist.ts';
import { planWiring } from '../core/src/wiring/planWiring.ts';

export const bigCatalogue = catalogueWith([]);
export const bigSetting = { radioOn: true, tapWater: false } as const;

/** The parts alone, not wired. */
export function bigParts(): Netlist {
  let next: Netlist = EMPTY_NETLIST;
  const add = (of: NewPart) => {
    const added = addPart(next, bigCatalogue, of);
    next = added.netlist;
    return added.id;
  };
  for (const entryId of ['battery-12v', 'regulator-5v', 'solar-panel', 'fuse']) add({ entryId });
  for (let board = 1; board <= 4; board += 1) {
    const boardId = add({ entryId: 'board-wifi-two-groups', label: `Board ${board}` });
    for (let n = 1; n <= 5; n += 1)
      add({ entryId: 'probe-capacitive', label: `${board}.${n}`, boardId, colour: 'blue' });
    for (const entryId of [
      'display-i2c',
      'thermo-one-wire',
      'contact-float',
      'lamp-led',
      'pump-12v',
      'switch-mosfet',
      'light-i2c',
    ])
      add({ entryId, boardId, label: `${entryId} ${board}` });
    if (board <= 2) {
      add({ entryId: 'transceiver-33v', boardId, label: `Bus ${board}` });
      add({ entryId: 'probe-bus-rods', boardId, label: `Rods ${board}`, address: board });
    }
  }
  return next;
}

export function bigGarden(): Garden {
  const garden = emptyGarden('Big bench', 'Europe/London', {
    random: () => 0.5,
    nowIso: '2026-05-01T08:00:00.000Z',
  });
  return {
    ...garden,
    id: 'garden-big-bench',
    wiring: planWiring(bigParts(), bigCatalogue, bigSetting, { lengthM: 2 }).netlist,
  };
}
