/** From answers and choices to parts: what a garden needs on the bench, not wired yet. */
import type { Catalogue } from '../../catalogue/catalogue.ts';
import type { Garden } from '../document/schema.ts';
import { addPart, type NewPart } from '../../wiring/edit.ts';
import { EMPTY_NETLIST, type Netlist } from '../../wiring/netlist.ts';
import type { Topic } from '../../plan/rules.ts';
import { suggest } from '../../plan/suggest.ts';

/** How many probes the plan is for: as answered, else the garden's own, at least one. */
export const probeCount = (garden: Garden): number =>
  garden.plan.answers.probes ?? Math.max(1, garden.probes.length);

/** What was chosen for each topic, else what leads. */
export function chosen(garden: Garden): Readonly<Record<Topic, string>> {
  const suggestions = suggest(garden.plan.answers, probeCount(garden));
  const of = (topic: Topic) =>
    garden.plan.choices[topic]?.candidate ??
    suggestions.find((one) => one.topic === topic)?.ranked[0]?.id ??
    '';
  return { probe: of('probe'), board: of('board'), link: of('link'), power: of('power') };
}

/**
 * Lays out the parts. Boards, probes and pumps that the garden has are taken by their kind where the catalogue knows it; what is still to
 * come follows the choices. Nothing is wired: that is the next step.
 */
export function layOut(garden: Garden, catalogue: Catalogue): Netlist {
  const take = chosen(garden);
  const has = (id: string) => catalogue.has(id);
  let next = EMPTY_NETLIST;
  const add = (of: NewPart): string => {
    const added = addPart(next, catalogue, of);
    next = added.netlist;
    return added.id;
  };
  const boardEntry = has(take.board) ? take.board : 'board-wifi-two-groups';
  const boards = new Map<string, string>();
  for (const board of garden.boards)
    boards.set(
      board.id,
      add({
        entryId: entryForBoard(catalogue, board.traits, board.adcBits, board.supplyV) ?? boardEntry,
        label: board.name,
        stands: { list: 'boards', id: board.id },
      }),
    );
  const firstBoard = [...boards.values()][0] ?? add({ entryId: boardEntry, label: 'Board' });
  for (const id of take.power.split(' ').filter(has)) add({ entryId: id });
  // A battery gives neither of the voltages a board is fed with.
  if (take.power.includes('battery-12v') || take.power === 'supply-12v')
    add({ entryId: 'regulator-5v', label: '5 V regulator' });
  if (take.power.includes('battery-lithium') || take.power === 'battery-aa')
    add({ entryId: 'regulator-up', label: '5 V regulator' });
  let address = 0;
  const addProbe = (entryId: string, of: Omit<NewPart, 'entryId'>) => {
    const bus = (catalogue.get(entryId)?.addresses.length ?? 0) > 0;
    if (bus) address += 1;
    add({ ...of, entryId, address: bus ? (catalogue.get(entryId)?.addresses[address - 1] ?? null) : null });
  };
  const probeEntry = has(take.probe) ? take.probe : 'probe-capacitive';
  for (const probe of garden.probes) {
    const boardId =
      boards.get(garden.channels.find((one) => one.probeId === probe.id)?.boardId ?? '') ?? firstBoard;
    const entryId = [...catalogue.values()].find(
      (entry) => entry.role === 'probe' && entry.name === probe.kind,
    )?.id;
    addProbe(entryId ?? probeEntry, {
      label: probe.label,
      colour: probe.colour,
      boardId,
      stands: { list: 'probes', id: probe.id },
    });
  }
  for (let n = garden.probes.length; n < probeCount(garden); n += 1)
    addProbe(probeEntry, { label: `P${n + 1}`, boardId: firstBoard, colour: 'none' });
  if (next.parts.some((part) => catalogue.get(part.entryId)?.terminals.some((one) => one.type === 'rs485')))
    add({ entryId: 'transceiver-33v', boardId: firstBoard });
  addWater(garden, add, boards, firstBoard, take.power);
  if (take.link === 'link-lamp') add({ entryId: 'lamp-led', label: 'Dry lamp', boardId: firstBoard });
  return next;
}

function addWater(
  garden: Garden,
  add: (of: NewPart) => string,
  boards: ReadonlyMap<string, string>,
  firstBoard: string,
  power: string,
): void {
  const by12V = /12v/.test(power);
  const pumps = garden.waterLines.map((line) => ({
    label: line.name,
    boardId: boards.get(line.boardId) ?? firstBoard,
    stands: { list: 'waterLines' as const, id: line.id },
  }));
  const { water } = garden.plan.answers;
  const wanted =
    pumps.length > 0
      ? pumps
      : water === 'tank' || water === 'tap'
        ? [{ label: water === 'tap' ? 'Valve' : 'Pump', boardId: firstBoard, stands: null }]
        : [];
  for (const pump of wanted) {
    add({ entryId: water === 'tap' && by12V ? 'valve-12v' : by12V ? 'pump-12v' : 'pump-5v', ...pump });
    add({ entryId: 'switch-mosfet', boardId: pump.boardId });
  }
  if (wanted.length > 0 && water === 'tank')
    add({ entryId: 'contact-float', label: 'Tank float', boardId: firstBoard });
}

/** The board entry of the same words, else of the same converter and logic voltage. */
function entryForBoard(
  catalogue: Catalogue,
  traits: string,
  adcBits: number,
  supplyV: number,
): string | null {
  const boards = [...catalogue.values()].filter((entry) => entry.role === 'board');
  return (
    (
      boards.find((entry) => entry.name === traits) ??
      boards.find(
        (entry) =>
          entry.facts.adcBits === adcBits &&
          entry.facts.logicV === supplyV &&
          /wi-fi/i.test(traits) === (entry.facts.hasRadio === 1),
      ) ??
      boards.find((entry) => entry.facts.adcBits === adcBits && entry.facts.logicV === supplyV)
    )?.id ?? null
  );
}
