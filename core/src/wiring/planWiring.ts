/**
 * Wire it all: supplies and grounds, switches to their loads, bus lines, pins; then the small parts that the checks ask for, each time from
 * the finding's own first remedy. What a person has wired stays. The plan says what it added and what it could not do.
 */
import type { Catalogue } from '../catalogue/catalogue.ts';
import { emptyShare } from './solve/models.ts';
import { checkWiring } from './checks/all.ts';
import { feedsInto } from './checks/solved/feeders.ts';
import {
  fact,
  hasRole,
  isBareSensor,
  isType,
  readCircuit,
  spotAt,
  spotsOf,
  type Circuit,
  type Placed,
  type Spot,
} from './circuit.ts';
import { applyRemedy, connect } from './edit.ts';
import { layCables, type CableHabits } from './layCables.ts';
import type { Finding, Remedy, Setting } from './finding.ts';
import {
  boardOf,
  drawMa,
  isTransformer,
  isWired,
  logicSupply,
  minusOf,
  others,
  partsWith,
  plusOf,
} from './look.ts';
import { endKey, type End, type Netlist } from './netlist.ts';
import { changesOf, type Change } from './proposal.ts';
import { planPins, type Blocked } from './planPins.ts';

export type WiringPlan = {
  /** What the wiring becomes: the very one it was where the proposal would leave a fault in it. */
  readonly netlist: Netlist;
  /** What was worked out, taken or not, and each change of it. */
  readonly proposal: Netlist;
  readonly changes: readonly Change[];
  /** Why the proposal was not taken: each fault that it would leave; empty when it was. */
  readonly refused: readonly string[];
  /** Parts that these faults are about, without which the rest may be wired. */
  readonly inTheWay: readonly string[];
  /** What the checks made it add: "Put 330 Ω before it (Dry lamp)". */
  readonly added: readonly string[];
  readonly blocked: readonly Blocked[];
  /** Parts for which no supply in the wiring suits. */
  readonly unfed: readonly string[];
};

type Proposal = Omit<WiringPlan, 'proposal' | 'changes' | 'refused' | 'inTheWay'> & {
  readonly why: ReadonlyMap<string, string>;
};

const MOST_ROUNDS = 12;
/** What these find of a wiring that is not drawn yet is to be drawn, no fault. */
const OPEN_CHECKS = new Set(['unpowered', 'analog-count', 'lithium']);
const BY_ITSELF = new Set<Remedy['kind']>([
  'insert',
  'bridge',
  'shift',
  'set-address',
  'set-fact',
  'set-area',
  'feed',
]);

/** Wires what is open, and takes that only when the same checks find no fault in it that a person had not drawn before. */
export function planWiring(
  netlist: Netlist,
  catalogue: Catalogue,
  setting: Setting,
  habits: CableHabits,
): WiringPlan {
  const { why, ...proposed } = propose(netlist, catalogue, setting, habits);
  const changes = changesOf(netlist, proposed.netlist, catalogue, why);
  const left = changes.length === 0 ? [] : faultsLeft(netlist, proposed.netlist, catalogue, setting);
  const proposedCircuit = readCircuit(proposed.netlist, catalogue);
  const labels = new Map(netlist.parts.map((part) => [part.id, part]));
  const inTheWay = [...new Set(left.flatMap(({ ends }) => ends.slice(0, 1).map((end) => end.part)))].filter(
    (id) => {
      const role = catalogue.get(labels.get(id)?.entryId ?? '')?.role;
      return role !== undefined && role !== 'board';
    },
  );
  return {
    ...proposed,
    netlist: left.length > 0 || changes.length === 0 ? netlist : proposed.netlist,
    proposal: proposed.netlist,
    changes,
    refused: [...new Set(left.map((one) => reasonOf(one, proposedCircuit, proposed.unfed)))],
    inTheWay,
  };
}

