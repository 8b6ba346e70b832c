/** Checks of what is wired to a board’s pins: users, starting and serial pins, capabilities, currents. */
import { type PinCap } from '../../catalogue/schema.ts';
import { type Circuit, fact, isType } from '../circuit.ts';
import { type Check, type Remedy } from '../finding.ts';
import {
  type PinSpot,
  allSpots,
  boardOf,
  drivenBy,
  freePins,
  inMa,
  isWired,
  listOf,
  nameOf,
  others,
  partsWith,
  supplySpot,
  usedPins,
} from '../look.ts';
import { capFor, isUser, pinDrawMa } from '../pinUse.ts';

export const PIN_CHECKS: readonly Check[] = [
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
