/** Checks of the 4–20 mA loop: its shunt and its voltage, over the solutions. */
import { LOOP, shuntFor } from '../../electrics/shunt.ts';
import { type Circuit, type Spot, fact, hasRole, isType } from '../circuit.ts';
import { type Check, type Remedy } from '../finding.ts';
import { groundSpot, inMa, inOhm, inV, isWired, nameOf } from '../look.ts';
import { solvedOf } from '../solve/solved.ts';
import { workAcross, workVoltsAt } from '../solve/working.ts';

type LoopRead = { readonly minus: Spot; readonly input: Spot; readonly fullScaleV: number | null };

/** Every loop that a pin or converter reads. */
const loops = (circuit: Circuit): LoopRead[] =>
  solvedOf(circuit).situations.uses.flatMap(({ pin, spots }) =>
    spots.flatMap((minus): LoopRead[] =>
      isType(minus, 'loop') && minus.terminal.side === 'minus' && isWired(circuit, minus)
        ? [{ minus, input: pin, fullScaleV: pin.terminal.fullScaleV ?? null }]
        : [],
    ),
  );

/** 4 mA are a fifth of 20 mA; a little more is the input’s own. */
const RESTS_SHARE = 0.25;

/** What the current of a loop falls across: a shunt, or a plain resistor in its place. */
const shuntOf = (circuit: Circuit, minus: Spot) =>
  circuit
    .netOf(minus.end)
    .spots.find((one) => hasRole(one.placed, 'shunt') || hasRole(one.placed, 'resistor'))?.placed ?? null;

export const LOOP_CHECKS: readonly Check[] = [
  {
    id: 'loop-shunt',
    title: 'Every 4–20 mA probe has a shunt that fits its input',
    why: 'The input reads a voltage: without a shunt it sees the whole loop supply.',
    run: (circuit, report) => {
      const solved = solvedOf(circuit);
      for (const { minus, input, fullScaleV } of loops(circuit)) {
        const situation = solved.situations.signals.get(minus);
        const full = situation && solved.voltsAt(solved.of(situation), input);
        const shunt = shuntOf(circuit, minus);
        const found =
          fullScaleV === null
            ? null
            : shuntFor({ inputV: fullScaleV, loopV: 60, probeV: 0, cableOhm: 0, adcBits: 12, series: 'E24' });
        const about = found?.ok ? { worked: found.value.worked } : {};
        if (fullScaleV === null || (shunt && fact(shunt, 'ohm') === null) || full == null)
          report.unknown(
            `The shunt of ${minus.placed.part.label}, or the scale of its input, is not known.`,
            [minus, input],
          );
        else if (!shunt)
          report.find(
            'fault',
            `${minus.placed.part.label} has no shunt at ${nameOf(input)}: the pin would see the loop’s supply.`,
            [minus, input],
            { ...about, remedies: found?.ok ? newShunt(minus, input, found.value.ohm) : [] },
          );
        else if (full > fullScaleV * 1.02 || full < fullScaleV * 0.5)
          report.find(
            full > fullScaleV ? 'fault' : 'caution',
            `${shunt.part.label} gives ${inV(full)} at ${inMa(LOOP.fullMa)}; ${nameOf(input)} reads up to ${inV(fullScaleV)}.`,
            [minus, input, ...shunt.spots],
            {
              ...about,
              remedies: found?.ok
                ? [
                    {
                      kind: 'set-fact',
                      label: `Take ${inOhm(found.value.ohm)}`,
                      part: shunt.part.id,
                      key: 'ohm',
                      value: found.value.ohm,
                    },
                  ]
                : [],
            },
          );
        else if ((solved.voltsAt(solved.idle, input) ?? 0) > RESTS_SHARE * full)
          report.find(
            'fault',
            `${nameOf(input)} sees ${inV(solved.voltsAt(solved.idle, input) ?? 0)} at 4 mA and ${inV(full)} at 20 mA: something besides the loop feeds it.`,
            [
              minus,
              input,
              ...circuit.netOf(input.end).spots.filter((one) => hasRole(one.placed, 'resistor')),
            ],
            workVoltsAt(solved, solved.idle, input),
          );
        else report.fine();
      }
    },
  },
  {
    id: 'loop-voltage',
    title: 'Every loop has voltage enough at 20 mA',
    why: 'Shunt, cable and probe share the supply: what is missing is missing at the wet end, where it looks like a limit.',
    run: (circuit, report) => {
      const solved = solvedOf(circuit);
      for (const [minus, situation] of solved.situations.signals) {
        if (!isType(minus, 'loop') || !isWired(circuit, minus)) continue;
        const probeV = fact(minus.placed, 'loopV');
        const device = solved.deviceOf(minus.placed, 'loop');
        const plus = circuit.netOf({ part: minus.end.part, terminal: 'plus' });
        if (!device || plus.wires.length === 0) continue;
        const shunt = shuntOf(circuit, minus);
        if (probeV === null || plus.level?.volts === null || (shunt && fact(shunt, 'ohm') === null)) {
          report.unknown(
            `Whether the loop of ${minus.placed.part.label} has voltage enough cannot be told: its supply, shunt or least voltage is not known.`,
            [minus],
          );
          continue;
        }
        const at = solved.of(situation);
        const volts = at.across(device.a, device.b);
        if (volts < probeV)
          report.find(
            'fault',
            `${minus.placed.part.label} wants ${inV(probeV)} across itself at 20 mA; ${inV(Math.max(0, volts))} are left for it.`,
            [minus],
            {
              isConsequence: volts < 0.5,
              worked: workAcross(
                solved.mesh,
                at,
                [device.a, device.b],
                `Voltage left for ${minus.placed.part.label} at 20 mA`,
              ),
            },
          );
        else report.fine();
      }
    },
  },
];

function newShunt(minus: Spot, input: Spot, ohm: number): Remedy[] {
  const ground = groundSpot(input.placed);
  return ground
    ? [
        {
          kind: 'bridge',
          label: `Put a shunt of ${inOhm(ohm)} to ground`,
          entryId: 'shunt',
          ends: { in: minus.end, gnd: ground.end },
          settings: { ohm },
        },
      ]
    : [];
}
