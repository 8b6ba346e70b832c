/** Ways to spoil a wiring that was in order: what people really do wrong at the bench. Each names the parts that a good check would point at. */
import type { Entry, Role, TerminalType } from '../../core/src/catalogue/schema.ts';
import { connect, removePart, removeWire } from '../../core/src/wiring/edit.ts';
import { isSameEnd, type End, type Netlist, type Part, type Wire } from '../../core/src/wiring/netlist.ts';
import { catalogue } from './sketchpad.ts';

type Spoilt = { readonly netlist: Netlist; readonly parts: readonly string[] };
export type Operator = (netlist: Netlist, random: () => number) => Spoilt | null;

const entryOf = (part: Part): Entry | undefined => catalogue.get(part.entryId);
const partOf = (netlist: Netlist, id: string): Part | undefined => netlist.parts.find((one) => one.id === id);
const hasRole = (part: Part, ...roles: Role[]): boolean => roles.includes(entryOf(part)?.role as Role);
const isAlternating = (part: Part): boolean => entryOf(part)?.facts.alternating === 1;
const isBare = (part: Part): boolean => /-bare$/.test(part.entryId) && !hasRole(part, 'battery');
const terminalType = (netlist: Netlist, end: End): TerminalType | undefined => {
  const part = partOf(netlist, end.part);
  return part && entryOf(part)?.terminals.find((one) => one.id === end.terminal)?.type;
};
const pick = <T>(list: readonly T[], random: () => number): T | null =>
  list.length === 0 ? null : (list[Math.floor(random() * list.length)] as T);
const partsOf = (netlist: Netlist, ...roles: Role[]): Part[] =>
  netlist.parts.filter((part) => hasRole(part, ...roles));
const wiresAt = (netlist: Netlist, end: End): Wire[] =>
  netlist.wires.filter((wire) => isSameEnd(wire.from, end) || isSameEnd(wire.to, end));
const farEnd = (wire: Wire, end: End): End => (isSameEnd(wire.from, end) ? wire.to : wire.from);
const at = (part: Part, terminal: string): End => ({ part: part.id, terminal });

/** Takes off every wire at a terminal of a part of these roles. */
const loose =
  (terminals: readonly string[], ...roles: Role[]): Operator =>
  (netlist, random) => {
    const found = partsOf(netlist, ...roles).flatMap((part) =>
      terminals.filter((id) => wiresAt(netlist, at(part, id)).length > 0).map((id) => ({ part, id })),
    );
    const chosen = pick(found, random);
    if (!chosen) return null;
    const end = at(chosen.part, chosen.id);
    const wires = wiresAt(netlist, end);
    return {
      netlist: wires.reduce((next, wire) => removeWire(next, wire.id), netlist),
      parts: [chosen.part.id, ...wires.map((wire) => farEnd(wire, end).part)],
    };
  };

/** Everything wired to one terminal goes to the other and back. */
function exchange(netlist: Netlist, one: End, other: End): Netlist {
  const swapped = (end: End) => (isSameEnd(end, one) ? other : isSameEnd(end, other) ? one : end);
  return {
    ...netlist,
    wires: netlist.wires.map((wire) => ({ ...wire, from: swapped(wire.from), to: swapped(wire.to) })),
  };
}

const swapped =
  (one: string, other: string, ...roles: Role[]): Operator =>
  (netlist, random) => {
    const part = pick(
      partsOf(netlist, ...roles).filter(
        (each) => wiresAt(netlist, at(each, one)).length > 0 && wiresAt(netlist, at(each, other)).length > 0,
      ),
      random,
    );
    if (!part) return null;
    const neighbours = [one, other].flatMap((id) =>
      wiresAt(netlist, at(part, id)).map((wire) => farEnd(wire, at(part, id)).part),
    );
    return { netlist: exchange(netlist, at(part, one), at(part, other)), parts: [part.id, ...neighbours] };
  };

const setFact =
  (
    change: (value: number) => number,
    key: 'ohm' | 'upperOhm' | 'lowerOhm' | 'fuseA',
    fits: (part: Part, netlist: Netlist) => boolean,
  ): Operator =>
  (netlist, random) => {
    const part = pick(
      netlist.parts.filter((one) => one.settings[key] != null && fits(one, netlist)),
      random,
    );
    if (!part) return null;
    const value = change(part.settings[key] ?? 0);
    return {
      netlist: {
        ...netlist,
        parts: netlist.parts.map((one) =>
          one === part ? { ...one, settings: { ...one.settings, [key]: value } } : one,
        ),
      },
      parts: [part.id, ...neighboursOf(netlist, part)],
    };
  };

const neighboursOf = (netlist: Netlist, part: Part): string[] =>
  netlist.wires.flatMap((wire) =>
    wire.from.part === part.id ? [wire.to.part] : wire.to.part === part.id ? [wire.from.part] : [],
  );

/** What a resistor is for, told from its neighbours. */
const isBeside =
  (...roles: Role[]) =>
  (part: Part, netlist: Netlist): boolean =>
    hasRole(part, 'resistor') &&
    neighboursOf(netlist, part).some((id) => {
      const other = partOf(netlist, id);
      return other !== undefined && hasRole(other, ...roles);
    });

