/**
 * What if one wire comes off: the circuit is solved without it, for each wire, with the program as it is for the whole wiring. Told is what would run unasked or
 * see too much, what would no longer run or be read, and whether the program notices.
 */
import { type Circuit, type Placed, type Spot, fact, hasRole, isBareSensor, isType } from './circuit.ts';
import { inV, isWired, nameOf, partsWith } from './look.ts';
import type { Wire } from './netlist.ts';
import type { Solution } from './solve/solve.ts';
import { Whole } from './solve/whole.ts';

/**
 * danger: something runs unasked, is destroyed, or the tank's guard says "water" for ever · unnoticed: a reading goes wrong and still looks like one ·
 * noticed: something stops, and the program or the person sees it · nothing: another wire does the same.
 */
export const LOSS_KINDS = ['danger', 'unnoticed', 'noticed', 'nothing'] as const;
export type LossKind = (typeof LOSS_KINDS)[number];

export type Effect = { readonly kind: LossKind; readonly says: string };
export type Loss = { readonly wire: Wire; readonly kind: LossKind; readonly effects: readonly Effect[] };

/** @param onProgress the share that is done, 0 to 1 */
export function lossesOf(circuit: Circuit, onProgress: (done: number) => void = () => undefined): Loss[] {
  const intact = new Whole(circuit);
  const wires = circuit.netlist.wires.filter((wire) => intact.mesh.wireDevice(wire.id) !== null);
  const losses = wires.map((wire, at): Loss => {
    onProgress(at / wires.length);
    const effects = effectsOf(intact, wire);
    const kind = LOSS_KINDS.find((one) => effects.some((effect) => effect.kind === one)) ?? 'nothing';
    return {
      wire,
      kind,
      effects:
        effects.length > 0
          ? effects
          : [
              {
                kind: 'nothing',
                says: 'Nothing changes: another wire does the same, or nothing flows here.',
              },
            ],
    };
  });
  onProgress(1);
  return losses.sort((one, other) => LOSS_KINDS.indexOf(one.kind) - LOSS_KINDS.indexOf(other.kind));
}

type Ends = readonly [Spot | null, Spot | null];
const endsOf = (circuit: Circuit, wire: Wire): Ends => {
  const spotAt = ({ part, terminal }: Wire['from']) =>
    circuit.parts.get(part)?.spots.find((spot) => spot.terminal.id === terminal) ?? null;
  return [spotAt(wire.from), spotAt(wire.to)];
};

/** Of its rated voltage a load that has less counts as off, and as on from half of it. */
const [OFF_SHARE, ON_SHARE] = [0.2, 0.5];

function effectsOf(whole: Whole, wire: Wire): Effect[] {
  const { circuit, situations } = whole;
  const idle = whole.without(situations.idle, wire);
  const boot = whole.without(situations.boot, wire);
  const lost = unfed(whole, idle);
  // What hangs on a board that has stopped needs no word of its own.
  const lives = (placed: Placed) => !lost.includes(placed);
  return [
    ...unasked(whole, wire, idle, boot),
    ...overVoltage(whole, [idle, boot]),
    ...dead(lost),
    ...noLongerRuns(whole, wire, idle),
    ...guards(whole, wire, idle, lives),
    ...readings(whole, wire, idle, lives),
    ...monitors(whole, idle, lives),
    ...silent(circuit, wire),
    ...unprotected(circuit, wire),
    ...uncharged(whole, wire),
  ];
}

function loadVolts(whole: Whole, at: Solution, load: Placed): number | null {
  const [plus, minus] = ['plus', 'minus'].map((id) => load.spots.find((spot) => spot.terminal.id === id));
  return plus && minus ? Math.abs(at.across(whole.node(plus), whole.node(minus))) : null;
}