/** Faults of a wiring that a person had not drawn before; what is only open yet is none of the person's, but left open it is one. */
function faultsLeft(before: Netlist, after: Netlist, catalogue: Catalogue, setting: Setting): Finding[] {
  const faultsOf = (of: Netlist) =>
    checkWiring(readCircuit(of, catalogue), setting).findings.filter(({ severity }) =>
      ['danger', 'fault'].includes(severity),
    );
  const drawn = new Set(
    faultsOf(before)
      .filter((one) => !OPEN_CHECKS.has(one.check))
      .map((one) => one.says),
  );
  return faultsOf(after).filter((one) => !drawn.has(one.says));
}

/** What a change of the wiring would do harm with: faults that were not there before. What is open, or stays so, is none. */
export const harmOf = (before: Netlist, after: Netlist, catalogue: Catalogue, setting: Setting): Finding[] =>
  faultsLeft(before, after, catalogue, setting).filter((one) => !OPEN_CHECKS.has(one.check));

/** A fault that is left, told as what is missing for it: a part that nothing could be wired to wants a supply, a board or a switch first. */
function reasonOf(finding: Finding, circuit: Circuit, unfed: readonly string[]): string {
  const [end] = finding.ends;
  const placed = end && circuit.parts.get(end.part);
  if (finding.check !== 'unpowered' || !placed) return finding.says;
  const { label } = placed.part;
  if (hasRole(placed, 'pump', 'valve'))
    return `${label} has no switch that is free, or no supply of its voltage${ratedText(placed)}.`;
  if (partsWith(circuit, 'board').length === 0) return `There is no board that ${label} could belong to.`;
  const inlet = placed.spots.find((spot) => isType(spot, 'supply in'));
  if (unfed.includes(label) && inlet && isType(inlet, 'supply in'))
    return `No supply in the wiring suits ${label}: it wants ${inlet.terminal.minV ?? '?'} to ${inlet.terminal.maxV ?? '?'} V and ${drawMa(placed) ?? '?'} mA.`;
  return finding.says;
}

const ratedText = (placed: Placed): string => {
  const ratedV = fact(placed, 'ratedV');
  return ratedV === null ? '' : `, ${ratedV} V`;
};

/** The same without some parts, which stay as they are. */
export function planWithout(
  netlist: Netlist,
  catalogue: Catalogue,
  setting: Setting,
  habits: CableHabits,
  without: readonly string[],
): WiringPlan {
  const isOut = (id: string) => without.includes(id);
  const outside = {
    parts: netlist.parts.filter((part) => isOut(part.id)),
    wires: netlist.wires.filter((wire) => isOut(wire.from.part) || isOut(wire.to.part)),
  };
  const rest = {
    ...netlist,
    parts: netlist.parts.filter((part) => !isOut(part.id)),
    wires: netlist.wires.filter((wire) => !outside.wires.includes(wire)),
  };
  const done = planWiring(rest, catalogue, setting, habits);
  const put = (of: Netlist): Netlist => ({
    ...of,
    parts: [...of.parts, ...outside.parts],
    wires: [...of.wires, ...outside.wires],
    cables: [
      ...of.cables,
      ...netlist.cables.filter((cable) => !of.cables.some((one) => one.id === cable.id)),
    ],
  });
  return {
    ...done,
    netlist: done.netlist === rest ? netlist : put(done.netlist),
    proposal: put(done.proposal),
  };
}

function propose(netlist: Netlist, catalogue: Catalogue, setting: Setting, habits: CableHabits): Proposal {
  const fed = feedAll(netlist, catalogue);
  const pins = planPins(fed.netlist, catalogue, setting.radioOn);
  let next = layCables(pins.netlist, catalogue, habits);
  const added: string[] = [];
  const why = new Map<string, string>();
  for (let round = 0; round < MOST_ROUNDS; round += 1) {
    const { findings } = checkWiring(readCircuit(next, catalogue), setting);
    const mended = mendOnce(next, catalogue, findings, added, why);
    if (mended === next) break;
    next = mended;
  }
  return { netlist: layCables(next, catalogue, habits), added, why, blocked: pins.blocked, unfed: fed.unfed };
}