const without =
  (fits: (part: Part, netlist: Netlist) => boolean): Operator =>
  (netlist, random) => {
    const part = pick(
      netlist.parts.filter((one) => fits(one, netlist)),
      random,
    );
    return part && { netlist: removePart(netlist, part.id), parts: neighboursOf(netlist, part) };
  };

/** Takes a two-ended part out and joins what was at its ends. */
const bypassed =
  (fits: (part: Part, netlist: Netlist) => boolean, ends: readonly [string, string] = ['a', 'b']): Operator =>
  (netlist, random) => {
    const part = pick(
      netlist.parts.filter((one) => fits(one, netlist)),
      random,
    );
    if (!part) return null;
    const [one] = wiresAt(netlist, at(part, ends[0]));
    const [other] = wiresAt(netlist, at(part, ends[1]));
    if (!one || !other) return null;
    const others = [...wiresAt(netlist, at(part, ends[0])), ...wiresAt(netlist, at(part, ends[1]))].map(
      (wire) => (wire.from.part === part.id ? wire.to : wire.from),
    );
    let next = removePart(netlist, part.id);
    for (const end of others.slice(1)) next = connect(next, others[0] as End, end);
    return { netlist: next, parts: others.map((end) => end.part) };
  };

/** Moves what is wired to one end to another end. */
function moved(netlist: Netlist, from: End, to: End): Netlist {
  const go = (end: End) => (isSameEnd(end, from) ? to : end);
  return {
    ...netlist,
    wires: netlist.wires
      .map((wire) => ({ ...wire, from: go(wire.from), to: go(wire.to) }))
      .filter((wire) => !isSameEnd(wire.from, wire.to)),
  };
}

const boardOf = (netlist: Netlist): Part | undefined => partsOf(netlist, 'board')[0];
const usedPins = (netlist: Netlist): End[] => {
  const board = boardOf(netlist);
  return (board ? (entryOf(board)?.terminals ?? []) : [])
    .filter((one) => one.type === 'pin')
    .map((one) => at(board as Part, one.id))
    .filter((end) => wiresAt(netlist, end).length > 0);
};

/** The plus of the highest supply, and what it is called. */
const highRail = (netlist: Netlist): End | null => {
  const source = partsOf(netlist, 'battery', 'supply').find(
    (part) => part.entryId === 'battery-12v' || part.entryId === 'supply-12v',
  );
  return source ? at(source, source.entryId === 'battery-12v' ? 'plus' : 'out') : null;
};

const isPullDown = (part: Part, netlist: Netlist): boolean =>
  isBeside('MOSFET')(part, netlist) && (part.settings.ohm ?? 0) >= 50_000;
const isGateSeries = (part: Part, netlist: Netlist): boolean =>
  isBeside('MOSFET')(part, netlist) && (part.settings.ohm ?? 0) < 5000;

