import { airAndWater, firstChannel, firstLine, onePlot } from '../garden/edits/gardenForTests.ts';
import { setLimits, setWaterLine } from '../garden/edits/plots.ts';
import { setWiring } from '../garden/edits/plan.ts';
import type { Garden } from '../garden/document/schema.ts';
import { sketchNetlist } from '../wiring/sketchNetlist.ts';

/** A capacitive stick on input 0 of an 8-bit board, and a pump behind a MOSFET on pin 5; calibrated, armed, its limits set. */
export function oneStickOnePump(): { readonly garden: Garden; readonly boardId: string } {
  const calibrated = airAndWater(
    onePlot({
      probeLabel: 'C2',
      streamName: 'c2',
      pin: 'IN0',
      board: { name: 'Roof', traits: '8-bit 5 V board, six 10-bit inputs', adcBits: 12, supplyV: 3.3 },
      pump: { flowMlPerS: 9 },
    }),
    2900,
    1100,
  ).garden;
  const limited = setLimits(calibrated, calibrated.plots[0]?.id ?? '', { startTenths: 400, stopTenths: 600 });
  const line = firstLine(limited);
  const { probeId, boardId } = firstChannel(limited);
  const armed = setWaterLine(limited, line.id, {
    name: 'Roof pump',
    automatic: true,
    minIntervalS: 600,
    rise: { ...line.rise, responseS: 600 },
  });
  const wiring = sketchNetlist(
    `uno: board-8bit-six; stick: probe-capacitive; pump: pump-12v; mos: switch-mosfet; bat: battery-12v
     stick.out - uno.in0; stick.gnd - uno.gnd; stick.vcc - uno.out5
     mos.gate - uno.p5; mos.source - uno.gnd; mos.drain - pump.minus; pump.plus - bat.plus; bat.minus - uno.gnd`,
    {
      parts: {
        uno: { stands: { list: 'boards', id: boardId } },
        stick: { stands: { list: 'probes', id: probeId ?? '' } },
        pump: { stands: { list: 'waterLines', id: line.id } },
      },
    },
  );
  return { garden: setWiring(armed, wiring), boardId };
}
