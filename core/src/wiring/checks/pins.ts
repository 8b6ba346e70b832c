/** Checks of what is wired to a board's pins: voltage, users, starting and serial pins, capabilities, currents. */
import type { PinCap } from '../../catalogue/schema.ts';
import { bestDivider } from '../../electrics/divider.ts';
import { fact, hasRole, isType, type Circuit, type Placed, type Spot } from '../circuit.ts';
import type { Check, Remedy } from '../finding.ts';
import {
  allSpots,
  behind,
  boardOf,
  drivenBy,
  endOf,
  feederOf,
  freePins,
  groundSpot,
  inMa,
  inOhm,
  inV,
  isWired,
  listOf,
  logicSupply,
  nameOf,
  others,
  partsWith,
  supplySpot,
  usedPins,
  type PinSpot,
} from '../look.ts';

/** Voltage a terminal bears; undefined for terminals that have no such limit. */
function bearsV(spot: Spot): number | null | undefined {
  const { terminal } = spot;
  return 'maxV' in terminal && terminal.type !== 'supply in' ? terminal.maxV : undefined;
}

const dividerRemedy = (spot: Spot, inV: number, mostV: number): Remedy[] => {
  const found = bestDivider({
    inV,
    targetV: mostV,
    series: 'E12',
    sourceLimitOhm: 10_000,
    leastSumOhm: 10_000,
  });
  if (!found.ok) return [];
  const { upperOhm, lowerOhm } = found.value;
  return [
    {
      kind: 'insert',
      label: `Put a divider ${inOhm(upperOhm)} over ${inOhm(lowerOhm)} before it`,
      entryId: 'divider',
      at: spot.end,
      inTerminal: 'in',
      outTerminal: 'out',
      ground: endOf(groundSpot(spot.placed)),
      settings: { upperOhm, lowerOhm },
    },
  ];
};

/** A level shifter at a pin, for a partner that lives on another supply. */
function shiftRemedy(circuit: Circuit, pin: Spot, partner: Spot): Remedy[] {
  const board = boardOf(circuit, pin.placed) ?? pin.placed;
  const low = logicSupply(board);
  const supply = supplySpot(partner.placed);
  const high = supply && feederOf(circuit.netOf(supply.end));
  const ground = groundSpot(board);
  if (!low || !high || !ground || (low.placed === high.placed && low.terminal.id === high.terminal.id))
    return [];
  return [
    {
      kind: 'shift',
      label: 'Put a level shifter between',
      at: pin.end,
      low: low.end,
      high: high.end,
      ground: ground.end,
    },
  ];
}