export const OPERATORS: Readonly<Record<string, Operator>> = {
  'supply wire off': loose(
    ['vcc'],
    'probe',
    'display',
    'thermometer',
    'level sensor',
    'lamp',
    'buzzer',
    'transceiver',
    'relay',
  ),
  'ground wire off': loose(
    ['gnd'],
    'probe',
    'display',
    'thermometer',
    'level sensor',
    'lamp',
    'buzzer',
    'relay',
    'driver module',
  ),
  'signal wire off': loose(['out', 'data', 'echo', 'minus'], 'probe', 'thermometer', 'level sensor'),
  'board without supply': loose(['v5'], 'board'),
  'switch without ground': loose(['source', 'emitter', 'gnd'], 'MOSFET', 'transistor', 'driver module'),
  'gate or base wire off': loose(['gate', 'base', 'in'], 'MOSFET', 'transistor', 'driver module', 'relay'),
  'pump wire off': loose(['plus', 'minus'], 'pump', 'valve'),
  'switch wire off': loose(
    ['drain', 'load', 'collector', 'open', 'common'],
    'MOSFET',
    'driver module',
    'transistor',
    'relay',
  ),
  'ground of the supply off': (netlist, random) => {
    const part = pick(
      partsOf(netlist, 'supply', 'battery').filter((one) => !isAlternating(one)),
      random,
    );
    if (!part) return null;
    const wires = wiresAt(netlist, at(part, 'gnd'));
    return {
      netlist: wires.reduce((next, wire) => removeWire(next, wire.id), netlist),
      parts: [part.id, ...wires.map((wire) => farEnd(wire, at(part, 'gnd')).part)],
    };
  },
  'resistor of a bare sensor missing': without(
    (part, netlist) =>
      hasRole(part, 'resistor') &&
      neighboursOf(netlist, part).some((id) => isBare(partOf(netlist, id) ?? part)),
  ),
  'resistor of a bare sensor two decades off': setFact(
    (ohm) => ohm / 100,
    'ohm',
    (part, netlist) =>
      hasRole(part, 'resistor') &&
      neighboursOf(netlist, part).some((id) => isBare(partOf(netlist, id) ?? part)),
  ),
  'lead of a bare sensor off': (netlist, random) => {
    const part = pick(netlist.parts.filter(isBare), random);
    const wires = part ? wiresAt(netlist, at(part, random() < 0.5 ? 'a' : 'b')) : [];
    return (
      part && {
        netlist: wires.reduce((next, wire) => removeWire(next, wire.id), netlist),
        parts: [part.id, ...neighboursOf(netlist, part)],
      }
    );
  },
  'valve of a timer past its contact': (netlist) => {
    const timer = netlist.parts.find((part) => part.entryId === 'timer-24vac');
    const relay = timer && netlist.parts.find((part) => part.entryId === 'switch-permit');
    return relay
      ? {
          netlist: connect(netlist, at(relay, 'common'), at(relay, 'open')),
          parts: [relay.id, ...neighboursOf(netlist, relay)],
        }
      : null;
  },
  'common of a timer on the board': (netlist) => {
    const timer = netlist.parts.find((part) => part.entryId === 'timer-24vac');
    const [board] = partsOf(netlist, 'board');
    return timer && board
      ? { netlist: connect(netlist, at(timer, 'gnd'), at(board, 'gnd')), parts: [timer.id, board.id] }
      : null;
  },
  'float switch wire off': loose(['out', 'gnd'], 'contact'),
  'plus and minus of a probe exchanged': swapped(
    'vcc',
    'gnd',
    'probe',
    'thermometer',
    'display',
    'level sensor',
    'lamp',
    'buzzer',
  ),
  'battery turned round': swapped('plus', 'gnd', 'battery'),
  'supply turned round': (netlist, random) => {
    // A transformer has no plus and minus.
    const apart = { ...netlist, parts: netlist.parts.filter((part) => !isAlternating(part)) };
    const spoilt = swapped('out', 'gnd', 'supply')(apart, random);
    return spoilt && { ...spoilt, netlist: { ...spoilt.netlist, parts: netlist.parts } };
  },
  'regulator turned round': swapped('vcc', 'out', 'regulator'),
  'signal and supply exchanged': swapped('vcc', 'out', 'probe', 'thermometer'),
  'MOSFET turned round': swapped('drain', 'source', 'MOSFET'),
  'gate and drain exchanged': swapped('gate', 'drain', 'MOSFET'),
  'collector and emitter exchanged': swapped('collector', 'emitter', 'transistor'),
  'base and collector exchanged': swapped('base', 'collector', 'transistor'),
  'LED turned round': swapped('anode', 'cathode', 'LED'),
  'diode turned round': swapped('anode', 'cathode', 'diode'),
  'loop turned round': (netlist, random) => {
    const part = pick(
      netlist.parts.filter((one) => one.entryId === 'probe-loop'),
      random,
    );
    return (
      part && {
        netlist: exchange(netlist, at(part, 'plus'), at(part, 'minus')),
        parts: [part.id, ...neighboursOf(netlist, part)],
      }
    );
  },
  'A and B exchanged': (netlist, random) => {
    const isOfBus = (part: Part) =>
      !hasRole(part, 'probe') || terminalType(netlist, at(part, 'a')) === 'rs485';
    const onBus = { ...netlist, parts: netlist.parts.filter(isOfBus) };
    const spoilt = swapped('a', 'b', 'probe')(onBus, random);
    return spoilt && { ...spoilt, netlist: { ...spoilt.netlist, parts: netlist.parts } };
  },
  'SDA and SCL exchanged': swapped('sda', 'scl', 'display', 'thermometer'),
  'divider turned round': swapped('in', 'out', 'divider'),
  'flyback diode missing': without(
    (part, netlist) =>
      hasRole(part, 'diode') && neighboursOf(netlist, part).some((id) => /pump|valve/.test(id)),
  ),
  'fuse missing': bypassed((part) => hasRole(part, 'fuse')),
  'fuse too big': setFact(
    (value) => value * 6,
    'fuseA',
    () => true,
  ),
  'fuse too small': setFact(
    (value) => value / 20,
    'fuseA',
    (part, netlist) =>
      (part.settings.fuseA ?? 0) > 2 &&
      partsOf(netlist, 'pump', 'valve').some((one) =>
        ['pump-12v', 'valve-12v', 'pump-hose'].includes(one.entryId),
      ),
  ),
  'pull-down missing': without(isPullDown),
  'gate resistor missing': bypassed(isGateSeries),
  'gate resistor a decade less': setFact((value) => value / 10, 'ohm', isGateSeries),
  'base resistor missing': bypassed(isBeside('transistor')),
  'base resistor a decade more': setFact((value) => value * 10, 'ohm', isBeside('transistor')),
  'base resistor a decade less': setFact((value) => value / 10, 'ohm', isBeside('transistor')),
  'LED resistor missing': bypassed(isBeside('LED')),
  'LED resistor a decade more': setFact((value) => value * 10, 'ohm', isBeside('LED')),
  'LED resistor a decade less': setFact((value) => value / 10, 'ohm', isBeside('LED')),
  'upper resistor a decade less': setFact(
    (value) => value / 10,
    'upperOhm',
    () => true,
  ),
  'upper resistor a decade more': setFact(
    (value) => value * 10,
    'upperOhm',
    () => true,
  ),
  'lower resistor a decade less': setFact(
    (value) => value / 10,
    'lowerOhm',
    () => true,
  ),
  'lower resistor a decade more': setFact(
    (value) => value * 10,
    'lowerOhm',
    () => true,
  ),
  'divider missing': bypassed((part) => hasRole(part, 'divider', 'battery monitor'), ['in', 'out']),
  'shunt a decade more': setFact(
    (value) => value * 10,
    'ohm',
    (part) => hasRole(part, 'shunt'),
  ),
  'shunt a decade less': setFact(
    (value) => value / 10,
    'ohm',
    (part) => hasRole(part, 'shunt'),
  ),
  'shunt missing': without((part) => hasRole(part, 'shunt')),
  'switch without pull-up on an input that has none': (netlist, random) => {
    const board = boardOf(netlist);
    const contact = pick(partsOf(netlist, 'contact'), random);
    if (!board || !contact) return null;
    const free = entryOf(board)?.terminals.find(
      (one) =>
        one.type === 'pin' &&
        one.caps.includes('in') &&
        !one.caps.includes('out') &&
        wiresAt(netlist, at(board, one.id)).length === 0,
    );
    const pinWire = [...wiresAt(netlist, at(contact, 'out')), ...wiresAt(netlist, at(contact, 'gnd'))].find(
      (wire) =>
        [wire.from, wire.to].some((end) => end.part === board.id && terminalType(netlist, end) === 'pin'),
    );
    const pin = pinWire && [pinWire.from, pinWire.to].find((end) => end.part === board.id);
    const up = netlist.parts.find(
      (part) =>
        hasRole(part, 'resistor') &&
        wiresAt(netlist, at(part, 'a')).some((wire) => pin && isSameEnd(farEnd(wire, at(part, 'a')), pin)),
    );
    if (!free || !pin || !up) return null;
    return {
      netlist: moved(removePart(netlist, up.id), pin, at(board, free.id)),
      parts: [contact.id, board.id],
    };
  },
  'pull-up of a switch to ground': (netlist, random) => {
    const board = boardOf(netlist);
    const contact = pick(partsOf(netlist, 'contact'), random);
    const up =
      contact &&
      netlist.parts.find(
        (part) => hasRole(part, 'resistor') && part.settings.ohm === 10_000 && isUpOf(netlist, part, contact),
      );
    const wire = up && wiresAt(netlist, at(up, 'b'))[0];
    if (!board || !contact || !up || !wire || terminalType(netlist, farEnd(wire, at(up, 'b'))) === 'ground')
      return null;
    return {
      netlist: connect(removeWire(netlist, wire.id), at(up, 'b'), at(board, 'gnd')),
      parts: [contact.id, up.id, board.id],
    };
  },
  '1-Wire pull-up missing': without(isBeside('thermometer')),
  'relay’s pull-up missing': (netlist) => {
    const relay = netlist.parts.find((part) => part.entryId === 'switch-relay-low');
    const pin = relay && wiresAt(netlist, at(relay, 'in')).map((wire) => farEnd(wire, at(relay, 'in')))[0];
    const up =
      pin &&
      netlist.parts.find(
        (part) =>
          hasRole(part, 'resistor') &&
          wiresAt(netlist, at(part, 'a')).some((wire) => isSameEnd(farEnd(wire, at(part, 'a')), pin)),
      );
    return relay && up ? { netlist: removePart(netlist, up.id), parts: [relay.id] } : null;
  },
  'terminator missing': without((part) => hasRole(part, 'resistor') && part.settings.ohm === 120),
  'terminator at the near probe': (netlist) => {
    const end = netlist.parts.find((part) => hasRole(part, 'resistor') && part.settings.ohm === 120);
    const [near, far] = partsOf(netlist, 'probe').filter((part) => part.entryId === 'probe-bus-rods');
    if (!end || !near || !far) return null;
    const wires = netlist.wires.map((wire) => {
      const go = (one: End): End =>
        one.part === far.id && (wire.from.part === end.id || wire.to.part === end.id)
          ? { ...one, part: near.id }
          : one;
      return { ...wire, from: go(wire.from), to: go(wire.to) };
    });
    return { netlist: { ...netlist, wires }, parts: [end.id, near.id, far.id] };
  },
  'terminator of a wrong value': setFact(
    (value) => value * 10,
    'ohm',
    (part) => part.settings.ohm === 120,
  ),
  'two probes of one address': (netlist) => {
    const probes = netlist.parts.filter((part) => part.entryId === 'probe-bus-rods');
    if (probes.length < 2) return null;
    return {
      netlist: {
        ...netlist,
        parts: netlist.parts.map((part) =>
          part === probes[1] ? { ...part, address: probes[0]?.address ?? 1 } : part,
        ),
      },
      parts: probes.map((part) => part.id),
    };
  },
  'two pins joined': (netlist, random) => {
    const pins = usedPins(netlist);
    const one = pick(pins, random);
    const other =
      one &&
      pick(
        pins.filter((end) => end !== one && !shares(netlist, one, end)),
        random,
      );
    if (!one || !other) return null;
    return {
      netlist: connect(netlist, one, other),
      parts: [
        one.part,
        ...[one, other].flatMap((end) => wiresAt(netlist, end).map((wire) => farEnd(wire, end).part)),
      ],
    };
  },
  'signal on the neighbour’s pin': (netlist, random) => {
    const pins = usedPins(netlist);
    const one = pick(pins, random);
    const other =
      one &&
      pick(
        pins.filter((end) => end !== one && !shares(netlist, one, end)),
        random,
      );
    if (!one || !other) return null;
    return {
      netlist: moved(netlist, one, other),
      parts: [
        one.part,
        ...[one, other].flatMap((end) => wiresAt(netlist, end).map((wire) => farEnd(wire, end).part)),
      ],
    };
  },
  'pin on ground': (netlist, random) => {
    const board = boardOf(netlist);
    const pin = pick(usedPins(netlist), random);
    return board && pin
      ? {
          netlist: connect(netlist, pin, at(board, 'gnd')),
          parts: [board.id, ...wiresAt(netlist, pin).map((wire) => farEnd(wire, pin).part)],
        }
      : null;
  },
  '12 V on a pin': (netlist, random) => {
    const rail = highRail(netlist);
    const pin = pick(usedPins(netlist), random);
    return rail && pin ? { netlist: connect(netlist, rail, pin), parts: [pin.part, rail.part] } : null;
  },
  '12 V on a pin through a resistor': (netlist, random) => {
    const rail = highRail(netlist);
    const pin = pick(
      usedPins(netlist).filter((end) =>
        wiresAt(netlist, end).some((wire) => /probe|thermo|contact/.test(farEnd(wire, end).part)),
      ),
      random,
    );
    if (!rail || !pin) return null;
    const id = 'resistor-99';
    const part = {
      ...(netlist.parts[0] as Part),
      id,
      entryId: 'resistor',
      label: id,
      address: null,
      settings: { ohm: 1000 },
      stands: null,
    };
    const added = { ...netlist, parts: [...netlist.parts, part] };
    return {
      netlist: connect(connect(added, rail, at(part, 'a')), at(part, 'b'), pin),
      parts: [pin.part, rail.part, id],
    };
  },
  'probe on the high rail': (netlist, random) => {
    const rail = highRail(netlist);
    const part = pick(
      netlist.parts.filter((one) =>
        [
          'probe-capacitive',
          'thermo-ntc',
          'probe-tensiometer',
          'thermo-one-wire',
          'display-i2c',
          'buzzer',
          'level-ultrasonic',
          'switch-relay-high',
        ].includes(one.entryId),
      ),
      random,
    );
    if (!rail || !part) return null;
    const wires = wiresAt(netlist, at(part, 'vcc'));
    return {
      netlist: connect(
        wires.reduce((next, wire) => removeWire(next, wire.id), netlist),
        rail,
        at(part, 'vcc'),
      ),
      parts: [part.id],
    };
  },
  'rails joined': (netlist) => {
    const rail = highRail(netlist);
    const regulator = partsOf(netlist, 'regulator')[0];
    return rail && regulator
      ? { netlist: connect(netlist, rail, at(regulator, 'out')), parts: [rail.part, regulator.id] }
      : null;
  },
  'rails joined by a small resistor': (netlist) => {
    const regulator = partsOf(netlist, 'regulator')[0];
    const board = boardOf(netlist);
    if (!regulator || !board) return null;
    const id = 'resistor-98';
    const part = {
      ...(netlist.parts[0] as Part),
      id,
      entryId: 'resistor',
      label: id,
      address: null,
      settings: { ohm: 2 },
      stands: null,
    };
    const added = { ...netlist, parts: [...netlist.parts, part] };
    return {
      netlist: connect(connect(added, at(regulator, 'out'), at(part, 'a')), at(part, 'b'), at(board, 'gnd')),
      parts: [regulator.id, id, board.id],
    };
  },
  'pump always on': (netlist, random) => {
    const load = pick(
      partsOf(netlist, 'pump', 'valve').filter((part) => part.entryId !== 'valve-24vac'),
      random,
    );
    const source = partsOf(netlist, 'battery', 'supply').find((part) => !isAlternating(part));
    const onLow =
      load &&
      wiresAt(netlist, at(load, 'minus')).some((wire) =>
        /mosfet|driver|transistor/.test(farEnd(wire, at(load, 'minus')).part),
      );
    return load && source && onLow
      ? {
          netlist: connect(netlist, at(load, 'minus'), at(source, 'gnd')),
          parts: [load.id, source.id, ...neighboursOf(netlist, load)],
        }
      : null;
  },
  'relay’s contact bridged': (netlist, random) => {
    const relay = pick(partsOf(netlist, 'relay'), random);
    return (
      relay && {
        netlist: connect(netlist, at(relay, 'common'), at(relay, 'open')),
        parts: [relay.id, ...neighboursOf(netlist, relay)],
      }
    );
  },
  'pump with both wires on plus': (netlist, random) => {
    const load = pick(partsOf(netlist, 'pump', 'valve'), random);
    if (!load) return null;
    const [plus] = wiresAt(netlist, at(load, 'plus'));
    const others = wiresAt(netlist, at(load, 'minus'));
    if (!plus) return null;
    const rail = farEnd(plus, at(load, 'plus'));
    return {
      netlist: connect(
        others.reduce((next, wire) => removeWire(next, wire.id), netlist),
        rail,
        at(load, 'minus'),
      ),
      parts: [load.id, rail.part, ...others.map((wire) => farEnd(wire, at(load, 'minus')).part)],
    };
  },
  'switch on an input-only pin': (netlist, random) => {
    const board = boardOf(netlist);
    const free =
      board &&
      entryOf(board)?.terminals.find(
        (one) =>
          one.type === 'pin' && !one.caps.includes('out') && wiresAt(netlist, at(board, one.id)).length === 0,
      );
    const pin = pick(
      usedPins(netlist).filter(
        (end) =>
          wiresAt(netlist, end).some((wire) => /switch|resistor|buzzer/.test(farEnd(wire, end).part)) &&
          !isInput(netlist, end),
      ),
      random,
    );
    if (!board || !free || !pin) return null;
    return {
      netlist: moved(netlist, pin, at(board, free.id)),
      parts: [board.id, ...wiresAt(netlist, pin).map((wire) => farEnd(wire, pin).part)],
    };
  },
  'probe on an input the radio takes': (netlist, random) => {
    const board = netlist.parts.find((part) => part.entryId === 'board-wifi-two-groups');
    const pin = pick(
      usedPins(netlist).filter((end) => ['p32', 'p33', 'p34', 'p35', 'p36', 'p39'].includes(end.terminal)),
      random,
    );
    return board && pin
      ? {
          netlist: moved(netlist, pin, at(board, 'p26')),
          parts: [board.id, ...wiresAt(netlist, pin).map((wire) => farEnd(wire, pin).part)],
        }
      : null;
  },
  'on while the board starts': (netlist, random) => {
    const board = netlist.parts.find((part) => part.entryId === 'board-wifi-two-groups');
    const pin = pick(
      usedPins(netlist).filter((end) =>
        wiresAt(netlist, end).some((wire) => /switch/.test(farEnd(wire, end).part)),
      ),
      random,
    );
    return board && pin
      ? {
          netlist: moved(netlist, pin, at(board, 'p5')),
          parts: [board.id, ...wiresAt(netlist, pin).map((wire) => farEnd(wire, pin).part)],
        }
      : null;
  },
  'AC as DC': (netlist, random) => {
    const transformer = netlist.parts.find((part) => part.entryId === 'supply-24vac');
    const low = pick(
      partsOf(netlist, 'regulator', 'valve', 'pump').filter((part) => part.entryId !== 'valve-24vac'),
      random,
    );
    if (!transformer || !low) return null;
    const end = at(low, hasRole(low, 'regulator') ? 'vcc' : 'plus');
    const wires = wiresAt(netlist, end);
    return {
      netlist: connect(
        wires.reduce((next, wire) => removeWire(next, wire.id), netlist),
        at(transformer, 'out'),
        end,
      ),
      parts: [transformer.id, low.id],
    };
  },
  'AC touches ground': (netlist) => {
    const transformer = netlist.parts.find((part) => part.entryId === 'supply-24vac');
    const board = boardOf(netlist);
    return transformer && board
      ? {
          netlist: connect(netlist, at(transformer, 'gnd'), at(board, 'gnd')),
          parts: [transformer.id, board.id],
        }
      : null;
  },
  'AC switched by a MOSFET': (netlist) => {
    const valve = netlist.parts.find((part) => part.entryId === 'valve-24vac');
    const mosfet = partsOf(netlist, 'MOSFET')[0];
    if (!valve || !mosfet) return null;
    const wires = wiresAt(netlist, at(valve, 'minus'));
    return {
      netlist: connect(
        wires.reduce((next, wire) => removeWire(next, wire.id), netlist),
        at(mosfet, 'drain'),
        at(valve, 'minus'),
      ),
      parts: [valve.id, mosfet.id, 'supply-24vac-1'],
    };
  },
  'regulator fed from its own board': (netlist) => {
    const regulator = partsOf(netlist, 'regulator')[0];
    const board = boardOf(netlist);
    if (!regulator || !board) return null;
    const out = entryOf(board)?.terminals.find((one) => one.type === 'supply out');
    const wires = wiresAt(netlist, at(regulator, 'vcc'));
    return out
      ? {
          netlist: connect(
            wires.reduce((next, wire) => removeWire(next, wire.id), netlist),
            at(board, out.id),
            at(regulator, 'vcc'),
          ),
          parts: [regulator.id, board.id],
        }
      : null;
  },
  'long thin cable': (netlist, random) => {
    const wire = pick(
      netlist.wires.filter(
        (one) =>
          one.cableId !== null &&
          [one.from, one.to].some(
            (end) =>
              ['load', 'supply in'].includes(terminalType(netlist, end) ?? '') &&
              (entryOf(partOf(netlist, end.part) as Part)?.facts.activeMa ?? 0) >= 5,
          ),
      ),
      random,
    );
    if (!wire) return null;
    return {
      netlist: {
        ...netlist,
        cables: netlist.cables.map((cable) =>
          cable.id === wire.cableId ? { ...cable, lengthM: 60, areaMm2: 0.08 } : cable,
        ),
      },
      parts: [
        wire.from.part,
        wire.to.part,
        ...netlist.wires
          .filter((one) => one.cableId === wire.cableId)
          .flatMap((one) => [one.from.part, one.to.part]),
      ],
    };
  },
  'pump fed from a pin': (netlist, random) => {
    const load = pick(
      partsOf(netlist, 'pump').filter((part) => wiresAt(netlist, at(part, 'plus')).length > 0),
      random,
    );
    const pin = pick(usedPins(netlist), random);
    if (!load || !pin) return null;
    const wires = wiresAt(netlist, at(load, 'plus'));
    return {
      netlist: connect(
        wires.reduce((next, wire) => removeWire(next, wire.id), netlist),
        pin,
        at(load, 'plus'),
      ),
      parts: [load.id, pin.part],
    };
  },
  'pump for another voltage': (netlist, random) => {
    const load = pick(
      partsOf(netlist, 'pump').filter((part) => part.entryId === 'pump-12v'),
      random,
    );
    return (
      load && {
        netlist: {
          ...netlist,
          parts: netlist.parts.map((part) => (part === load ? { ...part, entryId: 'pump-5v' } : part)),
        },
        parts: [load.id],
      }
    );
  },
  'MOSFET that wants 10 V': (netlist, random) => {
    const part = pick(partsOf(netlist, 'MOSFET'), random);
    return (
      part && {
        netlist: {
          ...netlist,
          parts: netlist.parts.map((one) => (one === part ? { ...one, entryId: 'switch-mosfet-10v' } : one)),
        },
        parts: [part.id, ...neighboursOf(netlist, part)],
      }
    );
  },
  'two outputs on one pin': (netlist, random) => {
    const pins = usedPins(netlist).filter(
      (end) =>
        wiresAt(netlist, end).some((wire) => /resistor|switch/.test(farEnd(wire, end).part)) &&
        !wiresAt(netlist, end).some((wire) => /contact|thermo|probe/.test(farEnd(wire, end).part)),
    );
    const one = pick(pins, random);
    const other =
      one &&
      pick(
        pins.filter((end) => end !== one),
        random,
      );
    if (!one || !other) return null;
    return {
      netlist: moved(netlist, one, other),
      parts: [
        one.part,
        ...[one, other].flatMap((end) => wiresAt(netlist, end).map((wire) => farEnd(wire, end).part)),
      ],
    };
  },
  'fuse by-passed': (netlist, random) => {
    const fuse = pick(partsOf(netlist, 'fuse'), random);
    return (
      fuse && {
        netlist: connect(netlist, at(fuse, 'a'), at(fuse, 'b')),
        parts: [fuse.id, ...neighboursOf(netlist, fuse)],
      }
    );
  },
  'any wire off': (netlist, random) => {
    const wire = pick(netlist.wires, random);
    return wire && { netlist: removeWire(netlist, wire.id), parts: [wire.from.part, wire.to.part] };
  },
  'any wire on the terminal beside': (netlist, random) => {
    const wire = pick(netlist.wires, random);
    const part = wire && partOf(netlist, wire.to.part);
    const terminals = (part && entryOf(part)?.terminals) ?? [];
    const index = terminals.findIndex((one) => one.id === wire?.to.terminal);
    const beside = terminals[index + 1] ?? terminals[index - 1];
    if (!wire || !part || !beside) return null;
    return {
      netlist: {
        ...netlist,
        wires: netlist.wires.map((one) => (one === wire ? { ...one, to: at(part, beside.id) } : one)),
      },
      parts: [
        wire.from.part,
        wire.to.part,
        ...wiresAt(netlist, at(part, beside.id)).map((one) => farEnd(one, at(part, beside.id)).part),
      ],
    };
  },
  'any two terminals of a part joined': (netlist, random) => {
    const part = pick(netlist.parts, random);
    const used =
      (part && entryOf(part)?.terminals.filter((one) => wiresAt(netlist, at(part, one.id)).length > 0)) ?? [];
    const one = pick(used, random);
    const other = pick(
      used.filter((each) => each !== one),
      random,
    );
    if (!part || !one || !other) return null;
    const ends = [at(part, one.id), at(part, other.id)] as const;
    return {
      netlist: connect(netlist, ends[0], ends[1]),
      parts: [part.id, ...ends.flatMap((end) => wiresAt(netlist, end).map((wire) => farEnd(wire, end).part))],
    };
  },
  'switch’s pull-up missing': (netlist, random) => {
    const contact = pick(partsOf(netlist, 'contact'), random);
    const up =
      contact &&
      netlist.parts.find(
        (part) => hasRole(part, 'resistor') && part.settings.ohm === 10_000 && isUpOf(netlist, part, contact),
      );
    return contact && up ? { netlist: removePart(netlist, up.id), parts: [contact.id] } : null;
  },
  'panel turned round': swapped('plus', 'gnd', 'solar'),
  'monitor turned round': swapped('in', 'gnd', 'battery monitor', 'divider', 'shunt'),
  'regulator’s input turned round': swapped('vcc', 'gnd', 'regulator'),
  'board turned round': swapped('v5', 'gnd', 'board'),
  'relay turned round': swapped('vcc', 'gnd', 'relay'),
  'relay’s input on its supply': swapped('in', 'vcc', 'relay'),
  'driver’s load and ground exchanged': swapped('load', 'gnd', 'driver module'),
  'shifter’s sides exchanged': swapped('lv', 'hv', 'level shifter'),
  'transmit and receive exchanged': swapped('di', 'ro', 'transceiver'),
  'transceiver turned round': swapped('vcc', 'gnd', 'transceiver'),
  'pull-down to plus': (netlist, random) => {
    const down = pick(
      netlist.parts.filter((part) => isPullDown(part, netlist)),
      random,
    );
    const board = boardOf(netlist);
    const out = board && entryOf(board)?.terminals.find((one) => one.type === 'supply out');
    const wire = down && wiresAt(netlist, at(down, 'b'))[0];
    if (!down || !board || !out || !wire) return null;
    return {
      netlist: connect(removeWire(netlist, wire.id), at(down, 'b'), at(board, out.id)),
      parts: [down.id, ...neighboursOf(netlist, down)],
    };
  },
  'another battery': (netlist) => {
    const battery = netlist.parts.find((part) => part.entryId === 'battery-12v');
    return battery
      ? {
          netlist: {
            ...netlist,
            parts: netlist.parts.map((part) =>
              part === battery ? { ...part, entryId: 'battery-aa' } : part,
            ),
          },
          parts: [
            battery.id,
            ...netlist.parts
              .filter((part) => hasRole(part, 'regulator', 'pump', 'valve', 'probe', 'board'))
              .map((part) => part.id),
          ],
        }
      : null;
  },
  'too much on one supply': (netlist) => {
    const usb = netlist.parts.find((part) => part.entryId === 'supply-usb');
    if (!usb) return null;
    let next = netlist;
    const ids: string[] = [];
    for (const n of [1, 2, 3]) {
      const ring = { ...usb, id: `lamp-ring-9${n}`, entryId: 'lamp-ring', label: `lamp-ring-9${n}` };
      ids.push(ring.id);
      next = { ...next, parts: [...next.parts, ring] };
      next = connect(connect(next, at(usb, 'out'), at(ring, 'vcc')), at(usb, 'gnd'), at(ring, 'gnd'));
    }
    return { netlist: next, parts: [usb.id, ...ids] };
  },
  'flyback on the switch': (netlist, random) => {
    const diode = pick(
      partsOf(netlist, 'diode').filter((part) =>
        neighboursOf(netlist, part).some((id) => /pump|valve/.test(id)),
      ),
      random,
    );
    const source = partsOf(netlist, 'battery', 'supply').find((part) => !isAlternating(part));
    if (!diode || !source) return null;
    const wires = wiresAt(netlist, at(diode, 'cathode'));
    return {
      netlist: connect(
        wires.reduce((next, wire) => removeWire(next, wire.id), netlist),
        at(source, 'gnd'),
        at(diode, 'cathode'),
      ),
      parts: [diode.id, ...neighboursOf(netlist, diode)],
    };
  },
  'lithium charged by a 12 V panel': (netlist) => {
    const cell = netlist.parts.find((part) => part.entryId === 'battery-lithium');
    if (!cell) return null;
    const panel = {
      ...cell,
      id: 'solar-panel-9',
      entryId: 'solar-panel',
      label: 'solar-panel-9',
      settings: {},
    };
    const added = { ...netlist, parts: [...netlist.parts, panel] };
    const fuse = partsOf(netlist, 'fuse')[0];
    return fuse
      ? {
          netlist: connect(
            connect(added, at(panel, 'plus'), at(fuse, 'b')),
            at(panel, 'gnd'),
            at(cell, 'gnd'),
          ),
          parts: [cell.id, panel.id],
        }
      : null;
  },
  'lithium charged from 5 V': (netlist) => {
    const cell = netlist.parts.find((part) => part.entryId === 'battery-lithium');
    const up = partsOf(netlist, 'regulator')[0];
    const fuse = partsOf(netlist, 'fuse')[0];
    return cell && up && fuse
      ? { netlist: connect(netlist, at(up, 'out'), at(fuse, 'b')), parts: [cell.id, up.id, fuse.id] }
      : null;
  },
};

const isUpOf = (netlist: Netlist, up: Part, contact: Part): boolean => {
  const pins = [...wiresAt(netlist, at(contact, 'out')), ...wiresAt(netlist, at(contact, 'gnd'))]
    .flatMap((wire) => [wire.from, wire.to])
    .filter((end) => terminalType(netlist, end) === 'pin');
  return wiresAt(netlist, at(up, 'a')).some((wire) =>
    pins.some((pin) => isSameEnd(farEnd(wire, at(up, 'a')), pin)),
  );
};

/** Whether a pin is read: a probe or switch on it, or the two resistors of a divider. */
const isInput = (netlist: Netlist, pin: End): boolean =>
  wiresAt(netlist, pin).some((wire) => /contact|thermo|probe/.test(farEnd(wire, pin).part)) ||
  (wiresAt(netlist, pin).length === 2 &&
    wiresAt(netlist, pin).every((wire) => /resistor/.test(farEnd(wire, pin).part)));

const shares = (netlist: Netlist, one: End, other: End): boolean =>
  wiresAt(netlist, one).some((wire) =>
    wiresAt(netlist, other).some((two) => farEnd(wire, one).part === farEnd(two, other).part),
  );