/** Applies the first remedy of each finding, as long as no two touch the same terminal. */
function mendOnce(
  netlist: Netlist,
  catalogue: Catalogue,
  findings: readonly Finding[],
  added: string[],
  why: Map<string, string>,
): Netlist {
  const touched = new Set<string>();
  let next = netlist;
  for (const finding of findings) {
    const remedy = finding.remedies.find((one) => BY_ITSELF.has(one.kind));
    const keys = finding.ends.map(endKey);
    if (!remedy || finding.severity === 'note' || keys.some((key) => touched.has(key))) continue;
    for (const key of keys) touched.add(key);
    const before = new Map(next.parts.map((part) => [part.id, part]));
    next = applyRemedy(next, catalogue, remedy);
    for (const part of next.parts) if (before.get(part.id) !== part) why.set(part.id, finding.says);
    const [first] = finding.ends;
    const label = next.parts.find((part) => part.id === first?.part)?.label ?? '';
    added.push(`${remedy.label} (${label})`);
  }
  return next;
}

/** Supplies, grounds, switches and bus lines. */
function feedAll(netlist: Netlist, catalogue: Catalogue): { netlist: Netlist; unfed: string[] } {
  const unfed: string[] = [];
  let next = netlist;
  const steps: ((circuit: Circuit, wire: (from: End, to: End) => void) => void)[] = [
    wireFuses,
    wireRegulators,
    wireGrounds,
    wireSupplies,
    wireLoads,
    wireBareSensors,
    wireBuses,
  ];
  for (const step of steps) {
    const circuit = readCircuit(next, catalogue);
    step(circuit, (from, to) => {
      next = connect(next, from, to);
    });
  }
  const circuit = readCircuit(next, catalogue);
  for (const placed of circuit.parts.values())
    for (const spot of spotsOf(placed))
      if (
        ((spot.terminal.type === 'supply in' && !placed.part.perReading) ||
          (spot.terminal.type === 'load' && spot.terminal.side === 'plus')) &&
        !isWired(circuit, spot)
      )
        unfed.push(placed.part.label);
  return { netlist: next, unfed: [...new Set(unfed)] };
}

type Wirer = (from: End, to: End) => void;
const end = (placed: Placed, terminal: string): End => ({ part: placed.part.id, terminal });
const open = (circuit: Circuit, placed: Placed, terminal: string): boolean => {
  const spot = spotAt(placed, terminal);
  return spot !== null && !isWired(circuit, spot);
};

function wireFuses(circuit: Circuit, wire: Wirer): void {
  const batteries = partsWith(circuit, 'battery').filter((one) => open(circuit, one, 'plus'));
  for (const fuse of partsWith(circuit, 'fuse').filter((one) => open(circuit, one, 'a'))) {
    const battery = batteries.shift();
    if (battery) wire(end(battery, 'plus'), end(fuse, 'a'));
  }
  const [battery] = partsWith(circuit, 'battery');
  if (battery)
    for (const panel of partsWith(circuit, 'solar').filter((one) => open(circuit, one, 'plus')))
      wire(end(panel, 'plus'), end(battery, 'plus'));
}

/** Where a supply is tapped: behind its fuse when it has one. */
function tapOf(circuit: Circuit, source: Spot): End {
  const fuse = others(circuit, source).find((spot) => hasRole(spot.placed, 'fuse'));
  return fuse ? end(fuse.placed, fuse.terminal.id === 'a' ? 'b' : 'a') : source.end;
}

type Source = {
  readonly spot: Spot;
  readonly volts: number;
  readonly isBoard: boolean;
  readonly maxMa: number;
};
function sourcesOf(circuit: Circuit): Source[] {
  return [...circuit.parts.values()].flatMap(spotsOf).flatMap((spot): Source[] =>
    isType(spot, 'supply out') && spot.terminal.volts !== null
      ? [
          {
            spot,
            volts: spot.terminal.volts,
            isBoard: hasRole(spot.placed, 'board'),
            maxMa: spot.terminal.maxMa ?? 0,
          },
        ]
      : [],
  );
}