export const PIN_CHECKS: readonly Check[] = [
  {
    id: 'over-voltage',
    title: 'No pin sees more voltage than it bears',
    why: 'A pin above its limit fails at once or after weeks, and takes the board with it.',
    run: (circuit, report) => {
      for (const spot of allSpots(circuit)) {
        const most = bearsV(spot);
        const { level } = circuit.netOf(spot.end);
        if (most === undefined || !isWired(circuit, spot) || level?.from.placed === spot.placed || !level)
          continue;
        if (most === null) {
          report.unknown(`What ${nameOf(spot)} bears is not known. Look it up and enter it.`, [spot]);
        } else if (level.volts === null) {
          report.unknown(
            `${nameOf(spot)} bears ${inV(most)}, but the voltage of ${nameOf(level.from)} is not known. Measure it before you connect it.`,
            [spot, level.from],
          );
        } else if (level.volts > most + 0.05) {
          const analog =
            isType(level.from, 'analog out') ||
            isType(level.from, 'supply out') ||
            hasRole(level.from.placed, 'battery');
          report.find(
            'fault',
            `${nameOf(level.from)} can put ${inV(level.volts)} on ${nameOf(spot)}, which bears ${inV(most)}.`,
            [spot, level.from],
            {
              remedies: analog
                ? dividerRemedy(
                    spot,
                    level.volts,
                    isType(spot, 'pin') ? (spot.terminal.fullScaleV ?? most) : most,
                  )
                : [
                    ...shiftRemedy(circuit, spot, level.from),
                    ...(isType(level.from, 'digital out') || isType(level.from, 'uart out')
                      ? dividerRemedy(spot, level.volts, fact(spot.placed, 'logicV') ?? most)
                      : []),
                  ],
            },
          );
        } else report.fine();
      }
    },
  },
  {
    id: 'logic-too-low',
    title: 'Every input sees its high as high',
    why: 'A 3.3 V pin does not always count as high for a 5 V part: it works on the bench and fails in the cold.',
    run: (circuit, report) => {
      for (const spot of allSpots(circuit)) {
        if (!isType(spot, 'digital in') && !isType(spot, 'uart in')) continue;
        const driver = driverOf(circuit, spot);
        if (!driver) continue;
        const highV = isType(driver, 'pin')
          ? fact(driver.placed, 'logicV')
          : (circuit.netOf(driver.end).level?.volts ?? null);
        const { highFromV } = spot.terminal;
        if (highV === null || highFromV === null)
          report.unknown(`From which voltage ${nameOf(spot)} counts as high is not known.`, [spot, driver]);
        else if (highV < highFromV)
          report.find(
            'caution',
            `${nameOf(driver)} gives ${inV(highV)}; ${nameOf(spot)} wants at least ${inV(highFromV)} for high.`,
            [spot, driver],
            { remedies: shiftRemedy(circuit, driver, spot) },
          );
        else report.fine();
      }
    },
  },
  {
    id: 'two-users',
    title: 'No pin has two users',
    why: 'Two outputs on one pin fight each other; two probes on one input are read as neither.',
    run: (circuit, report) => {
      for (const pin of usedPins(circuit)) {
        const users = others(circuit, pin).filter((spot) => isUser(circuit, spot));
        const pins = others(circuit, pin).filter((one) => isType(one, 'pin'));
        if (users.length + pins.length > 1) {
          const board = pin.placed;
          const cap = capFor(circuit, users[1] ?? users[0]);
          const [free] = cap ? freePins(circuit, board, cap) : [];
          const [, second] = users;
          report.find(
            'fault',
            `${nameOf(pin)} is shared by ${listOf([...users, ...pins].map(nameOf))}.`,
            [pin, ...users, ...pins],
            {
              remedies:
                free && second
                  ? [
                      {
                        kind: 'move',
                        label: `Move ${second.placed.part.label} to ${free.terminal.name}`,
                        from: second.end,
                        to: free.end,
                      },
                    ]
                  : [],
            },
          );
        } else if (users.length > 0) report.fine();
      }
    },
  },
  {
    id: 'strap-pin',
    title: 'Pins that decide how the board starts are kept free',
    why: 'A probe or a relay on such a pin can keep the board from starting, sometimes only when the soil is wet.',
    run: (circuit, report) => {
      for (const pin of usedPins(circuit)) {
        const { strap } = pin.terminal;
        if (strap !== undefined)
          report.find('caution', `${nameOf(pin)} decides how the board starts (${strap}).`, [pin], {
            remedies: moveRemedy(circuit, pin),
          });
        else report.fine();
      }
    },
  },
  {
    id: 'serial-pin',
    title: 'The serial pins are kept free',
    why: 'They carry the program up and the lines down; a part on them stops both.',
    run: (circuit, report) => {
      for (const pin of usedPins(circuit)) {
        if (pin.terminal.serial)
          report.find('caution', `${nameOf(pin)} is one of the serial pins.`, [pin], {
            remedies: moveRemedy(circuit, pin),
          });
        else report.fine();
      }
    },
  },
  {
    id: 'pin-cannot',
    title: 'Every pin can do what is asked of it',
    why: 'Not every pin reads a voltage, not every pin can drive, and a bus has its own pins.',
    run: (circuit, report) => {
      for (const pin of usedPins(circuit))
        for (const user of others(circuit, pin)) {
          const cap = capFor(circuit, user);
          if (!cap) continue;
          if (pin.terminal.caps.includes(cap)) report.fine();
          else {
            const [free] = freePins(circuit, pin.placed, cap);
            report.find(
              'fault',
              `${nameOf(user)} wants a pin that ${CAP_WORDS[cap]}; ${nameOf(pin)} cannot.`,
              [pin, user],
              free
                ? {
                    remedies: [
                      {
                        kind: 'move',
                        label: `Move it to ${free.terminal.name}`,
                        from: pin.end,
                        to: free.end,
                      },
                    ],
                  }
                : {},
            );
          }
        }
      // RS-485 lines never meet a pin: a transceiver stands between.
      for (const spot of allSpots(circuit))
        if (isType(spot, 'rs485') && others(circuit, spot).some((one) => isType(one, 'pin')))
          report.find('fault', `${nameOf(spot)} is wired to a pin; RS-485 needs a transceiver between.`, [
            spot,
          ]);
    },
  },
  {
    id: 'pin-current',
    title: 'No pin gives more current than it may',
    why: 'Above its limit the pin’s voltage sags and its driver burns.',
    run: (circuit, report) => {
      for (const pin of usedPins(circuit)) {
        if (
          drivenBy(circuit, pin).length === 0 ||
          drivenBy(circuit, pin).some((one) => one.terminal.type === 'load')
        )
          continue;
        const limit = fact(pin.placed, 'pinMa');
        const taken = pinDrawMa(circuit, pin);
        if (taken === null || limit === null)
          report.unknown(`What is drawn from ${nameOf(pin)}, or what it may give, is not known.`, [pin]);
        else if (taken > limit)
          report.find('fault', `${nameOf(pin)} would give ${inMa(taken)}; it may give ${inMa(limit)}.`, [
            pin,
            ...drivenBy(circuit, pin),
          ]);
        else report.fine();
      }
    },
  },
  {
    id: 'pins-total',
    title: 'All pins of a board together stay within its limit',
    why: 'The chip has a limit for the sum as well, often far below pins times limit.',
    run: (circuit, report) => {
      for (const board of partsWith(circuit, 'board', 'expander')) {
        const pins = usedPins(circuit, board).filter((pin) => drivenBy(circuit, pin).length > 0);
        if (pins.length === 0) continue;
        const limit = fact(board, 'pinsTotalMa');
        const draws = pins.map((pin) => pinDrawMa(circuit, pin));
        const total = draws.reduce<number | null>(
          (sum, one) => (sum === null || one === null ? null : sum + one),
          0,
        );
        if (limit === null || total === null)
          report.unknown(
            `What all pins of ${board.part.label} give together cannot be told: a current is not known.`,
            pins,
          );
        else if (total > limit)
          report.find(
            'fault',
            `The pins of ${board.part.label} would give ${inMa(total)} together; the board allows ${inMa(limit)}.`,
            pins,
          );
        else report.fine();
      }
    },
  },
  {
    id: 'read-power',
    title: 'What is powered only to be read hangs on a pin',
    why: 'On a standing supply it is powered all the time, whatever the plan says: it wears and takes current as if it were.',
    run: (circuit, report) => {
      for (const placed of circuit.parts.values()) {
        const supply = supplySpot(placed);
        if (!placed.part.perReading || !supply || !isWired(circuit, supply)) continue;
        if (others(circuit, supply).some((spot) => isType(spot, 'pin'))) {
          report.fine();
          continue;
        }
        const board = boardOf(circuit, placed);
        const [free] = board
          ? freePins(circuit, board, 'out').filter((pin) => !pin.terminal.caps.includes('adc'))
          : [];
        report.find(
          'caution',
          `${placed.part.label} is to be powered only while it is read, but its supply is always on.`,
          [supply],
          free
            ? {
                remedies: [
                  { kind: 'feed', label: `Feed it from ${nameOf(free)}`, at: supply.end, from: free.end },
                ],
              }
            : {},
        );
      }
    },
  },
  {
    id: 'fed-from-pin',
    title: 'No pump, valve or motor is fed from a pin',
    why: 'A motor takes ten to a hundred times what a pin gives, and kicks back when it stops.',
    run: (circuit, report) => {
      for (const load of partsWith(circuit, 'pump', 'valve', 'servo')) {
        const pins = load.entry.terminals
          .filter((terminal) => terminal.type === 'load' || terminal.type === 'supply in')
          .flatMap((terminal) => circuit.netOf({ part: load.part.id, terminal: terminal.id }).spots)
          .filter((spot) => isType(spot, 'pin'));
        if (pins.length > 0)
          report.find(
            'fault',
            `${load.part.label} is fed from ${listOf(pins.map(nameOf))}. Switch it with a MOSFET, a driver module or a relay, and feed it from the supply.`,
            pins,
            {
              remedies: [
                {
                  kind: 'add-part',
                  label: 'Add a MOSFET to switch it',
                  entryId: 'switch-mosfet',
                  boardId: load.part.boardId,
                },
              ],
            },
          );
        else report.fine();
      }
    },
  },
];

