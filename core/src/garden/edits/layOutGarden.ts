/** From a plan to a wired garden: parts laid out and wired, and what the garden lacked (its board, a probe in each plot) written into it. */
import { byId } from '../../quantity/byId.ts';
import { kindOfEntry } from '../bind/probeEntry.ts';
import { cableTo, carriedOver, disagreements, layOut, plotsWithoutProbe } from '../bind/layOut.ts';
import { makeId } from '../document/ids.ts';
import type { Board, Channel, Garden, Probe } from '../document/schema.ts';
import type { Netlist, Part } from '../../wiring/netlist.ts';
import { planWiring } from '../../wiring/planWiring.ts';
import { catalogueOf, settingOf, setWiring } from './plan.ts';
import { EMPTY_CHANNEL, NEW_PROBE, USUAL_DEPTH_CM } from './plots.ts';
import { NOTHING_SAID, NOTHING_WATCHED } from '../document/migrations.ts';

/** Where garden and plan say different things, which holds. */
export type Holds = Readonly<Record<'board' | 'probe', 'garden' | 'plan'>>;

/** Takes over what the plan says of boards and probes that the garden had otherwise. Calibrations stay; those of another supply or kind are void or due by themselves. */
function takePlan(garden: Garden, holds: Holds): Garden {
  const catalogue = catalogueOf(garden);
  const taken = disagreements(garden, catalogue).filter(({ topic }) => holds[topic] === 'plan');
  const isOf = (topic: 'board' | 'probe', id: string) =>
    taken.find((one) => one.topic === topic && one.ids.includes(id))?.planEntry;
  return {
    ...garden,
    boards: garden.boards.map((board): Board => {
      const entry = catalogue.get(isOf('board', board.id) ?? '');
      const { adcBits, logicV } = entry?.facts ?? {};
      return entry && adcBits != null && logicV != null
        ? { ...board, traits: entry.name, adcBits, supplyV: logicV }
        : board;
    }),
    probes: garden.probes.map((probe): Probe => {
      const entry = catalogue.get(isOf('probe', probe.id) ?? '');
      const kind = entry && kindOfEntry(entry);
      return kind ? { ...probe, kind } : probe;
    }),
  };
}

/** Writes into the garden what its wiring has and it has not: a board for each that stands for none, and a probe for each plot without one. */
export function fillFromWiring(garden: Garden, random: () => number): Garden {
  const catalogue = catalogueOf(garden);
  const fresh = (prefix: string, list: readonly { id: string }[]) =>
    makeId(prefix, new Set(list.map((one) => one.id)), random);
  let next = garden;
  const stand = (part: Part, stands: NonNullable<Part['stands']>) => {
    const parts = next.wiring.parts.map((one) => (one.id === part.id ? { ...one, stands } : one));
    next = { ...next, wiring: { ...next.wiring, parts } };
  };
  const open = (role: string) =>
    garden.wiring.parts.filter((part) => part.stands === null && catalogue.get(part.entryId)?.role === role);
  for (const part of open('board')) {
    const entry = catalogue.get(part.entryId);
    const { adcBits, logicV } = entry?.facts ?? {};
    if (!entry || adcBits == null || logicV == null) continue;
    const id = fresh('board', next.boards);
    const board: Board = {
      id,
      name: part.label,
      traits: entry.name,
      adcBits,
      supplyV: logicV,
      watch: NOTHING_WATCHED,
      reads: { ...NOTHING_SAID, ignores: [], picked: [] },
    };
    next = { ...next, boards: [...next.boards, board] };
    stand(part, { list: 'boards', id });
  }
  const boardOf = (part: Part): string | undefined =>
    byId(next.wiring.parts, part.boardId)?.stands?.id ?? next.boards[0]?.id;
  const waiting = plotsWithoutProbe(garden);
  for (const part of open('probe')) {
    const entry = catalogue.get(part.entryId);
    const kind = entry && kindOfEntry(entry);
    const boardId = boardOf(part);
    const plot = kind && boardId !== undefined ? waiting.shift() : undefined;
    if (!kind || !plot || boardId === undefined) continue;
    const id = fresh('probe', next.probes);
    const probe: Probe = {
      id,
      plotId: plot.id,
      label: part.label,
      kind,
      colour: part.colour,
      depthCm: USUAL_DEPTH_CM,
      ...NEW_PROBE,
    };
    const channel: Channel = {
      ...EMPTY_CHANNEL,
      id: fresh('channel', next.channels),
      probeId: id,
      boardId,
      streamName: part.label,
    };
    next = { ...next, probes: [...next.probes, probe], channels: [...next.channels, channel] };
    stand(part, { list: 'probes', id });
  }
  return next;
}

export type LaidOut = {
  readonly garden: Garden;
  /** Why the parts were laid out but not wired; null when they were. */
  readonly refused: string | null;
};

/** Lays the parts out, wires them and fills the garden from them. What a person had set on parts that stay is kept; wires are drawn anew. */
export function layOutGarden(garden: Garden, holds: Holds, random: () => number): LaidOut {
  const agreed = takePlan(garden, holds);
  const catalogue = catalogueOf(agreed);
  const laid: Netlist = carriedOver(layOut(agreed, catalogue), garden.wiring);
  const filled = fillFromWiring({ ...agreed, wiring: laid }, random);
  const planned = planWiring(filled.wiring, catalogue, settingOf(filled), {
    lengthM: filled.plan.answers.cableM,
    lengthOf: (part) => cableTo(filled, part),
  });
  return { garden: setWiring(filled, planned.netlist), refused: planned.refused[0] ?? null };
}

/** Parts of a wiring that another does not have any more, by their labels: of two alike one is missed once. */
export function partsDropped(before: Netlist, after: Netlist): string[] {
  const left = after.parts.map((part) => part.entryId);
  return before.parts.flatMap((part) => {
    const at = left.indexOf(part.entryId);
    if (at < 0) return [part.label];
    left.splice(at, 1);
    return [];
  });
}
