/** Checks of loads and their switches: flyback diodes, ratings, what runs at boot, alternating current. */
import { type Circuit, type Placed, type Spot, fact, hasRole, isType, spotAt } from '../circuit.ts';
import { type Check, type Remedy } from '../finding.ts';
import {
  behind,
  feederOf,
  inMa,
  inV,
  isTransformer,
  isWired,
  minusOf,
  nameOf,
  others,
  partsWith,
  plusOf,
} from '../look.ts';
import { driverOf } from '../pinUse.ts';
import { loadSide, loadsOf } from '../switched.ts';

const SWITCHES = ['MOSFET', 'transistor', 'driver module', 'relay'] as const;

export const LOAD_CHECKS: readonly Check[] = [
  {
    id: 'flyback',
    title: 'Every coil and motor has a flyback diode',
    why: 'When it is switched off, a coil drives its current on: without a diode the voltage leaps and kills the switch.',
    run: (circuit, report) => {
      for (const load of partsWith(circuit, 'pump', 'valve')) {
        const plus = plusOf(load);
        const minus = minusOf(load);
        if (
          !plus ||
          !minus ||
          !isWired(circuit, plus) ||
          !isWired(circuit, minus) ||
          isAlternating(circuit, load)
        )
          continue;
        const diodes = partsWith(circuit, 'diode').filter(
          (diode) =>
            circuit.netOf({ part: diode.part.id, terminal: 'cathode' }) === circuit.netOf(plus.end) &&
            circuit.netOf({ part: diode.part.id, terminal: 'anode' }) === circuit.netOf(minus.end),
        );
        const turned = partsWith(circuit, 'diode').filter(
          (diode) =>
            circuit.netOf({ part: diode.part.id, terminal: 'anode' }) === circuit.netOf(plus.end) &&
            circuit.netOf({ part: diode.part.id, terminal: 'cathode' }) === circuit.netOf(minus.end),
        );
        const helper = switchOf(circuit, load);
        const [backwards] = turned;
        if (backwards)
          report.find(
            'danger',
            `${backwards.part.label} is the wrong way round across ${load.part.label}: it shorts the supply when the switch closes. Its ring goes to plus.`,
            [plus, minus],
            {
              remedies: [
                {
                  kind: 'swap',
                  label: 'Turn it round',
                  one: { part: backwards.part.id, terminal: 'anode' },
                  other: { part: backwards.part.id, terminal: 'cathode' },
                },
              ],
            },
          );
        else if (diodes.length > 0) report.fine();
        else if (helper && hasRole(helper, 'driver module') && fact(helper, 'hasFlyback') === null)
          report.unknown(`Whether ${helper.part.label} has a flyback diode of its own is not known.`, [
            plus,
            minus,
          ]);
        else if (helper && hasRole(helper, 'driver module') && fact(helper, 'hasFlyback') === 1)
          report.fine();
        else
          report.find('fault', `${load.part.label} has no flyback diode across it.`, [plus, minus], {
            remedies: [
              {
                kind: 'bridge',
                label: 'Put a diode across it, ring to plus',
                entryId: 'diode',
                ends: { cathode: plus.end, anode: minus.end },
                settings: {},
              },
            ],
          });
      }
    },
  },
  {
    id: 'switch-rating',
    title: 'Every switch bears its load',
    why: 'Voltage and current of the load, with its start, must stay within what the switch is made for.',
    run: (circuit, report) => {
      for (const placed of partsWith(circuit, ...SWITCHES)) {
        const loads = loadsOf(circuit, placed);
        const side = loadSide(placed);
        if (loads.length === 0 || !side) continue;
        const volts = circuit.netOf(side.end).level?.volts ?? null;
        const peaks = loads.map((load) => fact(load, 'peakMa') ?? fact(load, 'activeMa'));
        const peakMa = peaks.reduce<number | null>(
          (sum, one) => (sum === null || one === null ? null : sum + one),
          0,
        );
        const mostV = fact(placed, 'switchedV');
        const mostMa = fact(placed, 'switchedMa');
        if (volts === null || peakMa === null || mostV === null || mostMa === null)
          report.unknown(
            `Whether ${placed.part.label} bears ${loads.map((one) => one.part.label).join(' and ')} cannot be told: a voltage or current is not known.`,
            [side],
          );
        else if (volts > mostV || peakMa > mostMa)
          report.find(
            'fault',
            `${placed.part.label} switches up to ${inV(mostV)} and ${inMa(mostMa)}; the load brings ${inV(volts)} and ${inMa(peakMa)} at its start.`,
            [side],
          );
        else report.fine();
      }
    },
  },
  {
    id: 'relay-boot',
    title: 'No pump runs while the board boots',
    why: 'Many relay modules are on when their input is low, and some pins are high at the start: the pump runs until the program says otherwise, at every reboot.',
    run: (circuit, report) => {
      for (const placed of partsWith(circuit, 'relay', 'driver module')) {
        const input = placed.entry.terminals.find((one) => one.type === 'digital in');
        const spot = input ? spotAt(placed, input.id) : null;
        if (!spot || !isWired(circuit, spot)) continue;
        const activeLow = fact(placed, 'activeLow');
        const driver = driverOf(circuit, spot);
        const pin = driver && isType(driver, 'pin') ? driver : null;
        if (activeLow === null)
          report.unknown(
            `Whether ${placed.part.label} is on when its input is high or low is not known. Try it without the pump.`,
            [spot],
          );
        else if (activeLow === 1 && !pulledUp(circuit, spot))
          report.find(
            'caution',
            `${placed.part.label} is on when its input is low. Until the program sets the pin, what it does is left to chance: set the pin high before making it an output, or pull it up.`,
            [spot],
            {
              remedies: relayRemedies(circuit, placed, spot),
            },
          );
        else if (activeLow === 0 && pin?.terminal.highAtBoot)
          report.find(
            'caution',
            `${nameOf(pin)} is high while the board starts, and ${placed.part.label} is on when high.`,
            [spot, pin],
          );
        else report.fine();
      }
    },
  },
];