const CAP_WORDS: Readonly<Record<PinCap, string>> = {
  adc: 'reads a voltage',
  in: 'reads on and off',
  out: 'drives',
  pwm: 'gives pulses',
  interrupt: 'counts edges',
  sda: 'is the bus’s SDA',
  scl: 'is the bus’s SCL',
  rx: 'receives serial',
  tx: 'sends serial',
  'one-wire': 'does 1-Wire',
};

/** What a terminal asks of the pin it is wired to; null when it asks nothing (a pull-up, a diode). */
export function capFor(circuit: Circuit, spot: Spot | undefined): PinCap | null {
  if (!spot) return null;
  const { terminal, placed } = spot;
  switch (terminal.type) {
    case 'supply in':
      // Powered only to be read: from a pin of its own.
      return placed.part.perReading ? 'out' : null;
    case 'analog out':
      return 'adc';
    case 'loop':
      return terminal.side === 'minus' ? 'adc' : null;
    case 'digital out':
    case 'open drain':
      return 'in';
    case 'digital in':
      return hasRole(placed, 'servo') ? 'pwm' : 'out';
    case 'control':
      return 'out';
    case 'i2c':
      return terminal.line;
    case 'one-wire':
      return 'one-wire';
    case 'uart out':
      return 'rx';
    case 'uart in':
      return 'tx';
    case 'lead':
      if (hasRole(placed, 'divider', 'battery monitor') && terminal.lead === 'out')
        return dividedCap(circuit, placed);
      return hasRole(placed, 'LED') && terminal.lead === 'anode' ? 'out' : null;
    default:
      return null;
  }
}