/** Above this a part is fed from the main supply, not through a board. */
const BOARD_FEEDS_MA = 60;

function choose(circuit: Circuit, spot: Spot): Source | null {
  if (!isType(spot, 'supply in')) return null;
  const { placed } = spot;
  const { minV, maxV } = spot.terminal;
  const board = boardOf(circuit, placed);
  const logicV = board && fact(board, 'logicV');
  const needsMa = drawMa(placed) ?? 0;
  const isBoard = hasRole(placed, 'board');
  const [best] = sourcesOf(circuit)
    .filter(
      ({ spot: source, volts, isBoard: fromBoard, maxMa }) =>
        source.placed !== placed &&
        !isTransformer(source.placed) &&
        !feedsInto(circuit, spot, source) &&
        volts * (hasRole(source.placed, 'battery') ? emptyShare(source.placed.entry.name) : 1) >=
          (minV ?? Infinity) - 0.05 &&
        volts <= (maxV ?? -Infinity) + 0.05 &&
        maxMa >= needsMa &&
        (!fromBoard || (!isBoard && source.placed === board && needsMa <= BOARD_FEEDS_MA)) &&
        (!hasRole(placed, 'regulator') || !hasRole(source.placed, 'regulator', 'board')),
    )
    .map((source) => ({
      source,
      rank:
        (source.isBoard ? (source.volts === logicV ? 0 : 2) : 4) +
        (hasRole(source.spot.placed, 'solar') ? 9 : 0) +
        source.volts / 100,
    }))
    .sort((one, other) => one.rank - other.rank);
  return best?.source ?? null;
}

/** Supply inputs to be wired; those of parts that are powered only to be read get a pin instead. */
const openSupplies = (circuit: Circuit, placed: Placed): Spot[] =>
  spotsOf(placed).filter(
    (one) => one.terminal.type === 'supply in' && !isWired(circuit, one) && !placed.part.perReading,
  );

function wireRegulators(circuit: Circuit, wire: Wirer): void {
  for (const placed of partsWith(circuit, 'regulator'))
    for (const spot of openSupplies(circuit, placed)) {
      const source = choose(circuit, spot);
      if (source) wire(tapOf(circuit, source.spot), spot.end);
    }
}

function wireSupplies(circuit: Circuit, wire: Wirer): void {
  for (const placed of circuit.parts.values())
    for (const spot of openSupplies(circuit, placed)) {
      const source = choose(circuit, spot);
      if (source) wire(tapOf(circuit, source.spot), spot.end);
    }
  for (const placed of partsWith(circuit, 'battery monitor').filter((one) => open(circuit, one, 'in'))) {
    const battery = sourcesOf(circuit).find((one) => hasRole(one.spot.placed, 'battery'));
    if (battery) wire(tapOf(circuit, battery.spot), end(placed, 'in'));
  }
  for (const placed of circuit.parts.values()) {
    const plus = spotsOf(placed).find((spot) => isType(spot, 'loop') && spot.terminal.side === 'plus');
    const source =
      plus &&
      !isWired(circuit, plus) &&
      sourcesOf(circuit).find(
        (one) => !one.isBoard && !isTransformer(one.spot.placed) && one.volts >= 12 && one.volts <= 30,
      );
    if (plus && source) wire(tapOf(circuit, source.spot), plus.end);
  }
}

/** All grounds meet: parts at their board, boards and the rest at the main supply. */
function wireGrounds(circuit: Circuit, wire: Wirer): void {
  const [main] = partsWith(circuit, 'battery', 'supply').filter((one) => !isTransformer(one));
  const groundOf = (placed: Placed) => spotsOf(placed).find((spot) => spot.terminal.type === 'ground');
  for (const placed of circuit.parts.values()) {
    const spot = groundOf(placed);
    if (!spot || isWired(circuit, spot) || placed === main || isTransformer(placed)) continue;
    const board = hasRole(placed, 'board') ? null : boardOf(circuit, placed);
    // Currents of pumps go back to the supply itself, not through a board.
    const to =
      board && !hasRole(placed, 'MOSFET', 'transistor', 'driver module', 'solar', 'regulator')
        ? board
        : (main ?? board);
    const meeting = to && groundOf(to);
    if (meeting) wire(meeting.end, spot.end);
  }
  for (const led of partsWith(circuit, 'LED').filter((one) => open(circuit, one, 'cathode'))) {
    const board = boardOf(circuit, led);
    const meeting = board && groundOf(board);
    if (meeting) wire(meeting.end, end(led, 'cathode'));
  }
}