/** Pumps and valves that run though nobody told them. */
const unasked = (whole: Whole, wire: Wire, idle: Solution, boot: Solution): Effect[] =>
  partsWith(whole.circuit, 'pump', 'valve').flatMap((load): Effect[] => {
    const ratedV = fact(load, 'ratedV') ?? 12;
    const runs = (at: Solution) => (loadVolts(whole, at, load) ?? 0) > OFF_SHARE * ratedV;
    if (runs(whole.of(whole.situations.idle))) return [];
    if (runs(idle))
      return [{ kind: 'danger', says: `${load.part.label} runs without being told, and nothing stops it.` }];
    if (runs(boot) && !runs(whole.of(whole.situations.boot)))
      return [{ kind: 'danger', says: `${load.part.label} runs at every start of the board.` }];
    // Without a way for its current it cannot run, whatever its gate does.
    if (isOnItsWay(whole, wire, load)) return [];
    const gates = switchesOf(whole, load);
    return gates.some(
      (gate) => boot.floats(whole.node(gate)) && !whole.of(whole.situations.boot).floats(whole.node(gate)),
    )
      ? [
          {
            kind: 'danger',
            says: `What switches ${load.part.label} floats while the board starts: it may run then.`,
          },
        ]
      : [];
  });

/** Whether a wire carries the current of a load: on its own ends, and on both sides of what switches it. */
function isOnItsWay({ circuit }: Whole, wire: Wire, load: Placed): boolean {
  const nets = load.spots.map((spot) => circuit.netOf(spot.end));
  const switches = nets.flatMap((net) =>
    net.spots.filter((spot) => isType(spot, 'switched')).map((spot) => spot.placed),
  );
  const both = switches.flatMap(({ spots }) =>
    spots.filter((spot) => isType(spot, 'switched')).map((spot) => circuit.netOf(spot.end)),
  );
  const isAtSource = switches.some(({ part }) =>
    [wire.from, wire.to].some(
      (end) => end.part === part.id && ['source', 'emitter', 'gnd'].includes(end.terminal),
    ),
  );
  // The way back of a switch goes by its own wire; other wires of the ground net are none of it.
  return isAtSource && !isShared(circuit, wire)
    ? true
    : [...nets, ...both].some((net) => net.wires.includes(wire));
}

/** A ground wire between two small parts: a pull-down, not the way of the current. */
const isShared = (circuit: Circuit, wire: Wire): boolean =>
  [wire.from, wire.to].some((end) => {
    const placed = circuit.parts.get(end.part);
    return placed !== undefined && hasRole(placed, 'resistor', 'diode');
  });

/** Gates of the switches that a load hangs on. */
const switchesOf = ({ circuit }: Whole, load: Placed): Spot[] =>
  load.spots.flatMap((end) =>
    circuit
      .netOf(end.end)
      .spots.filter((spot) => isType(spot, 'switched') && hasRole(spot.placed, 'MOSFET'))
      .flatMap((spot) => spot.placed.spots.filter((one) => isType(one, 'control'))),
  );

/** Terminals that would see more than they bear. */
function overVoltage(whole: Whole, solutions: readonly Solution[]): Effect[] {
  for (const placed of whole.circuit.parts.values())
    for (const spot of placed.spots) {
      if (!('maxV' in spot.terminal) || spot.terminal.maxV === null || !isWired(whole.circuit, spot))
        continue;
      const bearsV = spot.terminal.maxV;
      for (const at of solutions) {
        const volts = whole.volts(at, spot);
        if (volts !== null && !at.floats(whole.node(spot)) && volts > bearsV + 0.1)
          return [
            { kind: 'danger', says: `${nameOf(spot)} would see ${inV(volts)} and bears ${inV(bearsV)}.` },
          ];
      }
    }
  return [];
}

/** Of its least voltage a part works from about this share on. */
const WAKES_AT = 0.85;