/** Behind a divider stays what was before it: a digital level or a voltage to be read. */
function dividedCap(circuit: Circuit, divider: Placed): PinCap {
  const source = circuit.netOf({ part: divider.part.id, terminal: 'in' }).spots;
  if (source.some((spot) => isType(spot, 'uart out'))) return 'rx';
  return source.some((spot) => isType(spot, 'digital out')) ? 'in' : 'adc';
}

/** Terminals that want a pin to themselves; buses are shared. */
function isUser(circuit: Circuit, spot: Spot): boolean {
  const cap = capFor(circuit, spot);
  return cap !== null && !['sda', 'scl', 'one-wire'].includes(cap) && spot.terminal.type !== 'loop';
}

function moveRemedy(circuit: Circuit, pin: PinSpot): Remedy[] {
  const [user] = others(circuit, pin).filter((spot) => isUser(circuit, spot));
  const cap = capFor(circuit, user);
  const free =
    cap &&
    freePins(circuit, pin.placed, cap).find(
      (one) =>
        one.terminal.strap === undefined &&
        !one.terminal.serial &&
        (cap !== 'adc' || one.terminal.lostWithRadio !== true),
    );
  return free
    ? [{ kind: 'move', label: `Move it to ${free.terminal.name}`, from: pin.end, to: free.end }]
    : [];
}

/** The pin or output that drives an input: on its net, or behind a series resistor, or across a shifter. */
export function driverOf(circuit: Circuit, input: Spot): Spot | null {
  const drives = (spot: Spot) =>
    (isType(spot, 'pin') && spot.terminal.caps.includes('out')) ||
    isType(spot, 'digital out') ||
    isType(spot, 'uart out');
  const near = others(circuit, input);
  return (
    near.find(drives) ??
    near.find((spot) => hasRole(spot.placed, 'level shifter')) ??
    behind(circuit, input, 'resistor')
      .flatMap((one) => one.spots)
      .find(drives) ??
    null
  );
}

/** What is drawn from a pin, mA; null when some of it is not known. Resistors are followed to what they feed. */
export function pinDrawMa(circuit: Circuit, pin: PinSpot): number | null {
  const logicV = fact(pin.placed, 'logicV');
  let total: number | null = 0;
  const add = (ma: number | null) => {
    total = total === null || ma === null ? null : total + ma;
  };
  for (const spot of drivenBy(circuit, pin)) {
    const { terminal, placed } = spot;
    if (terminal.type === 'digital in') add(terminal.takesMa);
    else if (terminal.type === 'supply in') add(fact(placed, 'peakMa') ?? fact(placed, 'activeMa'));
    // An LED without a resistor is a finding of its own; what it takes cannot be worked out.
    else if (hasRole(placed, 'LED')) continue;
    else if (hasRole(placed, 'resistor')) add(throughResistor(circuit, spot, logicV));
    // A gate or base without a resistor is a finding of its own; a gate at rest takes nothing.
  }
  return total;
}

function throughResistor(circuit: Circuit, near: Spot, logicV: number | null): number | null {
  const ohm = fact(near.placed, 'ohm');
  const far = behindOne(circuit, near);
  if (far.length === 0) return 0;
  if (ohm === null || logicV === null) return null;
  const led = far.find((spot) => hasRole(spot.placed, 'LED'));
  if (led) {
    const forwardV = fact(led.placed, 'forwardV');
    return forwardV === null ? null : (Math.max(0, logicV - forwardV) / ohm) * 1000;
  }
  if (far.some((spot) => isType(spot, 'control') && spot.terminal.device === 'base'))
    return ((logicV - 0.7) / ohm) * 1000;
  // A gate takes current only while it charges; a pull-up or pull-down takes what Ohm's law says.
  if (far.some((spot) => spot.terminal.type === 'ground')) return (logicV / ohm) * 1000;
  return 0;
}

const behindOne = (circuit: Circuit, near: Spot): Spot[] =>
  circuit
    .netOf({ part: near.end.part, terminal: near.end.terminal === 'a' ? 'b' : 'a' })
    .spots.filter((spot) => spot.placed !== near.placed);
