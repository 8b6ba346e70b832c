import { fact, isType, spotAt, type Circuit, type Placed } from '@plain-trowel/core/wiring/circuit';
import { boardOf, minusOf, others, plusOf } from '@plain-trowel/core/wiring/look';
import type { SumId, SumValues } from './sums.ts';

type Known = Readonly<Record<string, number | null | undefined>>;

/** Which sum belongs to a part, filled with what the wiring knows; null for parts without one. */
export function sumOfPart(circuit: Circuit, placed: Placed): { id: SumId; start: SumValues } | null {
  const board = boardOf(circuit, placed);
  const sumWith = (id: SumId, values: Known = {}) => ({
    id,
    start: Object.fromEntries(
      Object.entries(values).flatMap(([key, value]) => (value == null ? [] : [[key, value]])),
    ),
  });
  const of = (key: Parameters<typeof fact>[1]) => fact(placed, key);
  const pinV = board && fact(board, 'logicV');
  const pinMa = board && fact(board, 'pinMa');
  const voltsAt = (terminal: string) => circuit.netOf({ part: placed.part.id, terminal }).level?.volts;
  switch (placed.entry.role) {
    case 'LED':
      return sumWith('led', { pinV, forwardV: of('forwardV'), currentMa: of('activeMa') });
    case 'divider':
    case 'battery monitor':
      return sumWith('divider', { inV: voltsAt('in'), targetV: fullScaleBehind(circuit, placed) });
    case 'thermometer':
      return of('r25Ohm') === null
        ? null
        : sumWith('ntc', {
            r25Ohm: of('r25Ohm'),
            betaK: of('betaK'),
            adcBits: board && fact(board, 'adcBits'),
          });
    case 'transistor':
      return sumWith('base', { pinV, pinMa, hfe: of('hfe'), loadMa: loadMa(circuit, placed) });
    case 'MOSFET':
      return sumWith('gate', {
        pinV,
        pinMa,
        gateFullOnV: of('gateFullOnV'),
        onOhm: of('onOhm'),
        loadMa: loadMa(circuit, placed),
      });
    case 'pull-ups':
      return sumWith('i2c', { supplyV: voltsAt('up') });
    case 'shunt':
      return sumWith('shunt');
    case 'fuse':
      return sumWith('fuse');
    case 'battery':
      return sumWith('battery', { capacityMah: of('capacityMah') });
    case 'solar':
      return sumWith('solar');
    case 'pump':
    case 'valve':
      return sumWith('cable', { currentMa: of('activeMa') });
    default:
      return null;
  }
}

function fullScaleBehind(circuit: Circuit, divider: Placed): number | null {
  const outlet = spotAt(divider, 'out');
  const input = outlet && others(circuit, outlet).find((spot) => isType(spot, 'pin'));
  return input && isType(input, 'pin') ? (input.terminal.fullScaleV ?? input.terminal.maxV) : null;
}

/** Current of the load that hangs on a switch, mA. */
function loadMa(circuit: Circuit, placed: Placed): number | null {
  const load = [...circuit.parts.values()].find((one) =>
    [plusOf(one), minusOf(one)].some(
      (spot) =>
        spot &&
        isType(spot, 'load') &&
        others(circuit, spot).some((other) => other.placed === placed && isType(other, 'switched')),
    ),
  );
  return load ? fact(load, 'activeMa') : null;
}