/** Parts that lose their supply. */
const unfed = (whole: Whole, idle: Solution): Placed[] =>
  [...whole.circuit.parts.values()].filter((placed) =>
    placed.spots.some((spot) => {
      if (!isType(spot, 'supply in') || spot.terminal.minV === null) return false;
      const wantsV = WAKES_AT * spot.terminal.minV;
      const isFed = (at: Solution) => (whole.volts(at, spot) ?? 0) >= wantsV;
      return isFed(whole.of(whole.situations.idle)) && !isFed(idle);
    }),
  );

/** The boards that stop; where none does, the parts that lose their supply. */
function dead(lost: readonly Placed[]): Effect[] {
  const boards = lost.filter((placed) => hasRole(placed, 'board'));
  return (boards.length > 0 ? boards : lost).map(({ part, entry }): Effect => ({
    kind: 'noticed',
    says:
      entry.role === 'board'
        ? `${part.label} stops, and everything on it with it.`
        : `${part.label} has no supply any more.`,
  }));
}

/** Less than a gate’s leakage, A. */
const LEAST_A = 1e-8;

/** Loads that an output started and no longer does. */
function noLongerRuns(whole: Whole, wire: Wire, idle: Solution): Effect[] {
  const effects: Effect[] = [];
  const own = whole.mesh.wireDevice(wire.id);
  const resting = whole.of(whole.situations.idle);
  for (const situation of whole.situations.one.values()) {
    const before = whole.of(situation);
    const running = partsWith(whole.circuit, 'pump', 'valve').filter(
      (load) => (loadVolts(whole, before, load) ?? 0) >= ON_SHARE * (fact(load, 'ratedV') ?? 12),
    );
    const lamps = partsWith(whole.circuit, 'LED').filter((lamp) => {
      const device = whole.mesh.deviceOf(lamp.part.id, 'itself');
      return device !== null && before.ampsOf(device) > 3e-4;
    });
    if (running.length + lamps.length === 0) continue;
    // A wire that carries the same whether the output is on or off has nothing to do with it, unless it took the board.
    const differs = own && Math.abs(before.ampsOf(own) - resting.ampsOf(own)) > LEAST_A;
    if (!differs && unfed(whole, idle).length === 0) continue;
    const after = whole.without(situation, wire);
    for (const load of running)
      if ((loadVolts(whole, after, load) ?? 0) < ON_SHARE * (fact(load, 'ratedV') ?? 12))
        effects.push({
          kind: 'noticed',
          says: `${load.part.label} no longer runs; the program notices that the soil gets no wetter, and locks its line.`,
        });
    for (const lamp of lamps) {
      const device = whole.mesh.deviceOf(lamp.part.id, 'itself');
      if (device && after.ampsOf(device) < 1e-4)
        effects.push({ kind: 'noticed', says: `${lamp.part.label} stays dark.` });
    }
  }
  return effects.filter((one, at) => effects.findIndex((other) => other.says === one.says) === at);
}

/** Float and rain switches: open is the safe side, for open means “no water”. */
function guards(whole: Whole, wire: Wire, idle: Solution, lives: (placed: Placed) => boolean): Effect[] {
  return [...whole.situations.contacts].flatMap(([placed, situation]): Effect[] => {
    const reader = whole.situations.uses.find(
      ({ use, spots }) => use === 'reads on and off' && spots.some((spot) => spot.placed === placed),
    );
    if (!reader || !lives(reader.pin.placed)) return [];
    const { pin } = reader;
    const [open, shut] = [
      whole.volts(whole.of(whole.situations.idle), pin),
      whole.volts(whole.of(situation), pin),
    ];
    const after = whole.without(situation, wire);
    const [openNow, shutNow] = [whole.volts(idle, pin), whole.volts(after, pin)];
    if (open === null || shut === null || openNow === null || shutNow === null) return [];
    const logicV = fact(pin.placed, 'logicV') ?? 3.3;
    const near = (one: number, other: number) => Math.abs(one - other) < 0.3 * logicV;
    const { label } = placed.part;
    if (idle.floats(whole.node(pin)) || after.floats(whole.node(pin)))
      return [
        { kind: 'danger', says: `${nameOf(pin)} floats: ${label} would read open or closed by chance.` },
      ];
    if (near(openNow, open) && near(shutNow, shut)) return [];
    if (near(openNow, open) && near(shutNow, open))
      return [
        {
          kind: 'noticed',
          says: `${label} reads as open for ever, which means “no water”: the pump stays off.`,
        },
      ];
    if (near(openNow, shut) && near(shutNow, shut))
      return [
        {
          kind: 'danger',
          says: `${label} reads as closed for ever, which means “there is water”: the pump could run dry. Exchange what open and closed mean, or turn the float round.`,
        },
      ];
    return [{ kind: 'danger', says: `${label} gives ${nameOf(pin)} neither a clear high nor a clear low.` }];
  });
}