/** What switches a load: the switch on one of its ends. */
function switchOf(circuit: Circuit, load: Placed): Placed | null {
  for (const end of [minusOf(load), plusOf(load)]) {
    const found = end && others(circuit, end).find((spot) => isType(spot, 'switched'));
    if (found) return found.placed;
  }
  return null;
}

/** Fed from the alternating output of a transformer. */
function isAlternating(circuit: Circuit, load: Placed): boolean {
  return [plusOf(load), minusOf(load)].some((spot) => {
    const feeder = spot && feederOf(circuit.netOf(spot.end));
    return feeder !== null && isTransformer(feeder.placed);
  });
}

const pulledUp = (circuit: Circuit, spot: Spot): boolean =>
  [spot, ...others(circuit, spot)].some((one) =>
    behind(circuit, one, 'resistor').some(({ spots }) =>
      spots.some((far) => far.terminal.type === 'supply out' || far.terminal.type === 'supply in'),
    ),
  );

function relayRemedies(circuit: Circuit, placed: Placed, spot: Spot): Remedy[] {
  const vcc = spotAt(placed, 'vcc');
  const driver = driverOf(circuit, spot);
  const logic = driver?.placed.entry.terminals.find(
    (one) => one.type === 'supply out' && one.volts === fact(driver.placed, 'logicV'),
  );
  const to = logic && driver ? { part: driver.placed.part.id, terminal: logic.id } : vcc?.end;
  return [
    ...(to
      ? [
          {
            kind: 'bridge',
            label: 'Pull its input up with 10 kΩ',
            entryId: 'resistor',
            ends: { a: spot.end, b: to },
            settings: { ohm: 10_000 },
          } as const,
        ]
      : []),
    {
      kind: 'replace',
      label: 'Take a module that is active high',
      part: placed.part.id,
      entryId: 'switch-relay-high',
    },
  ];
}