/** One of several outputs of a timer, which has a common for all. */
const isZone = (spot: Spot): boolean =>
  isTransformer(spot.placed) && spot.placed.spots.filter((one) => isType(one, 'supply out')).length > 1;

function wireLoads(circuit: Circuit, wire: Wirer): void {
  const free = partsWith(circuit, 'MOSFET', 'driver module', 'transistor', 'relay').filter((placed) =>
    ['drain', 'load', 'collector', 'open'].some((terminal) => open(circuit, placed, terminal)),
  );
  const taken = new Set<Spot>();
  for (const load of partsWith(circuit, 'pump', 'valve')) {
    const [plus, minus] = [plusOf(load), minusOf(load)];
    const ratedV = fact(load, 'ratedV');
    const source = sourcesOf(circuit).find(
      (one) =>
        !one.isBoard &&
        ratedV !== null &&
        Math.abs(one.volts - ratedV) <= 0.25 * ratedV &&
        // Each zone of an irrigation timer has a valve of its own.
        !(isZone(one.spot) && (taken.has(one.spot) || isWired(circuit, one.spot))),
    );
    if (!plus || !minus || isWired(circuit, minus) || !source) continue;
    const alternating = isTransformer(source.spot.placed);
    const at = free.findIndex((one) => (hasRole(one, 'relay') || !alternating) && sharesBoard(one, load));
    const [helper] = at < 0 ? [] : free.splice(at, 1);
    if (!helper) continue;
    taken.add(source.spot);
    const tap = tapOf(circuit, source.spot);
    if (hasRole(helper, 'relay')) {
      wire(tap, end(helper, 'common'));
      wire(end(helper, 'open'), plus.end);
      const ground = spotsOf(source.spot.placed).find((spot) => spot.terminal.type === 'ground');
      if (ground) wire(minus.end, ground.end);
    } else {
      if (!isWired(circuit, plus)) wire(tap, plus.end);
      const side =
        ['drain', 'load', 'collector'].find((terminal) => spotAt(helper, terminal) !== null) ?? 'drain';
      wire(end(helper, side), minus.end);
    }
  }
}

/** One lead of a bare sensor to the board's own supply; the other gets an input, and a fixed resistor by its check. */
function wireBareSensors(circuit: Circuit, wire: Wirer): void {
  for (const placed of circuit.parts.values()) {
    if (!isBareSensor(placed) || placed.spots.some((spot) => isWired(circuit, spot))) continue;
    const board = boardOf(circuit, placed);
    const supply = board && logicSupply(board);
    if (supply) wire(supply.end, end(placed, 'a'));
  }
}

const sharesBoard = (one: Placed, other: Placed) =>
  one.part.boardId === null || other.part.boardId === null || one.part.boardId === other.part.boardId;

/** RS-485 as a daisy chain from the transceiver. */
function wireBuses(circuit: Circuit, wire: Wirer): void {
  for (const transceiver of partsWith(circuit, 'transceiver')) {
    let last = transceiver;
    const members = [...circuit.parts.values()].filter(
      (placed) =>
        placed !== transceiver &&
        !hasRole(placed, 'transceiver') &&
        boardOf(circuit, placed) === boardOf(circuit, transceiver) &&
        spotAt(placed, 'a')?.terminal.type === 'rs485',
    );
    for (const placed of members) {
      if (open(circuit, placed, 'a')) wire(end(last, 'a'), end(placed, 'a'));
      if (open(circuit, placed, 'b')) wire(end(last, 'b'), end(placed, 'b'));
      last = placed;
    }
  }
}