/** Of a converter's scale, what stands below or above the ends of it is taken for a broken wire. */
const [LOW_END, HIGH_END] = [0.02, 0.98];

/** Probes whose reading no longer follows them. */
function readings(whole: Whole, wire: Wire, idle: Solution, lives: (placed: Placed) => boolean): Effect[] {
  return [...whole.situations.signals].flatMap(([spot, situation]): Effect[] => {
    const readers = whole.situations.uses.filter(
      ({ pin, use, spots }) =>
        use.startsWith('reads') && spots.some((one) => one.placed === spot.placed) && lives(pin.placed),
    );
    const [reader] = readers;
    if (!reader || !mayTouch(whole, wire, spot, idle)) return [];
    const { pin } = reader;
    const swing = (high: Solution, low: Solution) =>
      (whole.volts(high, pin) ?? 0) - (whole.volts(low, pin) ?? 0);
    const before = swing(whole.of(situation), whole.of(whole.situations.idle));
    const after = swing(whole.without(situation, wire), idle);
    if (Math.abs(before) < 0.02 || Math.abs(after) > 0.8 * Math.abs(before)) {
      const shift = (whole.volts(idle, pin) ?? 0) - (whole.volts(whole.of(whole.situations.idle), pin) ?? 0);
      return Math.abs(shift) > 0.05
        ? [
            {
              kind: 'unnoticed',
              says: `${spot.placed.part.label} is read ${inV(Math.abs(shift))} too ${shift > 0 ? 'high' : 'low'}, and nobody notices.`,
            },
          ]
        : [];
    }
    const { label } = spot.placed.part;
    const fullV = (isType(pin, 'pin') ? pin.terminal.fullScaleV : null) ?? fact(pin.placed, 'logicV') ?? 3.3;
    const share = (whole.volts(idle, pin) ?? 0) / fullV;
    if (idle.floats(whole.node(pin)))
      return [
        {
          kind: 'unnoticed',
          says: `${nameOf(pin)} floats: what is read for ${label} drifts, and may look like a reading.`,
        },
      ];
    if (share < LOW_END || share > HIGH_END)
      return [
        {
          kind: 'noticed',
          says: `${label} reads ${share < LOW_END ? 'nothing' : 'full scale'}, which the program takes for a broken wire: its plot is not watered by it.`,
        },
      ];
    return [
      {
        kind: 'unnoticed',
        says: `${label} is read as ${inV(share * fullV)} whatever the soil does, which looks like a reading.`,
      },
    ];
  });
}

/** Dividers on a battery or supply, which no probe moves. */
const monitors = (whole: Whole, idle: Solution, lives: (placed: Placed) => boolean): Effect[] =>
  whole.situations.uses.flatMap(({ pin, use, spots }): Effect[] => {
    const monitor = spots.find((spot) => hasRole(spot.placed, 'battery monitor', 'divider', 'resistor'));
    if (
      use !== 'reads a voltage' ||
      !monitor ||
      spots.some((spot) => isType(spot, 'analog out') || isType(spot, 'loop') || isBareSensor(spot.placed))
    )
      return [];
    const [before, after] = [whole.volts(whole.of(whole.situations.idle), pin), whole.volts(idle, pin)];
    if (
      !lives(pin.placed) ||
      before === null ||
      after === null ||
      Math.abs(after - before) < 0.05 * Math.abs(before)
    )
      return [];
    const { label } = monitor.placed.part;
    return idle.floats(whole.node(pin))
      ? [{ kind: 'unnoticed', says: `${nameOf(pin)} floats: what ${label} says may look like a voltage.` }]
      : after < LOW_END * before
        ? [{ kind: 'noticed', says: `${label} reads nothing: the program takes the battery for empty.` }]
        : [
            {
              kind: 'unnoticed',
              says: `${label} reads ${inV(after)} for ${inV(before)} at its input, and nobody notices.`,
            },
          ];
  });

