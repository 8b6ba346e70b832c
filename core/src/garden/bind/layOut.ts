/** From answers and choices to parts: what a garden needs on the bench, not wired yet. */
import type { Catalogue } from '../../catalogue/catalogue.ts';
import { byId } from '../../quantity/byId.ts';
import type { Board, Garden } from '../document/schema.ts';
import { addPart, type NewPart } from '../../wiring/edit.ts';
import { EMPTY_NETLIST, type Netlist, type Part } from '../../wiring/netlist.ts';
import type { Topic } from '../../plan/rules.ts';
import { suggest } from '../../plan/suggest.ts';
import { entryOfKind, kindOfEntry } from './probeEntry.ts';
import { isDeciding } from './scale.ts';

/** Plots that no probe stands in yet. */
export const plotsWithoutProbe = (garden: Garden) =>
  garden.plots.filter((plot) => !garden.probes.some((probe) => probe.plotId === plot.id));

/** How many probes the plan is for: as answered, else one for each plot beside those that are there, at least one. */
export const probeCount = (garden: Garden): number =>
  garden.plan.answers.probes ?? Math.max(1, garden.probes.length + plotsWithoutProbe(garden).length);

/** The answers with the longest cable that is known: as answered, or the way to the farthest plot. */
export function answersOf({ plan, plots }: Garden): Garden['plan']['answers'] {
  const ways = [plan.answers.cableM, ...plots.map((plot) => plot.cableM)].filter((one) => one !== null);
  return { ...plan.answers, cableM: ways.length > 0 ? Math.max(...ways) : null };
}

/** What was chosen for each topic, else what leads. */
export function chosen(garden: Garden): Readonly<Record<Topic, string>> {
  const suggestions = suggest(answersOf(garden), probeCount(garden), garden.plan.drawer);
  const of = (topic: Topic) =>
    garden.plan.choices[topic]?.candidate ??
    suggestions.find((one) => one.topic === topic)?.ranked[0]?.id ??
    '';
  return { probe: of('probe'), board: of('board'), link: of('link'), power: of('power') };
}

/** One thing that the garden says in one way and its plan in another; which of the two holds is the person's to say. */
export type Disagreement = {
  readonly topic: 'board' | 'probe';
  /** Ids in the garden's own list. */
  readonly ids: readonly string[];
  /** Catalogue entries; of the garden null where its words are none that the catalogue knows. */
  readonly gardenEntry: string | null;
  readonly planEntry: string;
};

/** Where both say something and not the same. A plan without an answer or a choice says nothing. */
export function disagreements(garden: Garden, catalogue: Catalogue): Disagreement[] {
  const { answers, choices } = garden.plan;
  const isAnswered = Object.values(answers).some((one) => one !== null);
  const take = chosen(garden);
  const found: Disagreement[] = [];
  const note = (topic: Disagreement['topic'], id: string, gardenEntry: string | null) => {
    const planEntry = take[topic];
    if (!catalogue.has(planEntry) || gardenEntry === planEntry) return;
    const held = found.find((one) => one.topic === topic && one.gardenEntry === gardenEntry);
    if (held) found[found.indexOf(held)] = { ...held, ids: [...held.ids, id] };
    else found.push({ topic, ids: [id], gardenEntry, planEntry });
  };
  if (isAnswered || choices.board)
    for (const board of garden.boards) note('board', board.id, entryForBoard(catalogue, board));
  const planned = catalogue.get(take.probe);
  if (planned && (isAnswered || choices.probe))
    for (const probe of moistureProbes(garden))
      if (kindOfEntry(planned) !== probe.kind) note('probe', probe.id, entryOfKind(catalogue, probe.kind));
  return found;
}

const moistureProbes = (garden: Garden) =>
  garden.probes.filter((probe) =>
    garden.channels.some((one) => one.probeId === probe.id && isDeciding(one.quantity)),
  );

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
        entryId: entryForBoard(catalogue, board) ?? boardEntry,
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
    // The plan's own entry where it is of the same kind: bare electrodes rather than those in their divider.
    const planned = catalogue.get(probeEntry);
    const entryId =
      planned && kindOfEntry(planned) === probe.kind ? probeEntry : entryOfKind(catalogue, probe.kind);
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
  const lines = garden.waterLines.map((line) => ({
    label: line.name,
    boardId: boards.get(line.boardId) ?? firstBoard,
    stands: { list: 'waterLines' as const, id: line.id },
  }));
  const { water, zones } = garden.plan.answers;
  if (water === 'timer') {
    // The timer is there already, with its mains side closed; ours is a contact before each valve.
    add({ entryId: 'timer-24vac', label: 'Timer' });
    for (let n = 0; n < Math.min(6, Math.max(lines.length, zones ?? 1)); n += 1) {
      const line = lines[n] ?? { label: `Zone ${n + 1} valve`, boardId: firstBoard, stands: null };
      add({ entryId: 'valve-24vac', ...line });
      add({ entryId: 'switch-permit', label: `Permit ${n + 1}`, boardId: line.boardId });
    }
    return;
  }
  const wanted =
    lines.length > 0
      ? lines
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

/** What a person set on a part that stays: its figures, its place in the picture, how it is powered. A part stays that stands for the same, or is of the same entry and name. */
export function carriedOver(laid: Netlist, before: Netlist): Netlist {
  const heldBy = (part: Part): Part | undefined =>
    before.parts.find(
      (one) =>
        one.entryId === part.entryId &&
        (part.stands
          ? one.stands?.list === part.stands.list && one.stands.id === part.stands.id
          : one.label === part.label),
    );
  return {
    ...laid,
    parts: laid.parts.map((part) => {
      const held = heldBy(part);
      return held
        ? { ...part, settings: held.settings, at: held.at, perReading: held.perReading, colour: held.colour }
        : part;
    }),
  };
}

/** The way of the cable to a part, m: to the plot of its probe or line; null where nobody has measured it. */
export function cableTo(garden: Garden, part: Part): number | null {
  const { list = null, id = '' } = part.stands ?? {};
  const plotId =
    list === 'probes'
      ? byId(garden.probes, id)?.plotId
      : list === 'waterLines' || list === 'contacts'
        ? byId<{ readonly id: string; readonly plotId: string }>(garden[list], id)?.plotId
        : list === 'plots'
          ? id
          : undefined;
  return byId(garden.plots, plotId)?.cableM ?? null;
}

/** The board entry of the same words, else of the same converter and logic voltage. */
export function entryForBoard(catalogue: Catalogue, { traits, adcBits, supplyV }: Board): string | null {
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
