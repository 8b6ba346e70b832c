/** Checks of what is wired to a board’s pins: users, starting and serial pins, capabilities, currents. */
import { type PinCap } from '../../catalogue/schema.ts';
import { type Circuit, type Spot, hasRole, isType } from '../circuit.ts';
import { type Check, type Remedy } from '../finding.ts';
import {
  type PinSpot,
  allSpots,
  boardOf,
  freePins,
  isWired,
  listOf,
  nameOf,
  others,
  partsWith,
  supplySpot,
  usedPins,
} from '../look.ts';
import { capFor, isUser } from '../pinUse.ts';
import { feedInstead } from './solved/feeders.ts';
import { type Client, clientsOf, reachedFrom } from '../solve/situations.ts';

export const PIN_CHECKS: readonly Check[] = [
  {
    id: 'two-users',
    title: 'No pin has two users',
    why: 'Two outputs on one pin fight each other; two probes on one input are read as neither.',
    run: (circuit, report) => {
      for (const pin of usedPins(circuit)) {
        const clients = clientsOf(circuit, pin);
        const users = clients.map((one) => one.spot);
        const pins = circuit.netOf(pin.end).spots.filter((one) => isType(one, 'pin') && one !== pin);
        const [, second] = clients;
        // A lamp beside a switch may be meant as its sign; two of anything else never are.
        const isSign = users.length === 2 && pins.length === 0 && users.some(isLamp) && users.some(isControl);
        if (users.length > 1 || pins.length > 0)
          report.find(
            isSign ? 'caution' : 'fault',
            isSign
              ? `${nameOf(pin)} drives ${listOf(users.map((spot) => spot.placed.part.label))} together: neither can be on without the other. Leave it so only if the lamp is meant to show just that.`
              : `${nameOf(pin)} is shared by ${listOf([...users, ...pins].map(nameOf))}.`,
            [pin, ...users, ...pins],
            { remedies: second ? moveClient(circuit, pin, second) : [] },
          );
        else if (users.length > 0) report.fine();
      }
    },
  },
  {
    id: 'pin-on-rail',
    title: 'No pin lies on a supply or on ground',
    why: 'A pin on a rail reads nothing and drives into a short.',
    run: (circuit, report) => {
      for (const pin of usedPins(circuit)) {
        const rail = others(circuit, pin).find(
          (spot) =>
            isType(spot, 'supply out') ||
            (isType(spot, 'ground') && !hasRole(spot.placed, 'contact', 'MOSFET', 'transistor')),
        );
        const own = pin.placed.spots.find(
          (spot) =>
            circuit.netOf(spot.end) === circuit.netOf(pin.end) &&
            (isType(spot, 'supply out') || isType(spot, 'ground')),
        );
        const on = rail ?? own;
        if (on)
          report.find('fault', `${nameOf(pin)} lies on ${nameOf(on)}: it can neither read nor drive there.`, [
            pin,
            ...others(circuit, pin).filter((spot) => !isType(spot, 'ground') && !isType(spot, 'supply in')),
          ]);
        else report.fine();
      }
      // A line of a bus that goes over a pair has no pin on it, but no rail either.
      for (const spot of allSpots(circuit)) {
        if (!isType(spot, 'rs485')) continue;
        const rail = circuit
          .netOf(spot.end)
          .spots.find((one) => ['supply in', 'supply out', 'ground'].includes(one.terminal.type));
        if (rail)
          report.find('fault', `${nameOf(spot)} lies on ${nameOf(rail)}: the bus is dead there.`, [
            spot,
            rail,
          ]);
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
        for (const user of [...others(circuit, pin), ...behindSeries(circuit, pin)]) {
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
      for (const load of partsWith(circuit, 'pump', 'valve', ...SWITCHES_ITSELF)) {
        const pins = load.entry.terminals
          .filter((terminal) => terminal.type === 'load' || terminal.type === 'supply in')
          .flatMap((terminal) => circuit.netOf({ part: load.part.id, terminal: terminal.id }).spots)
          .filter((spot) => isType(spot, 'pin'));
        if (pins.length > 0)
          report.find(
            'fault',
            hasRole(load, ...SWITCHES_ITSELF)
              ? `${load.part.label} is fed from ${listOf(pins.map(nameOf))}. It switches itself: feed it from the supply, and give it only its signal from a pin.`
              : `${load.part.label} is fed from ${listOf(pins.map(nameOf))}. Switch it with a MOSFET, a driver module or a relay, and feed it from the supply.`,
            [...pins, ...load.spots.slice(0, 1)],
            {
              remedies: hasRole(load, ...SWITCHES_ITSELF)
                ? load.spots
                    .filter((spot) => isType(spot, 'supply in'))
                    .flatMap((spot) => feedInstead(circuit, spot))
                : [
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

/** Motors and coils with electronics of their own. */
const SWITCHES_ITSELF = ['servo', 'latching valve'] as const;

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

const isLamp = (spot: Spot) => hasRole(spot.placed, 'LED', 'lamp');
const isControl = (spot: Spot) => isType(spot, 'control') || isType(spot, 'digital in');

/** Gives a client a free pin of its own: its own end is taken off and wired there, so that what is joined now comes apart. */
function moveClient(circuit: Circuit, pin: PinSpot, { spot, near }: Client): Remedy[] {
  const cap = capFor(circuit, spot) ?? (isLamp(spot) ? 'out' : null);
  const [free] = cap ? freePins(circuit, pin.placed, cap) : [];
  return free
    ? [
        {
          kind: 'feed',
          label: `Move ${spot.placed.part.label} to ${free.terminal.name}`,
          at: near.end,
          from: free.end,
        },
      ]
    : [];
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

/** What a pin drives through a resistor or a line of a level shifter: gates, bases, lamps. What it reads there shares it with nothing. */
const behindSeries = (circuit: Circuit, pin: Spot): Spot[] => {
  const near = others(circuit, pin);
  return reachedFrom(circuit, pin).spots.filter(
    (spot) => !near.includes(spot) && ['control', 'digital in', 'uart in'].includes(spot.terminal.type),
  );
};
