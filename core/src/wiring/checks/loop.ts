/** Checks of the 4–20 mA loop: its shunt and its voltage. */
import { cableOhm } from '../../electrics/cable.ts';
import { LOOP, loopNeededV, shuntFor } from '../../electrics/shunt.ts';
import { type Circuit, type Spot, fact, hasRole, isType } from '../circuit.ts';
import { type Check } from '../finding.ts';
import { allSpots, groundSpot, inMa, inOhm, inV, isWired, nameOf } from '../look.ts';

const loopMinus = (circuit: Circuit): Spot[] =>
  allSpots(circuit).filter(
    (spot) => isType(spot, 'loop') && spot.terminal.side === 'minus' && isWired(circuit, spot),
  );

export const LOOP_CHECKS: readonly Check[] = [
  {
    id: 'loop-shunt',
    title: 'Every 4–20 mA probe has a shunt that fits its input',
    why: 'The input reads a voltage: without a shunt it sees the whole loop supply.',
    run: (circuit, report) => {
      for (const spot of loopMinus(circuit)) {
        const net = circuit.netOf(spot.end);
        const shunt = net.spots.find((one) => hasRole(one.placed, 'shunt'));
        const input = net.spots.find((one) => isType(one, 'pin') || isType(one, 'analog in'));
        if (!input) continue;
        const fullScaleV =
          isType(input, 'pin') || isType(input, 'analog in') ? (input.terminal.fullScaleV ?? null) : null;
        const ground = groundSpot(input.placed);
        const found =
          fullScaleV === null
            ? null
            : shuntFor({ inputV: fullScaleV, loopV: 60, probeV: 0, cableOhm: 0, adcBits: 12, series: 'E24' });
        const ohm = shunt ? fact(shunt.placed, 'ohm') : null;
        if (!shunt)
          report.find(
            'fault',
            `${spot.placed.part.label} has no shunt at ${nameOf(input)}: the pin would see the loop’s supply.`,
            [spot, input],
            {
              ...(found?.ok ? { worked: found.value.worked } : {}),
              remedies:
                found?.ok && ground
                  ? [
                      {
                        kind: 'bridge',
                        label: `Put a shunt of ${inOhm(found.value.ohm)} to ground`,
                        entryId: 'shunt',
                        ends: { in: spot.end, gnd: ground.end },
                        settings: { ohm: found.value.ohm },
                      },
                    ]
                  : [],
            },
          );
        else if (ohm === null || fullScaleV === null)
          report.unknown(`The shunt of ${spot.placed.part.label}, or the scale of its input, is not known.`, [
            spot,
            input,
          ]);
        else {
          const fullV = (LOOP.fullMa / 1000) * ohm;
          if (fullV > fullScaleV || fullV < fullScaleV * 0.5)
            report.find(
              fullV > fullScaleV ? 'fault' : 'caution',
              `A shunt of ${inOhm(ohm)} gives ${inV(fullV)} at ${inMa(LOOP.fullMa)}; ${nameOf(input)} reads up to ${inV(fullScaleV)}.`,
              [spot, input],
              found?.ok
                ? {
                    worked: found.value.worked,
                    remedies: [
                      {
                        kind: 'set-fact',
                        label: `Take ${inOhm(found.value.ohm)}`,
                        part: shunt.placed.part.id,
                        key: 'ohm',
                        value: found.value.ohm,
                      },
                    ],
                  }
                : {},
            );
          else report.fine();
        }
      }
    },
  },
  {
    id: 'loop-voltage',
    title: 'Every loop has voltage enough at 20 mA',
    why: 'Shunt, cable and probe share the supply: what is missing is missing at the wet end, where it looks like a limit.',
    run: (circuit, report) => {
      for (const spot of loopMinus(circuit)) {
        const plus = circuit.netOf({ part: spot.end.part, terminal: 'plus' });
        const shunt = circuit.netOf(spot.end).spots.find((one) => hasRole(one.placed, 'shunt'));
        const cable = plus.wires
          .map((wire) => (wire.cableId === null ? null : circuit.cables.get(wire.cableId)))
          .find((one) => one);
        const probeV = fact(spot.placed, 'loopV');
        const shuntOhm = shunt ? fact(shunt.placed, 'ohm') : null;
        const loopV = plus.level?.volts ?? null;
        if (!plus.level) continue;
        if (
          probeV === null ||
          shuntOhm === null ||
          loopV === null ||
          (cable && (cable.lengthM === null || cable.areaMm2 === null))
        ) {
          report.unknown(
            `Whether the loop of ${spot.placed.part.label} has voltage enough cannot be told: its supply, shunt, cable or least voltage is not known.`,
            [spot],
          );
          continue;
        }
        const neededV = loopNeededV({
          shuntOhm,
          probeV,
          cableOhm:
            cable?.lengthM && cable.areaMm2
              ? cableOhm({ lengthM: cable.lengthM, areaMm2: cable.areaMm2 })
              : 0,
        });
        if (neededV > loopV)
          report.find(
            'fault',
            `The loop of ${spot.placed.part.label} needs ${inV(neededV)} at 20 mA and has ${inV(loopV)}.`,
            [spot],
          );
        else report.fine();
      }
    },
  },
];