/** What a direct current does not tell of: the diode that takes a motor's kick. */
function unprotected(circuit: Circuit, wire: Wire): Effect[] {
  const [from, to] = endsOf(circuit, wire);
  const diode = [from, to].find((spot) => spot && hasRole(spot.placed, 'diode'));
  const load = [from, to].find((spot) => spot && isType(spot, 'load'));
  return diode && load
    ? [
        {
          kind: 'unnoticed',
          says: `Nothing takes the kick of ${load.placed.part.label} when it stops: its switch may break, and then it runs on.`,
        },
      ]
    : [];
}

/** A panel that no longer charges. */
function uncharged(whole: Whole, wire: Wire): Effect[] {
  const own = whole.mesh.wireDevice(wire.id);
  const panels = partsWith(whole.circuit, 'solar');
  const carries =
    own &&
    whole.circuit.parts.size > 0 &&
    panels.some((panel) => {
      const device = whole.mesh.deviceOf(panel.part.id, 'itself');
      const at = whole.of(whole.situations.empty);
      if (!device) return false;
      const before = at.ampsOf(device);
      return before < -1e-3 && whole.without(whole.situations.empty, wire).ampsOf(device) > 0.5 * before;
    });
  return carries
    ? [{ kind: 'noticed', says: 'The battery is no longer charged; its voltage tells, days later.' }]
    : [];
}

/** Whether a lost wire can have to do with a signal: it is at its part or its reader, or the part's supply changes. */
function mayTouch(whole: Whole, wire: Wire, spot: Spot, idle: Solution): boolean {
  const parts = [wire.from.part, wire.to.part];
  const { part } = spot.placed;
  if (parts.includes(part.id)) return true;
  const intact = whole.of(whole.situations.idle);
  return (
    spot.placed.spots.some((one) => {
      const [before, after] = [whole.volts(intact, one), whole.volts(idle, one)];
      return before !== null && after !== null && Math.abs(before - after) > 0.02;
    }) ||
    whole.circuit.netOf(spot.end).wires.some((one) => one.id === wire.id) ||
    whole.situations.uses.some(
      ({ pin, spots }) =>
        spots.includes(spot) && whole.circuit.netOf(pin.end).wires.some((one) => one.id === wire.id),
    )
  );
}

const LINES: Readonly<Record<string, string>> = {
  i2c: 'the I2C bus',
  'one-wire': 'the 1-Wire line',
  rs485: 'the RS-485 bus',
  'uart in': 'the serial line',
  'uart out': 'the serial line',
};

/** Bus lines, which a direct current does not tell of: what hangs on one no longer answers. */
function silent(circuit: Circuit, wire: Wire): Effect[] {
  const ends = endsOf(circuit, wire).flatMap((spot) => spot ?? []);
  const line = ends.find((spot) => spot.terminal.type in LINES);
  if (!line) return [];
  const parts = ends
    .filter((spot) => !hasRole(spot.placed, 'board', 'resistor', 'pull-ups'))
    .map((spot) => spot.placed.part.label);
  return parts.length === 0
    ? []
    : [
        {
          kind: 'noticed',
          says: `${parts[parts.length - 1] ?? ''} no longer answers on ${LINES[line.terminal.type] ?? 'its line'}; the program says so.`,
        },
      ];
}
