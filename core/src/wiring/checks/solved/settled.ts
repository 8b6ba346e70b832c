/** Whether the circuit could be solved at all, and with figures that are known. */
import { FACTS } from '../../../catalogue/facts.ts';
import type { Check } from '../../finding.ts';
import { isWired } from '../../look.ts';
import { solvedOf } from '../../solve/solved.ts';

export const SETTLED_CHECKS: readonly Check[] = [
  {
    id: 'settled',
    title: 'The circuit comes to rest in every situation',
    why: 'A switch that switches itself off again chatters, and no voltage can be told; then none of the other checks has proved anything.',
    run: (circuit, report) => {
      const { all } = solvedOf(circuit);
      for (const at of all) {
        if (at.settled) {
          report.fine();
          continue;
        }
        const parts = new Set(at.chattering.flatMap((device) => device.partId ?? []));
        const spots = [...parts].flatMap((id) => circuit.parts.get(id)?.spots.slice(0, 1) ?? []);
        report.unknown(
          `The circuit finds no rest ${at.situation.when}: ${spots.map((spot) => spot.placed.part.label).join(', ') || 'something'} goes on and off without end. Nothing can be told until that is mended.`,
          spots.length > 0
            ? spots
            : [...circuit.parts.values()].flatMap((placed) => placed.spots.slice(0, 1)).slice(0, 1),
        );
        return;
      }
    },
  },
  {
    id: 'figures-known',
    title: 'Every figure that the solution rests on is known',
    why: 'Where one is missing a usual one stands in, so that the rest can be looked at; what rests on it is not proved.',
    run: (circuit, report) => {
      const { missing } = solvedOf(circuit).mesh;
      for (const { placed, key } of missing) {
        const spots = placed.spots.filter((spot) => isWired(circuit, spot));
        if (spots.length > 0)
          report.unknown(
            `${placed.part.label}: its ${FACTS[key].name} is not known. A usual one was taken, and nothing that rests on it is proved.`,
            spots,
          );
      }
      if (missing.length === 0 && circuit.netlist.wires.length > 0) report.fine();
    },
  },
];
